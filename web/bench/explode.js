// A drawing is pulled apart.
(function () {
  "use strict";
  const { $$ } = window.page;
  document.addEventListener("alpine:init", () => {
    window.Alpine.data("explode", () => ({
      pull() {
        const k = this.$el.value / 100;
        for (const b of $$(".surface .body"))
          b.setAttribute("transform", `translate(${b.dataset.dx * k} ${b.dataset.dy * k})`);
      },
    }));
  });
})();
