// What stands in the yard is dragged, or moved by the arrow keys; with Shift, left and right turn it.
(function () {
  "use strict";
  const { $, drag, arrows, go, send } = window.page;
  const scale = (svg) => Number($("[data-yard-scale]", svg).dataset.yardScale) / 100; // units a metre
  function put(key, dx, dy, near, turn) {
    const f = $("#yardmove").elements;
    f.key.value = key;
    f.dx.value = dx;
    f.dy.value = dy;
    f.near.value = near;
    f.turn.value = turn || 0;
    send($("#yardmove"));
  }
  drag("svg.yard [data-yard]", {
    slack: 5,
    own: true,
    hold(el, e, svg) {
      if (!$("#yardmove") || e.pointerType === "touch" && !el.matches(".on, .yardgrip")) return null;
      return { k: 1000 / scale(svg) };
    },
    move(h, by) { h.by = by; h.el.setAttribute("transform", `translate(${by.x} ${by.y})`); },
    drop(h) {
      if (h.moved) put(h.el.dataset.yard, h.by.x * h.k, h.by.y * h.k, 8 * h.k);
      else if (h.el.getAttribute("href")) go(h.el.getAttribute("href"));
    },
    back(h) { h.el.removeAttribute("transform"); },
  });
  arrows("svg.yard [data-yard]", (el, by, e) => {
    if (!by || !$("#yardmove")) return false;
    if (e.shiftKey && by[0]) put(el.dataset.yard, 0, 0, 0, by[0] * 15);
    else put(el.dataset.yard, by[0] * 152.4, by[1] * 152.4, 0);
    return true;
  });
})();
