// An answer is morphed into the page, so that a field that is being typed in, or was changed
// since the request left, is never touched, and the focus stays where it was.
(function () {
  "use strict";
  const $ = (s, r) => (r || document).querySelector(s);
  const $$ = (s, r) => Array.from((r || document).querySelectorAll(s));

  const live = window.live;

  function trouble(text) {
    let p = $(".offline");
    if (!p) {
      p = document.createElement("p");
      p.className = "error offline";
      p.setAttribute("role", "alert");
      $(".surface").prepend(p);
    }
    p.textContent = text;
  }

  function settle(el, to) {
    // a field's own state follows its attributes
    if (el.type === "checkbox" || el.type === "radio") {
      el.checked = to.hasAttribute("checked");
      return;
    }
    if (el.tagName === "SELECT") {
      const on = $("option[selected]", to) || $("option", to);
      if (on) el.value = on.getAttribute("value") === null ? on.textContent : on.getAttribute("value");
      return;
    }
    const v = el.tagName === "TEXTAREA" ? to.textContent : to.getAttribute("value") || "";
    if (el.value !== v) el.value = v;
  }

  // whole are parts that are put in anew when they differ: drawings, and what
  // has a state of its own that belongs to what is shown
  const whole = ".draw, .player, .stocks, .leader";

  function morph(page, job, at) {
    const old = $("#page");
    const later = [];
    window.Alpine.morph(old, page, {
      key: (el) => (el.getAttribute ? el.getAttribute("data-k") || el.id || undefined : undefined),
      updating(el, to, childrenOnly, skip) {
        if (el.nodeType !== 1) return;
        if (el.id === "answers") {
          skip();
          return;
        }
        if (el.matches(whole)) {
          if (el.outerHTML !== to.outerHTML) el.replaceWith(document.importNode(to, true));
          skip();
          return;
        }
        if (el.tagName === "DETAILS" && el.open) to.setAttribute("open", "");
        if (!live.field(el)) return;
        if (live.keeps(el, job, at)) {
          for (const name of ["class", "aria-invalid", "data-stored", "maxlength"]) {
            if (to.hasAttribute(name)) el.setAttribute(name, to.getAttribute(name));
            else el.removeAttribute(name);
          }
          if (el.tagName !== "SELECT") skip();
          else later.push([el, el.value]);
        } else if (el.tagName === "SELECT") {
          later.push([el, null, to]);
        } else {
          settle(el, to);
        }
      },
    });
    for (const [el, value, to] of later) {
      if (to) settle(el, to);
      else el.value = value;
    }
  }

  // tell says what an edit did: snags gone, snags new, what it costs
  function tell(before, after, done) {
    const to = $("[data-told]");
    if (to && before && after) to.textContent = window.pure.effect(before, after, done);
  }

  // settleLine tells a line's answer by the page that came for it
  function settleLine(job, next) {
    const why = [$(".got.bad", next), $("main .error", next)]
      .map((e) => e && e.textContent.trim())
      .find((t) => t);
    const refused = $("#line", next) && $("#line", next).getAttribute("value");
    if (live.answered(job, refused ? why || "It was not understood." : "") && refused) {
      $(".tries").dataset.of = job.said.text;
      return;
    }
    const got = $(".got"); // what the page says there is of the line that was sent, not of what is typed now
    got.textContent = "";
    got.classList.remove("bad");
    $(".tries").replaceChildren();
  }

  // tabFromTheTop lets the next Tab begin at the page's first link, as after a load: the
  // browser goes on from where the focus last was, though that place is gone.
  function tabFromTheTop() {
    document.body.tabIndex = -1;
    document.body.focus({ preventScroll: true });
    document.body.removeAttribute("tabindex");
  }

  // spot is where the focus is: how to find that again, and the part of the page it is in.
  function spot() {
    const a = document.activeElement;
    if (!a || a === document.body) return { keep: "", group: "" };
    const name = (attr) => {
      const v = a.getAttribute && a.getAttribute(attr);
      return v ? `[${attr}="${CSS.escape(v)}"]` : "";
    };
    const names = ["data-slide", "data-handle", "data-piece", "name", "id", "data-key"];
    return {
      keep: names.map(name).find((n) => n) || "",
      action: a.form && a.form.getAttribute("action"),
      group: [".ways", ".props", ".beam", ".gutter", ".ticket"].find((g) => a.closest && a.closest(g)) || "",
    };
  }

  // refocus puts the focus where it was, or where that was.
  function refocus(was) {
    const gone = () => document.activeElement === document.body;
    const focus = (el) => el && el.type !== "hidden" && el.focus({ preventScroll: true });
    if (was.keep && gone()) {
      const same = (e) => !was.action || !e.form || e.form.getAttribute("action") === was.action;
      focus($$(was.keep).find(same));
    }
    if (was.group && gone()) {
      const g = was.group;
      focus($(g + " [aria-current]") || $(g + "[tabindex]") || $(g + " a, " + g + " button"));
    }
  }

  // troubled says a plain page of trouble here, and keeps what was entered
  function troubled(next) {
    const h = $("h1", next),
      p = $("main p", next);
    const why = p ? p.textContent : "The barn answered something unexpected.";
    trouble((h ? h.textContent + ". " : "") + why);
  }

  // addressed notes where one is now
  function addressed(url, push) {
    if (!url || push === false) return;
    if (new URL(url, location.href).href === location.href) history.replaceState({}, "", url);
    else history.pushState({}, "", url);
  }

  // measured readies the first size of what was added from a palette, or a field that is wrong
  function measured(job) {
    if (job.form && job.form.matches(".palette")) {
      const sizes = '.ticket .fl input[name^="f."]:not([name="f.name"]):not([type=checkbox])';
      const first = $(sizes);
      if (first) {
        first.focus({ preventScroll: true });
        first.select();
      }
    }
    const bad = $(".fl.bad input, .fl.bad select");
    if (bad && !live.typing(document.activeElement)) bad.focus();
  }

  // swap puts a fresh page in place of the old and keeps where the user was.
  function swap(html, url, job, at) {
    const next = new DOMParser().parseFromString(html, "text/html");
    const page = $("#page", next);
    if (!page) {
      troubled(next);
      return;
    }
    const was = spot(),
      here = location.pathname;
    const moves = url && new URL(url, location.href).pathname !== here;
    const off = $(".offline");
    if (off) off.remove();
    const { tally, plan } = $("#page").dataset;
    const step = () => ($("[data-undo]") || {}).title;
    const before = step();
    morph(page, job, at);
    for (const m of $$("[data-behind]")) m.remove();
    const behind = $("[data-behind]", next);
    if (behind) $("#page").before(document.importNode(behind, true));
    document.title = next.title;
    document.documentElement.className = next.documentElement.className + " js";
    if (job.form && $("#page").dataset.plan === plan)
      tell(tally, $("#page").dataset.tally, step() !== before);
    if (job.said) settleLine(job, next);
    addressed(url, job.push);
    if (moves && here !== location.pathname) {
      $(".surface").scrollTop = 0;
      $(".surface").scrollLeft = 0;
    }
    refocus(was);
    measured(job);
    if (url && here !== location.pathname && document.activeElement === document.body) tabFromTheTop();
    document.dispatchEvent(new CustomEvent("swapped"));
  }

  Object.assign(live, { swap, trouble });
})();
