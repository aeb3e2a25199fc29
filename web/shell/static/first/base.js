// What the page's behaviours share. Without scripts the page works by plain forms
// and links; queue, swap and links make them answer in place; each file here is one behaviour.
(function () {
  "use strict";
  document.documentElement.classList.add("js");
  const $ = (s, r) => (r || document).querySelector(s);
  const $$ = (s, r) => Array.from((r || document).querySelectorAll(s));

  // userPoint is where a pointer is in a drawing's own units
  function userPoint(svg, e) {
    return new DOMPoint(e.clientX, e.clientY).matrixTransform(svg.getScreenCTM().inverse());
  }

  // a click that ends a drag is none
  let dropped = -1000;
  document.addEventListener(
    "click",
    (e) => {
      if (performance.now() - dropped < 80 && e.target.closest("svg")) {
        e.preventDefault();
        e.stopPropagation();
      }
    },
    true,
  );

  // drag follows a press on what a selector finds until it is let go.
  //   hold(el, e, svg)  what is held, as an object, or nothing
  //   move(held, by)    it went by {x, y} of the drawing's units; held.at is where it is
  //   drop(held)        it was let go; held.moved tells whether it ever moved
  //   back(held)        the browser took the pointer away
  //   slack             pixels before it counts as moved
  //   own               the press is this behaviour's alone
  function drag(selector, how) {
    let held = null;
    document.addEventListener("pointerdown", (e) => {
      const el = e.target.closest && e.target.closest(selector);
      if (!el || e.button || held) return;
      const svg = el.ownerSVGElement || el;
      const h = how.hold(el, e, svg);
      if (!h) return;
      held = Object.assign({ el, svg, from: userPoint(svg, e), x: e.clientX, y: e.clientY, moved: false }, h);
      if (how.own) e.preventDefault();
    });
    document.addEventListener("pointermove", (e) => {
      if (!held || (!held.moved && Math.hypot(e.clientX - held.x, e.clientY - held.y) < (how.slack || 0)))
        return;
      held.moved = true;
      held.at = userPoint(held.svg, e);
      how.move(held, { x: held.at.x - held.from.x, y: held.at.y - held.from.y });
    });
    // a finger that holds something does not scroll
    document.addEventListener(
      "touchmove",
      (e) => {
        if (held && how.own) e.preventDefault();
      },
      { passive: false },
    );
    document.addEventListener("pointerup", () => {
      const h = held;
      held = null;
      if (!h) return;
      if (h.moved) dropped = performance.now();
      how.drop(h);
    });
    document.addEventListener("pointercancel", () => {
      if (held && how.back) how.back(held);
      held = null;
    });
    document.addEventListener("dragstart", (e) => {
      if (e.target.closest && e.target.closest(selector)) e.preventDefault();
    });
  }

  // arrows are what the arrow keys say on what a selector finds: right and down
  function arrows(selector, take) {
    const by = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] };
    document.addEventListener(
      "keydown",
      (e) => {
        const el = e.target.closest && e.target.closest(selector);
        if (!el || e.ctrlKey || e.metaKey || e.altKey || !take(el, by[e.key], e)) return;
        e.preventDefault();
        e.stopPropagation();
      },
      true,
    );
  }

  // svg makes an element of a drawing
  function svgEl(tag, at, text) {
    const n = document.createElementNS("http://www.w3.org/2000/svg", tag);
    for (const k in at) n.setAttribute(k, at[k]);
    if (text) n.textContent = text;
    return n;
  }

  window.page = Object.assign({ $, $$, userPoint, drag, arrows, svgEl }, window.pure, window.live);
})();
