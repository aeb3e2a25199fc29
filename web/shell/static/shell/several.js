// Shift and press picks one thing more, or lets it go; so does Shift and Enter.
(function () {
  "use strict";
  const { $, $$, go, picked } = window.page;
  const several = /^(solid|device|plot|fixture|viewpoint|outlet):/;

  function keyOf(el) {
    const body = el.closest("[data-solid]"),
      link = el.closest("a[data-key], a.pick");
    if (body) return "solid:" + body.dataset.solid;
    const key =
      (link &&
        (link.dataset.key ||
          new URL(link.href.baseVal || link.href, location.href).searchParams.get("sel"))) ||
      "";
    return several.test(key) ? key.split("/")[0] : "";
  }

  function toggle(key) {
    const u = new URL(location.href);
    const was = (u.searchParams.get("sel") || "").split(",").filter((k) => several.test(k));
    u.searchParams.set("sel", picked(was, key).join(","));
    go(u.pathname + u.search);
  }

  function take(e) {
    const key = e.target.closest && e.target.closest(".surface") ? keyOf(e.target) : "";
    if (!key) return;
    e.preventDefault();
    e.stopPropagation();
    toggle(key);
  }
  document.addEventListener(
    "click",
    (e) => {
      if (e.shiftKey && !e.button) take(e);
    },
    true,
  );
  document.addEventListener(
    "keydown",
    (e) => {
      if (e.shiftKey && e.key === "Enter") take(e);
    },
    true,
  );
  // a press with Shift selects no text
  document.addEventListener("mousedown", (e) => {
    if (e.shiftKey && e.target.closest(".surface svg")) e.preventDefault();
  });

  // what is picked is marked in every drawing
  function mark() {
    const t = $("[data-many]");
    const keys = t ? t.dataset.many.split(",") : [];
    $$(".surface [data-solid]").forEach((b) =>
      b.classList.toggle("picked", keys.includes("solid:" + b.dataset.solid)),
    );
    $$(".surface a[data-key]").forEach((a) => a.classList.toggle("picked", keys.includes(a.dataset.key)));
  }
  document.addEventListener("swapped", mark);
  document.addEventListener("DOMContentLoaded", mark);
})();
