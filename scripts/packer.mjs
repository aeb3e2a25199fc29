// Packs the rectangle sets of core/nest/testdata/sets.json with a general-purpose
// packer from the npm registry, and writes how many sheets each takes. Run by
// make compare-packer; a test holds our own layouts against the result.
import { readFileSync, writeFileSync } from "node:fs";
import { MaxRectsPacker, PACKING_LOGIC } from "maxrects-packer/dist/maxrects-packer.mjs";
const version = JSON.parse(readFileSync("node_modules/maxrects-packer/package.json", "utf8")).version;
const sets = JSON.parse(readFileSync("core/nest/testdata/sets.json", "utf8"));
const out = sets.map((s) => {
  let best = Infinity, stock = Infinity;
  for (const logic of [PACKING_LOGIC.MAX_AREA, PACKING_LOGIC.MAX_EDGE]) {
    const p = new MaxRectsPacker(s.w, s.h, s.kerf, { smart: false, pot: false, square: false, allowRotation: true, logic });
    p.addArray(s.parts.map(([width, height], i) => ({ width, height, data: i })));
    best = Math.min(best, p.bins.length);
    // stock used: whole sheets, and the emptiest up to one straight cut-off line
    let least = Infinity;
    for (const b of p.bins) {
      let x = 0, y = 0;
      for (const r of b.rects) { x = Math.max(x, r.x + r.width); y = Math.max(y, r.y + r.height); }
      least = Math.min(least, (p.bins.length - 1) * s.w * s.h + Math.min(x * s.h, y * s.w));
    }
    stock = Math.min(stock, least);
  }
  return { name: s.name, sheets: best, stock: Math.round(stock) };
});
writeFileSync("core/nest/testdata/packer.json", JSON.stringify({ packer: "maxrects-packer " + version, sets: out }, null, 1) + "\n");
