// Forms and links answer in place: forms that are marked, and links to places of the display.
(function () {
  "use strict";
  const $ = (s, r) => (r || document).querySelector(s);
  const $$ = (s, r) => Array.from((r || document).querySelectorAll(s));

  const live = window.live;

  document.addEventListener("submit", (e) => {
    const f = e.target;
    const ask = e.submitter && e.submitter.dataset.confirm;
    if (ask && !confirm(ask)) {
      e.preventDefault();
      return;
    }
    if (!f.matches("[data-live]")) return;
    e.preventDefault();
    if (e.submitter && live.twice(f, e.submitter)) return;
    document.dispatchEvent(new CustomEvent("sending", { detail: f }));
    if (f.matches(".quick")) live.sendLine(f);
    else live.send(f, e.submitter);
  });
  // the second click of a double click adds nothing more
  document.addEventListener(
    "click",
    (e) => {
      if (
        e.detail > 1 &&
        e.target.closest &&
        e.target.closest(".palette button, .starter button, .quick .do")
      ) {
        e.preventDefault();
        e.stopPropagation();
      }
    },
    true,
  );
  document.addEventListener("change", (e) => {
    const f = e.target.form;
    if (e.target.id === "line") return;
    if (f && f.matches("[data-get]")) {
      live.go(f.getAttribute("action") + "?" + new URLSearchParams(new FormData(f)));
      return;
    }
    if (f && f.matches("[data-auto]")) live.send(f, null, true);
  });
  // plainly is a press that asks for no window and no file of its own
  const plainly = (e, a) =>
    !(e.defaultPrevented || e.ctrlKey || e.metaKey || e.shiftKey || e.button) &&
    !a.getAttribute("target") &&
    !a.hasAttribute("download");
  // a link to a place of this display is gone to in the page
  function here(a) {
    const to = new URL(a.getAttribute("href"), location.href);
    return $$("[data-door]").some((d) => d.pathname === to.pathname) && to.origin === location.origin;
  }
  document.addEventListener("click", (e) => {
    const a = e.target.closest("a[href]");
    if (!a || !plainly(e, a) || a.getAttribute("href").startsWith("#")) return;
    if ($("#page") && !a.matches("[data-working]") && here(a)) {
      e.preventDefault();
      live.go(a.getAttribute("href"));
    } else if (live.busy() || live.notStored().length) {
      // one that leads off the page goes when all that was entered is sent
      e.preventDefault();
      live.add({ leaves: a.href });
    }
  });
  window.addEventListener("popstate", () => {
    if ($("#page")) live.go(location.href, false);
  });
})();
