// Lamps slide along their run, and supplies along the run they feed; every volt on
// the board follows.
(function () {
  "use strict";
  const { $, $$, drag, arrows, send } = window.page;
  let asking = false;
  function slideTo(a, at) {
    const f = $("#slide");
    f.elements.device.value = a.dataset.slide;
    f.elements.at.value = at;
    send(f);
  }

  drag("a[data-slide]", {
    slack: 4,
    hold: () => ({}),
    async move(h, by) {
      const d = h.el.dataset,
        mm = Math.min(Number(d.long), Math.max(0, Number(d.at) + by.x * Number(d.per)));
      h.mm = mm;
      h.el.classList.add("held");
      h.el.setAttribute("transform", `translate(${(mm - Number(d.at)) / Number(d.per)} 0)`);
      if (asking) return;
      asking = true;
      try {
        const r = await (
          await fetch(
            "/p/" + $("#page").dataset.plan + "/slide?" + new URLSearchParams({ device: d.slide, at: mm }),
          )
        ).json();
        if (!h.over && r.volts)
          $$("[data-volts]", h.svg).forEach((t) => {
            if (r.volts[t.dataset.volts]) t.textContent = r.volts[t.dataset.volts];
          });
      } catch {
        /* the drop will say it */
      } finally {
        asking = false;
      }
    },
    back(h) {
      h.over = true;
      h.el.classList.remove("held");
      h.el.removeAttribute("transform");
    },
    drop(h) {
      h.over = true;
      if (h.moved) slideTo(h.el, h.mm);
    },
  });

  arrows("a[data-slide]", (a, by, e) => {
    if (!by || !by[0]) return false;
    slideTo(a, Number(a.dataset.at) + by[0] * (e.shiftKey ? 304.8 : 25.4));
    return true;
  });
})();
