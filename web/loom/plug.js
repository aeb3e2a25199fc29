// A load is dragged to the outlet it is plugged into.
(function () {
  "use strict";
  const { $, drag, go, send } = window.page;
  const under = (e) =>
    document
      .elementsFromPoint(e.clientX, e.clientY)
      .map((el) => el.closest("[data-outlet]"))
      .find(Boolean);
  let last = null;
  document.addEventListener("pointermove", (e) => {
    last = e;
  });
  drag("a[data-load]", {
    slack: 6,
    own: true,
    hold() {
      return $("#plug") ? {} : null;
    },
    move(h, by) {
      h.el.setAttribute("transform", `translate(${by.x} ${by.y})`);
      const on = last && under(last);
      document.querySelectorAll("[data-outlet].near").forEach((o) => {
        if (o !== on) o.classList.remove("near");
      });
      if (on) on.classList.add("near");
    },
    drop(h) {
      if (!h.moved) {
        go(h.el.getAttribute("href"));
        return;
      }
      const on = last && under(last);
      h.el.removeAttribute("transform");
      document.querySelectorAll("[data-outlet].near").forEach((o) => o.classList.remove("near"));
      if (!on || on.dataset.outlet === h.el.dataset.from) return;
      const f = $("#plug");
      f.elements.load.value = h.el.dataset.load;
      f.elements.outlet.value = on.dataset.outlet;
      send(f);
    },
  });
})();
