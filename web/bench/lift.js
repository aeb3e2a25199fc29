// A solid is dragged in the front view or from above, and settles on what is near; a press picks it.
(function () {
  "use strict";
  const { $, $$, drag, go, send } = window.page;
  const svgEl = window.page.svgEl;
  // box is what some bodies cover together, in the drawing's units
  function box(list) {
    let b = null;
    for (const el of list) {
      const r = el.getBBox();
      if (!r.width && !r.height) continue;
      b = b || { left: r.x, right: r.x + r.width, top: r.y, bottom: r.y + r.height };
      b = {
        left: Math.min(b.left, r.x),
        right: Math.max(b.right, r.x + r.width),
        top: Math.min(b.top, r.y),
        bottom: Math.max(b.bottom, r.y + r.height),
      };
    }
    return b;
  }
  const edges = (b) => ({
    x: [b.left, (b.left + b.right) / 2, b.right],
    y: [b.top, (b.top + b.bottom) / 2, b.bottom],
  });
  // guides show what the dragged solid is in line with, and where it will settle
  function guides(h, by) {
    h.lines.forEach((l) => l.remove());
    h.lines = [];
    if (!h.mine) return by;
    const own = edges(h.mine),
      out = { x: by.x, y: by.y };
    for (const way of ["x", "y"]) {
      let near = 9,
        to = null;
      for (const o of h.others)
        for (const e of edges(o)[way])
          for (const m of own[way]) {
            const off = e - (m + by[way]);
            if (Math.abs(off) < near) {
              near = Math.abs(off);
              to = { at: e, off };
            }
          }
      if (!to) continue;
      out[way] += to.off;
      const view = h.svg.viewBox.baseVal;
      const line =
        way === "x"
          ? svgEl("line", { class: "guide", x1: to.at, x2: to.at, y1: 0, y2: view.height })
          : svgEl("line", { class: "guide", y1: to.at, y2: to.at, x1: 0, x2: view.width });
      h.svg.append(line);
      h.lines.push(line);
    }
    return out;
  }
  drag("svg.front .body[data-solid]", {
    slack: 6,
    own: true,
    hold(el, e, svg) {
      const k = $("[data-moves]", svg);
      if (
        e.shiftKey ||
        e.ctrlKey ||
        e.metaKey ||
        (e.pointerType === "touch" && !el.matches(".body.on, .pick.on .body")) ||
        e.target.closest("[data-size]") ||
        !$("#move") ||
        !k
      )
        return null;
      const id = el.dataset.solid;
      const others = {};
      $$(".body[data-solid]", svg).forEach((b) => {
        if (b.dataset.solid !== id) (others[b.dataset.solid] = others[b.dataset.solid] || []).push(b);
      });
      return {
        lines: [],
        mine: box($$(".body[data-solid]", svg).filter((b) => b.dataset.solid === id)),
        others: Object.values(others).map(box).filter(Boolean),
        id,
        k: Number(k.dataset.moves),
        above: "above" in k.dataset,
        all: $$(".body[data-solid]", svg).filter((b) => b.dataset.solid === id),
      };
    },
    move(h, by) {
      h.by = by;
      const to = guides(h, by);
      h.all.forEach((b) => b.setAttribute("transform", `translate(${to.x} ${to.y})`));
    },
    drop(h) {
      h.lines.forEach((l) => l.remove());
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
