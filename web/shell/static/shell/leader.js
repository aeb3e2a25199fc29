// A dashed line leads from the snag pointed at to its thing.
(function () {
  "use strict";
  const { $, $$ } = window.page;
  document.addEventListener("swapped", clearLeader);
  function clearLeader() {
    $$(".leader").forEach((l) => l.remove());
  }
  function leader(snag) {
    clearLeader();
    const keys = (snag.dataset.snag || "").split(" ");
    const from = snag.getBoundingClientRect();
    const svg = document.createElementNS("http://www.w3.org/2000/svg", "svg");
    svg.setAttribute("class", "leader");
    keys.slice(0, 3).forEach((k) => {
      const t =
        $(`.surface [data-key="${CSS.escape(k)}"]`) ||
        $(`.surface [data-key^="${CSS.escape(k.replace("solid:", "part:"))}/"]`);
      if (!t) return;
      const b = t.getBoundingClientRect();
      const p = document.createElementNS("http://www.w3.org/2000/svg", "path");
      const x = b.left + b.width / 2,
        y = b.top + b.height / 2;
      p.setAttribute("d", `M${from.left} ${from.top + 16}L${from.left - 40} ${from.top + 16}L${x} ${y}`);
      svg.append(p);
    });
    document.body.append(svg);
  }
  document.addEventListener("mouseover", (e) => {
    const s = e.target.closest && e.target.closest(".gutter .snag");
    if (s) leader(s);
  });
  document.addEventListener("mouseout", (e) => {
    if (e.target.closest && e.target.closest(".gutter .snag")) clearLeader();
  });
  document.addEventListener("focusin", (e) => {
    const s = e.target.closest && e.target.closest(".gutter .snag");
    if (s) leader(s);
    else clearLeader();
  });
})();
