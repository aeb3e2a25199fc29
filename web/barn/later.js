// Drawings that come when they are looked at.
(function () {
  "use strict";
  const { $$ } = window.page;
  const looked = new IntersectionObserver(
    (seen) => {
      for (const e of seen) {
        if (!e.isIntersecting) continue;
        looked.unobserve(e.target);
        fetch(e.target.dataset.later).then(async (r) => {
          if (r.ok) {
            e.target.innerHTML = await r.text();
            e.target.classList.remove("later");
          }
        });
      }
    },
    { rootMargin: "300px" },
  );
  function awaitLooks() {
    $$("[data-later].later").forEach((d) => looked.observe(d));
  }
  document.addEventListener("swapped", awaitLooks);
  document.addEventListener("DOMContentLoaded", awaitLooks);
})();
