// Dimensions of the picked solid are dragged in the front view; the ticket's own
// field takes the new size.
(function () {
  "use strict";
  const { $, drag, inches, svgEl } = window.page;
  drag("[data-size]", {
    own: true,
    hold: (el) => ({ home: el.transform.baseVal.consolidate().matrix }),
    move(h, by) {
      const d = h.el.dataset,
        dx = Number(d.dx) ? by.x : 0,
        dy = Number(d.dy) ? by.y : 0;
      const mm = Math.max(10, Number(d.now) + (dx * Number(d.dx) + dy * Number(d.dy)) / Number(d.scale));
      h.text =
        d.metric === "true" ? Math.round(mm) + " mm" : inches((Math.round((mm / 25.4) * 4) / 4) * 25.4);
      h.el.setAttribute("transform", `translate(${h.home.e + dx} ${h.home.f + dy})`);
      if (!$("text", h.el)) h.el.append(svgEl("text", { class: "t lbl", x: 12, y: -10 }));
      $("text", h.el).textContent = h.text;
    },
    back(h) {
      h.el.setAttribute("transform", `translate(${h.home.e} ${h.home.f})`);
    },
    drop(h) {
      const f = h.text && $(`.ticket [name="${h.el.dataset.size}"]`);
      if (!f) return;
      f.value = h.text;
      f.dispatchEvent(new Event("change", { bubbles: true }));
    },
  });
})();
