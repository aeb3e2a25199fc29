// Keys: places, things, snags, undo.
(function () {
  "use strict";
  const { $, $$, go, typing, shortcut, keyRefused } = window.page;
  const zoomBy = (k) => window.page.zoomBy(k);
  // what this browser remembers of its user's keys
  function stored(name, otherwise) {
    try {
      return localStorage.getItem(name) || otherwise;
    } catch {
      return otherwise;
    }
  }
  function store(name, text) {
    try {
      localStorage.setItem(name, text);
    } catch {
      /* for this page only */
    }
  }
  // single keys can be turned off, for those whose voice or hands press them unmeant
  const off = () => stored("keys", "on") === "off";
  // each single key can be another: kept by what it does
  function own() {
    try {
      return JSON.parse(stored("keymap", "{}"));
    } catch {
      return {};
    }
  }
  const boxes = () => $$("input[data-key]");
  function does(key) {
    const mine = own();
    const b = boxes().find((x) => (mine[x.dataset.key] || x.defaultValue) === key);
    return b ? b.dataset.key : "";
  }
  function showKeys() {
    const mine = own();
    for (const b of boxes()) b.value = mine[b.dataset.key] || b.defaultValue;
  }

  document.addEventListener("alpine:init", () => {
    window.Alpine.data("keys", () => ({
      off: off(),
      says: "Type another key over one to change it; this browser remembers.",
      init() {
        showKeys();
        this.$watch("off", (on) => store("keys", on ? "off" : "on"));
      },
      change(e) {
        const b = e.target;
        if (!b.matches("input[data-key]")) return;
        const key = b.value.trim(),
          taken = boxes().some((x) => x !== b && x.value === key);
        const why = keyRefused(key, b.defaultValue, taken);
        if (why) {
          this.says = why;
          showKeys();
          return;
        }
        const mine = own();
        if (key === b.defaultValue) delete mine[b.dataset.key];
        else mine[b.dataset.key] = key;
        store("keymap", JSON.stringify(mine));
        this.says = "“" + key + "” it is.";
      },
      usual() {
        store("keymap", "{}");
        showKeys();
        this.says = "All keys are as they were.";
      },
    }));
  });

  // undoes reports a press of Ctrl Z or Ctrl Y, and takes a step back or on, but for what is being typed
  function undoes(e) {
    if (!(e.ctrlKey || e.metaKey) || e.altKey || (e.key !== "z" && e.key !== "y")) return false;
    if (typing(e.target) && e.target.value !== e.target.defaultValue) return true;
    const b = $(e.key === "z" && !e.shiftKey ? "[data-undo]" : "[data-redo]");
    if (b && !b.disabled) {
      e.preventDefault();
      b.click();
    }
    return true;
  }

  document.addEventListener("keydown", (e) => {
    if (undoes(e)) return;
    if (e.ctrlKey || e.metaKey || e.altKey || !shortcut(e)) return;
    if (off() && e.key !== "?") return;
    const doors = $$("[data-door]");
    const picks = $$(".surface a.pick, .surface .item[href]");
    const at = picks.findIndex((p) => p.classList.contains("on"));
    if (e.key === "?") {
      if ($("#keys")) $("#keys").showModal();
      return;
    }
    const what = does(e.key) || (e.key === "=" ? "larger" : "");
    if (acts[what]) acts[what](e, picks, at);
    else if (e.key >= "1" && e.key <= String(doors.length)) go(doors[e.key - 1].getAttribute("href"));
  });

  // what each single key does
  const acts = {
    line(e) {
      e.preventDefault();
      if ($("#line")) $("#line").focus();
    },
    before(e, picks, at) {
      if (picks.length) step(picks, at, -1, picks[(at <= 0 ? picks.length : at) - 1]);
    },
    next(e, picks, at) {
      if (picks.length) step(picks, at, 1, picks[(at + 1) % picks.length]);
    },
    mend() {
      // a bare key changes nothing: it leads to the mend, Enter takes it
      const b = $(".gutter .btn.main, .walk .btn.main, .gutter .btn[name=mend]");
      if (!b) return;
      b.focus();
      b.scrollIntoView({ block: "nearest" });
    },
    working() {
      const n = $(".ticket [data-working]");
      if (n) n.click();
    },
    larger: () => zoomBy(1.25),
    smaller: () => zoomBy(0.8),
    whole: () => zoomBy(0),
  };

  // several links may lead to one thing (its copies): step past them
  function step(picks, at, dir, to) {
    const key = at >= 0 ? picks[at].dataset.key : "";
    for (let i = 0, n = at; i < picks.length; i++) {
      n = (n + dir + picks.length) % picks.length;
      if (picks[n].dataset.key !== key) {
        to = picks[n];
        break;
      }
    }
    go(to.getAttribute("href"));
  }
})();
