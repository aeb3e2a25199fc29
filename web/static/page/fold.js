// The ticket folds away, and stays so.
(function () {
  "use strict";
  const { $ } = window.page;
  function folded(on) {
    document.documentElement.classList.toggle("folded", on);
    const b = $("[data-fold]");
    if (!b) return;
    b.textContent = on ? "Unfold" : "Fold";
    b.setAttribute("aria-expanded", String(!on));
  }
  const keptFold = () => { try { return localStorage.getItem("folded") === "yes"; } catch { return false; } };
  function settleFold() {
    folded(keptFold());
    // rows that scroll on a phone: where one is is in view. By their own scrollLeft: the
    // browser begins a Tab where something was scrolled into view, past the skip links.
    for (const row of [".doors", ".ways", ".props"]) {
      const list = $(row), on = list && list.querySelector(".on");
      if (on) list.scrollLeft = on.offsetLeft - list.offsetLeft - (list.clientWidth - on.offsetWidth) / 2;
    }
  }
  document.addEventListener("click", (e) => {
    if (!e.target.closest("[data-fold]")) return;
    const on = !keptFold();
    try { localStorage.setItem("folded", on ? "yes" : "no"); } catch { /* it folds all the same */ }
    folded(on);
  });
  document.addEventListener("swapped", settleFold);
  document.addEventListener("DOMContentLoaded", settleFold);
})();
