// Cues are dragged along their rail, stretched by their end, moved by keys; a press on a
// rail adds one, Delete takes one away.
(function () {
  "use strict";
  const { $, drag, arrows, userPoint, send } = window.page;
  function put(at) {
    const f = $("#cue");
    for (const k of ["cue", "rail", "start", "long", "near", "away"])
      f.elements[k].value = at[k] === undefined ? "" : at[k];
    if (!f.elements.near.value) f.elements.near.value = 0;
    if (!f.elements.start.value) f.elements.start.value = 0;
    if (!f.elements.long.value) f.elements.long.value = 0;
    send(f);
  }
  const of = (el) => ({
    cue: el.dataset.cue,
    start: Number(el.dataset.start),
    long: Number(el.dataset.length),
  });
  drag("g.cue", {
    slack: 3,
    own: true,
    hold(el, e) {
      return $("#cue") ? { k: Number(el.dataset.k), end: e.target.classList.contains("cueend") } : null;
    },
    move(h, by) {
      h.by = by.x;
      const bar = h.el.querySelector(".cuebar");
      if (!h.end) {
        h.el.setAttribute("transform", `translate(${by.x} 0)`);
        return;
      }
      h.wide = h.wide || Number(bar.getAttribute("width"));
      bar.setAttribute("width", Math.max(4, h.wide + by.x));
      h.el.querySelector(".cueend").setAttribute("transform", `translate(${by.x} 0)`);
    },
    drop(h) {
      if (!h.moved) {
        h.el.focus();
        return;
      }
      const q = of(h.el),
        t = h.by / h.k;
      if (h.end) q.long += t;
      else q.start += t;
      put(Object.assign(q, { near: 7 / h.k }));
    },
  });
  document.addEventListener("click", (e) => {
    const rail = e.target.closest && e.target.closest("[data-rail]");
    if (!rail || !$("#cue")) return;
    const p = userPoint(rail.ownerSVGElement, e);
    put({
      rail: rail.dataset.rail,
      start: Math.max(0, (p.x - Number(rail.dataset.left)) / Number(rail.dataset.k)),
    });
  });
  arrows("g.cue", (el, by, e) => {
    if (!$("#cue")) return false;
    const q = of(el);
    if (e.key === "Delete" || e.key === "Backspace") {
      put(Object.assign(q, { away: 1 }));
      return true;
    }
    if (!by || !by[0]) return false;
    if (e.shiftKey) q.long += by[0] * 0.1;
    else q.start += by[0] * 0.1;
    put(q);
    return true;
  });
})();
