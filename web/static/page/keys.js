// Keys: places, things, snags, undo.
(function () {
  "use strict";
  const { $, $$, go, typing, shortcut } = window.page;
  const zoomBy = (k) => window.page.zoomBy(k);
  // single keys can be turned off, for those whose voice or hands press them unmeant
  const off = () => { try { return localStorage.getItem("keys") === "off"; } catch (_) { return false; } };
  document.addEventListener("change", (e) => {
    if (!e.target.matches("[data-keys-off]")) return;
    try { localStorage.setItem("keys", e.target.checked ? "off" : "on"); } catch (_) { /* for this page only */ }
  });
  function showOff() {
    const box = $("[data-keys-off]");
    if (box) box.checked = off();
  }
  document.addEventListener("DOMContentLoaded", showOff);

  document.addEventListener("keydown", (e) => {
    if ((e.ctrlKey || e.metaKey) && !e.altKey && (e.key === "z" || e.key === "y")) {
      if (typing(e.target) && e.target.value !== e.target.defaultValue) return;
      const b = $(e.key === "z" && !e.shiftKey ? "[data-undo]" : "[data-redo]");
      if (b && !b.disabled) { e.preventDefault(); b.click(); }
      return;
    }
    if (e.ctrlKey || e.metaKey || e.altKey || !shortcut(e)) return;
    if (off() && e.key !== "?") return;
    const doors = $$("[data-door]");
    const picks = $$(".surface a.pick, .surface .item[href]");
    const at = picks.findIndex((p) => p.classList.contains("on"));
    switch (e.key) {
      case "/": e.preventDefault(); $("#line") && $("#line").focus(); break;
      case "?": $("#keys") && $("#keys").showModal(); break;
      case "[": if (picks.length) { const p = picks[(at <= 0 ? picks.length : at) - 1]; step(picks, at, -1, p); } break;
      case "]": if (picks.length) step(picks, at, 1, picks[(at + 1) % picks.length]); break;
      case "m": { // a bare key changes nothing: it leads to the mend, Enter takes it
        const b = $(".gutter .btn.main, .walk .btn.main, .gutter .btn[name=mend]");
        if (b) { b.focus(); b.scrollIntoView({ block: "nearest" }); }
        break;
      }
      case "w": { const n = $(".ticket [data-working]"); if (n) n.click(); break; }
      case "+": case "=": zoomBy(1.25); break;
      case "-": zoomBy(0.8); break;
      case "0": zoomBy(0); break;
      default: if (e.key >= "1" && e.key <= String(doors.length)) go(doors[e.key - 1].getAttribute("href"));
    }
  });
  // several links may lead to one thing (its copies): step past them
  function step(picks, at, dir, to) {
    const key = at >= 0 ? picks[at].dataset.key : "";
    for (let i = 0, n = at; i < picks.length; i++) {
      n = (n + dir + picks.length) % picks.length;
      if (picks[n].dataset.key !== key) { to = picks[n]; break; }
    }
    go(to.getAttribute("href"));
  }
})();
