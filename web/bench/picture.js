// On a picture points are dragged, and lengths are measured off what is to scale.
(function () {
  "use strict";
  const { $, drag, arrows, inches, svgEl, send } = window.page;
  function movePoint(name, x, y) {
    const f = $("#point");
    f.elements.x.value = x;
    f.elements.y.value = y;
    $("input[name=handle]", f).value = name;
    send(f);
  }

  drag("[data-handle]", {
    own: true,
    hold(el) {
      el.focus();
      return {};
    },
    move(h) {
      h.el.setAttribute("transform", `translate(${h.at.x} ${h.at.y})`);
    },
    drop(h) {
      if (h.moved) movePoint(h.el.dataset.handle, h.at.x, h.at.y);
    },
  });

  drag("svg.picture[data-ruler]", {
    own: true,
    hold: (el, e) => !e.target.closest("[data-handle]") && {},
    move(h, by) {
      h.mm = Math.hypot(by.x, by.y) * Number(h.svg.dataset.per);
      h.text = h.svg.dataset.metric === "true" ? Math.round(h.mm) + " mm" : inches(h.mm);
      const at = { x: h.at.x + 14, y: h.at.y - 10 };
      $(".rule-line", h.svg).replaceChildren(
        svgEl("line", { class: "ruled", x1: h.from.x, y1: h.from.y, x2: h.at.x, y2: h.at.y }),
        svgEl("text", Object.assign({ class: "halo" }, at), h.text),
        svgEl("text", Object.assign({ class: "t lbl" }, at), h.text),
      );
    },
    drop(h) {
      if (h.mm > 5) keep(h.text);
    },
  });

  // keep lists what was measured; a press puts it in the quick line
  function keep(text) {
    const li = document.createElement("li"),
      b = document.createElement("button");
    b.type = "button";
    b.className = "btn thin";
    b.textContent = text;
    b.title = "Put it in the quick line";
    b.addEventListener("click", () => {
      const l = $("#line"),
        said = l.value.trim();
      const joins = / in$| mm$|^\w+$/.test(said) && /\d/.test(l.value) ? " x " : " ";
      l.value = (said + joins + text).trim();
      l.focus();
      l.dispatchEvent(new Event("input", { bubbles: true }));
    });
    li.append(b);
    $(".sizes").prepend(li);
  }

  arrows("[data-handle]", (el, by, e) => {
    if (!by) return false;
    const m = el.transform.baseVal.consolidate().matrix,
      k = e.shiftKey ? 10 : 1;
    movePoint(el.dataset.handle, m.e + by[0] * k, m.f + by[1] * k);
    return true;
  });
  document.addEventListener("input", (e) => {
    if (e.target.matches("[data-fade]")) $(".overlay").setAttribute("opacity", e.target.value / 100);
  });
})();
