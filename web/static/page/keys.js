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
  // each single key can be another: kept by what it does
  function own() { try { return JSON.parse(localStorage.getItem("keymap") || "{}"); } catch (_) { return {}; } }
  function boxes() { return $$("input[data-key]"); }
  function does(key) {
    const mine = own();
    const b = boxes().find((x) => (mine[x.dataset.key] || x.defaultValue) === key);
    return b ? b.dataset.key : "";
  }
  function showKeys() { const mine = own(); for (const b of boxes()) b.value = mine[b.dataset.key] || b.defaultValue; }
  function keep(map) { try { localStorage.setItem("keymap", JSON.stringify(map)); } catch (_) { /* for this page only */ } }
  function told(text) { const p = $("[data-keys-said]"); if (p) p.textContent = text; }
  document.addEventListener("change", (e) => {
    const b = e.target.closest && e.target.closest("input[data-key]");
    if (!b) return;
    const mine = own(), key = b.value.trim();
    const taken = boxes().find((x) => x !== b && x.value === key);
    if (!key || /[0-9?]/.test(key) && key !== b.defaultValue || taken) {
      told(!key ? "A key must be one letter or sign." : taken ? key + " does something else already; change that one first." : key + " is kept for the places and this list.");
      showKeys();
      return;
    }
    if (key === b.defaultValue) delete mine[b.dataset.key]; else mine[b.dataset.key] = key;
    keep(mine);
    told("“" + key + "” it is.");
  });
  document.addEventListener("click", (e) => {
    if (!e.target.closest("[data-keys-back]")) return;
    keep({});
    showKeys();
    told("All keys are as they were.");
  });
  document.addEventListener("DOMContentLoaded", () => { showOff(); showKeys(); });

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
    if (e.key === "?") { if ($("#keys")) $("#keys").showModal(); return; }
    switch (does(e.key) || (e.key === "=" ? "larger" : "")) {
      case "line": e.preventDefault(); if ($("#line")) $("#line").focus(); break;
      case "before": if (picks.length) { const p = picks[(at <= 0 ? picks.length : at) - 1]; step(picks, at, -1, p); } break;
      case "next": if (picks.length) step(picks, at, 1, picks[(at + 1) % picks.length]); break;
      case "mend": { // a bare key changes nothing: it leads to the mend, Enter takes it
        const b = $(".gutter .btn.main, .walk .btn.main, .gutter .btn[name=mend]");
        if (b) { b.focus(); b.scrollIntoView({ block: "nearest" }); }
        break;
      }
      case "working": { const n = $(".ticket [data-working]"); if (n) n.click(); break; }
      case "larger": zoomBy(1.25); break;
      case "smaller": zoomBy(0.8); break;
      case "whole": zoomBy(0); break;
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
