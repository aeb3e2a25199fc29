// A drawing is pulled apart.
(function () {
  "use strict";
  const { $$ } = window.page;
  document.addEventListener("input", (e) => {
    if (!e.target.matches("[data-explode]")) return;
    const k = e.target.value / 100;
    $$(".surface .body").forEach((b) => b.setAttribute("transform", `translate(${b.dataset.dx * k} ${b.dataset.dy * k})`));
  });
})();
