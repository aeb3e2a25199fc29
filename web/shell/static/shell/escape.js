// Escape in a field gives back what is stored there; a second one leaves it for the drawing.
(function () {
  "use strict";
  const { $, typing, forget } = window.page;
  document.addEventListener("keydown", (e) => {
    const el = e.target;
    if (e.key !== "Escape" || e.defaultPrevented || !typing(el) || el.id === "line" || el.closest("dialog"))
      return;
    e.preventDefault();
    const stored = el.dataset.stored === undefined ? el.defaultValue : el.dataset.stored;
    if (el.value === stored) {
      $("#surface").focus({ preventScroll: true });
      return;
    }
    const bad = el.dataset.stored !== undefined;
    el.value = stored;
    forget(el);
    if (el.select) el.select();
    if (bad) el.dispatchEvent(new Event("change", { bubbles: true })); // it says no more that it is wrong
  });
})();
