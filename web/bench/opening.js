// Openings are dragged on the part they are cut into, or moved by the arrow keys.
(function () {
  "use strict";
  const { $, drag, arrows, send } = window.page;
  function moved(el, dx, dy, near) {
    const f = $("#opening");
    f.solid.value = el.dataset.solid;
    f.opening.value = el.dataset.opening;
    f.dx.value = dx;
    f.dy.value = dy;
    f.near.value = near;
    send(f);
  }
  drag("[data-opening]", {
    slack: 4,
    own: true,
    hold(el) {
      return $("#opening") ? { k: Number(el.dataset.scale) } : null;
    },
    move(h, by) {
      h.by = by;
      h.el.setAttribute("transform", `translate(${by.x} ${by.y})`);
    },
    drop(h) {
      if (h.moved) moved(h.el, h.by.x / h.k, -h.by.y / h.k, 6 / h.k);
      else h.el.focus();
    },
  });
  arrows("[data-opening]", (el, by, e) => {
    if (!by || !$("#opening")) return false;
    const step = Number(el.dataset.step) * (e.shiftKey ? 4 : 1);
    moved(el, by[0] * step, -by[1] * step, 0);
    return true;
  });
})();
