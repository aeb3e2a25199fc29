// A solid is dragged in the front view or from above, and settles on what is near; a press picks it.
(function () {
  "use strict";
  const { $, $$, drag, go, send } = window.page;
  drag("svg.front .body[data-solid]", {
    slack: 6,
    own: true,
    hold(el, e, svg) {
      const k = $("[data-moves]", svg);
      if (e.shiftKey || e.ctrlKey || e.metaKey || e.pointerType === "touch" || e.target.closest("[data-size]") || !$("#move") || !k) return null;
      const id = el.dataset.solid;
      return { id, k: Number(k.dataset.moves), above: "above" in k.dataset, all: $$(".body[data-solid]", svg).filter((b) => b.dataset.solid === id) };
    },
    move(h, by) {
      h.by = by;
      h.all.forEach((b) => b.setAttribute("transform", `translate(${by.x} ${by.y})`));
    },
    drop(h) {
      if (!h.moved) {
        const u = new URL(location.href);
        u.searchParams.set("sel", "solid:" + h.id);
        go(u.pathname + u.search);
        return;
      }
      const f = $("#move");
      f.solid.value = h.id;
      f.dx.value = h.by.x / h.k;
      f.dy.value = h.above ? -h.by.y / h.k : 0;
      f.dz.value = h.above ? 0 : -h.by.y / h.k;
      f.near.value = 9 / h.k;
      send(f);
    },
  });
})();
