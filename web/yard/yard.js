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
      if (!$("#yardmove") || e.shiftKey || (e.pointerType === "touch" && !el.matches(".on, .yardgrip")))
        return null;
      return { k: 1000 / scale(svg) };
    },
    move(h, by) {
      h.by = by;
      h.el.setAttribute("transform", `translate(${by.x} ${by.y})`);
    },
    drop(h) {
      if (h.moved) put(h.el.dataset.yard, h.by.x * h.k, h.by.y * h.k, 8 * h.k);
      else if (h.el.getAttribute("href")) go(h.el.getAttribute("href"));
    },
    back(h) {
      h.el.removeAttribute("transform");
    },
  });
  arrows("svg.yard [data-yard]", (el, by, e) => {
    if (!by || !$("#yardmove")) return false;
    if (e.shiftKey && by[0]) put(el.dataset.yard, 0, 0, 0, by[0] * 15);
    else put(el.dataset.yard, by[0] * 152.4, by[1] * 152.4, 0);
    return true;
  });

  // Layers: what is not ticked is not drawn; remembered on this machine.
  const hidden = () => new Set((localStorage.getItem("yard-hides") || "").split(" ").filter(Boolean));
  function layers() {
    const off = hidden();
    document.body.dataset.yardHides = [...off].join(" ");
    document.querySelectorAll("[data-layer]").forEach((box) => {
      box.checked = !off.has(box.dataset.layer);
    });
  }
  document.addEventListener("change", (e) => {
    const layer = e.target.dataset && e.target.dataset.layer;
    if (!layer) return;
    const off = hidden();
    if (e.target.checked) off.delete(layer);
    else off.add(layer);
    localStorage.setItem("yard-hides", [...off].join(" "));
    layers();
  });
  new MutationObserver(layers).observe(document.documentElement, { childList: true, subtree: true });
  layers();

  // Measure: two places pressed, or two things chosen with Enter, and how far apart they are.
  let first = null;
  const measuring = () => !!$("[data-measure][aria-pressed=true]");
  function far(metres, svg) {
    if ($("[data-yard-scale]", svg).dataset.metric) return metres.toFixed(2) + " m";
    const inches = Math.round(metres / 0.0254);
    return `${Math.floor(inches / 12)}' ${inches % 12}"`;
  }
  function mark(svg, at) {
    const g =
      svg.querySelector(".tapeline") ||
      svg.appendChild(document.createElementNS("http://www.w3.org/2000/svg", "g"));
    g.setAttribute("class", "tapeline");
    const add = (name, of) => {
      const el = g.appendChild(document.createElementNS("http://www.w3.org/2000/svg", name));
      Object.entries(of).forEach(([k, v]) => el.setAttribute(k, v));
      return el;
    };
    if (!first) {
      g.replaceChildren();
      add("circle", { cx: at.x, cy: at.y, r: 4 });
      first = at;
      $("[data-measured]").textContent = "and to where?";
      return;
    }
    add("line", { x1: first.x, y1: first.y, x2: at.x, y2: at.y });
    add("circle", { cx: at.x, cy: at.y, r: 4 });
    const says = far(Math.hypot(at.x - first.x, at.y - first.y) / scale(svg), svg);
    add("text", { x: (first.x + at.x) / 2 + 6, y: (first.y + at.y) / 2 - 6 }).textContent = says;
    $("[data-measured]").textContent = says;
    first = null;
  }
  document.addEventListener("click", (e) => {
    const tool = e.target.closest("[data-measure]");
    if (!tool) return;
    const on = tool.getAttribute("aria-pressed") !== "true";
    tool.setAttribute("aria-pressed", on);
    first = null;
    $("[data-measured]").textContent = on ? "from where?" : "";
    if (!on) document.querySelectorAll(".tapeline").forEach((g) => g.remove());
  });
  ["pointerdown", "click"].forEach((kind) =>
    document.addEventListener(
      kind,
      (e) => {
        const svg = e.target.closest && e.target.closest("svg.yard");
        if (!svg || !measuring()) return;
        e.preventDefault();
        e.stopPropagation();
        if (kind === "pointerdown")
          mark(svg, new DOMPoint(e.clientX, e.clientY).matrixTransform(svg.getScreenCTM().inverse()));
      },
      true,
    ),
  );
  document.addEventListener(
    "keydown",
    (e) => {
      const el = e.target.closest && e.target.closest("svg.yard [data-key], svg.yard [data-yard]");
      if (!el || !measuring() || e.key !== "Enter") return;
      e.preventDefault();
      e.stopPropagation();
      const box = el.getBBox();
      mark(el.ownerSVGElement, { x: box.x + box.width / 2, y: box.y + box.height / 2 });
    },
    true,
  );

  // A drawing as a picture: its file is drawn here, up to twice as large, and kept.
  document.addEventListener(
    "click",
    async (e) => {
      const a = e.target.closest("a[data-png]");
      if (!a) return;
      e.preventDefault();
      e.stopPropagation();
      const text = await (await fetch(a.href)).text();
      const img = new Image();
      img.src = "data:image/svg+xml;charset=utf-8," + encodeURIComponent(text);
      await img.decode();
      const canvas = document.createElement("canvas");
      const wide = img.naturalWidth || 1200; // a plan to scale is as large as the yard
      const high = img.naturalHeight || 800;
      const k = Math.min(2, 2400 / Math.max(wide, high));
      canvas.width = Math.round(k * wide);
      canvas.height = Math.round(k * high);
      canvas.getContext("2d").drawImage(img, 0, 0, canvas.width, canvas.height);
      const save = document.createElement("a");
      save.href = canvas.toDataURL("image/png");
      save.download = a.dataset.png + ".png";
      document.body.appendChild(save);
      save.click();
      save.remove();
    },
    true,
  );
})();
