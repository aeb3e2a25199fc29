// A mechanism's motor is dragged by its shaft, or moved by the arrow keys.
(function () {
  "use strict";
  const { $, drag, arrows, send } = window.page;
  function put(el, dx, dy) {
    const f = $("#pivot");
    f.elements.mechanism.value = el.dataset.pivot;
    f.elements.x.value = Number(el.dataset.x) + dx;
    f.elements.y.value = Number(el.dataset.y) + (el.dataset.slides === "true" ? 0 : dy);
    send(f);
  }
  drag("[data-pivot]", {
    slack: 3,
    own: true,
    hold(el) {
      return $("#pivot") ? { k: 1 / Number(el.dataset.scale) } : null;
    },
    move(h, by) {
      h.by = by;
      h.el.setAttribute("transform", `translate(${by.x} ${h.el.dataset.slides === "true" ? 0 : by.y})`);
    },
    drop(h) {
      if (h.moved) put(h.el, h.by.x * h.k, -h.by.y * h.k);
      else h.el.focus();
    },
  });
  arrows("[data-pivot]", (el, by, e) => {
    if (!by || !$("#pivot")) return false;
    const step = e.shiftKey ? 25 : 5;
    put(el, by[0] * step, -by[1] * step);
    return true;
  });
})();
