// Drawings are zoomed by the wheel and by keys.
(function () {
  "use strict";
  const { $, $$ } = window.page;
  let zoom = 1;
  function setZoom(z) {
    zoom = Math.min(4, Math.max(1, z));
    $$("[data-zoom]").forEach((d) => {
      d.classList.toggle("zoomed", zoom > 1);
      const s = $("svg", d);
      if (s) s.style.width = zoom > 1 ? zoom * 100 + "%" : "";
    });
  }
  document.addEventListener(
    "wheel",
    (e) => {
      if (e.ctrlKey && e.target.closest && e.target.closest("[data-zoom]")) {
        e.preventDefault();
        setZoom(zoom * (e.deltaY < 0 ? 1.15 : 0.87));
      }
    },
    { passive: false },
  );
  window.page.zoomBy = (k) => setZoom(k ? zoom * k : 1);
})();
