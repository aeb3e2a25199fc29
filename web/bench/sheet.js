// On sheets a piece is dragged, or moved by keys, and the barn says where it may lie.
(function () {
  "use strict";
  const { $, $$, drag, arrows, send } = window.page;
  function layAs(piece, sheet, x, y, turned, flip, verb) {
    const f = $("#lay").elements;
    f.stock.value = sheet.dataset.stock;
    f.piece.value = piece.dataset.piece;
    f.sheet.value = sheet.dataset.sheet;
    f.x.value = x;
    f.y.value = y;
    f.turned.value = turned;
    f.flip.value = flip;
    f.do.value = verb || "move";
    send($("#lay"));
  }

  drag("a[data-piece]", {
    slack: 4,
    hold: () => ({}),
    move(h, by) {
      if (!h.by) {
        h.el.classList.add("held");
        h.el.parentNode.parentNode.append(h.el.parentNode);
        h.el.parentNode.append(h.el);
      }
      h.by = by;
      h.el.setAttribute("transform", `translate(${by.x} ${by.y})`);
    },
    back(h) {
      h.el.classList.remove("held");
      h.el.removeAttribute("transform");
    },
    drop(h) {
      if (!h.moved) return;
      h.el.classList.remove("held");
      const s = h.el.dataset,
        turned = s.turned === "true",
        g = h.el.closest("[data-sheet]").dataset,
        sc = Number(g.sc);
      const wide = Number(turned ? s.ph : s.pw),
        high = Number(turned ? s.pw : s.ph);
      const left = Number(g.x) + Number(s.px) * sc + h.by.x,
        low = Number(g.y) + (Number(g.h) - Number(s.py)) * sc + h.by.y;
      const mid = { x: left + (wide * sc) / 2, y: low - (high * sc) / 2 };
      const to = $$("[data-sheet]", h.svg).find((q) => {
        const k = q.dataset;
        return (
          k.stock === g.stock &&
          !k.cut &&
          mid.x >= Number(k.x) &&
          mid.x <= Number(k.x) + Number(k.w) * Number(k.sc) &&
          mid.y >= Number(k.y) &&
          mid.y <= Number(k.y) + Number(k.h) * Number(k.sc)
        );
      });
      if (!to) {
        h.el.removeAttribute("transform");
        return;
      }
      const k = to.dataset;
      layAs(
        h.el,
        to,
        (left - Number(k.x)) / Number(k.sc),
        Number(k.h) - (low - Number(k.y)) / Number(k.sc),
        s.turned,
        s.flip,
      );
    },
  });

  arrows("a[data-piece]", (piece, by, e) => {
    const s = piece.dataset,
      step = e.shiftKey ? 3.175 : 25.4,
      k = e.key.toLowerCase();
    let turned = s.turned,
      flip = s.flip,
      verb;
    if (!by) {
      if (k === "r" && s.turn === "true") turned = String(s.turned !== "true");
      else if (k === "f") flip = String(s.flip !== "true");
      else if (k === "l") verb = "loose";
      else return false;
    }
    const at = by ? [by[0] * step, -by[1] * step] : [0, 0];
    layAs(
      piece,
      piece.closest("[data-sheet]"),
      Number(s.px) + at[0],
      Number(s.py) + at[1],
      turned,
      flip,
      verb,
    );
    return true;
  });
})();
