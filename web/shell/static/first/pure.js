// What the scripts work out without a page: tested by themselves (web/shell/pure_test.go).
(function () {
  "use strict";
  // inches is a length as a tape shows it, to an eighth
  function inches(mm) {
    const n = Math.round((Math.abs(mm) / 25.4) * 8),
      whole = Math.floor(n / 8);
    let a = n % 8,
      b = 8;
    while (a && a % 2 === 0) {
      a /= 2;
      b /= 2;
    }
    return (whole || !a ? whole : "") + (a ? (whole ? " " : "") + a + "/" + b : "") + " in";
  }

  // effect is what an edit did, by the tallies of the page before and after it
  function effect(before, after, done) {
    if (before === after) return done ? "Done; nothing else changes." : "";
    const a = JSON.parse(before),
      b = JSON.parse(after);
    const gone = a.s.filter((s) => !b.s.includes(s)).length,
      fresh = b.s.filter((s) => !a.s.includes(s)).length;
    const said = [];
    if (gone) said.push(gone + (gone === 1 ? " snag gone" : " snags gone"));
    if (fresh) said.push(fresh + " new");
    const more = Math.round((b.c - a.c) * 100) / 100;
    if (more) said.push((more > 0 ? "+$" : "−$") + Math.abs(more).toFixed(2));
    return said.join(", ");
  }

  // left is how long still, in hours and minutes, the last minute begun
  function left(ms) {
    const min = Math.ceil(ms / 60000);
    if (min < 60) return min + " min";
    return Math.floor(min / 60) + " h" + (min % 60 ? " " + (min % 60) + " min" : "");
  }

  // clock is how long still, in minutes and seconds
  function clock(s) {
    return Math.floor(s / 60) + ":" + String(s % 60).padStart(2, "0");
  }

  // remembered is a list of lines with one more at its front, each once, forty at most
  function remembered(lines, line) {
    if (!line.trim()) return lines;
    return [line].concat(lines.filter((l) => l !== line)).slice(0, 40);
  }

  // completed is a line with its last word in place of what was begun of it
  function completed(line, word) {
    const words = line.split(" ");
    words[words.length - 1] = word;
    return words.join(" ") + " ";
  }

  // travelled is where a mover is at a moment, in thousandths of its travel
  function travelled(moves, m, now) {
    let at = { pos: 0, at: 0, dir: 0 };
    for (const v of moves) if (v.mover === m.id && v.at <= now) at = v;
    const long = at.dir < 0 ? m.down : m.up;
    const p = at.pos + (at.dir * (now - at.at) * 1000) / Math.max(1, long);
    return m.circles ? ((p % 1000) + 1000) % 1000 : Math.max(0, Math.min(1000, p));
  }

  // keyRefused says why a single key cannot be another; "" where it can
  function keyRefused(key, usual, taken) {
    if (!key) return "A key must be one letter or sign.";
    if (taken) return key + " does something else already; change that one first.";
    return /[0-9?]/.test(key) && key !== usual ? key + " is kept for the places and this list." : "";
  }

  // picked is what is selected once one thing more is pressed: in, or out where it was in
  function picked(keys, key) {
    return keys.includes(key) ? keys.filter((k) => k !== key) : keys.concat(key);
  }

  // reads says whether a text is looked for: all of it, somewhere in what is listed
  function looked(want, ...texts) {
    const w = want.trim().toLowerCase();
    return !w || texts.some((t) => t.toLowerCase().includes(w));
  }

  globalThis.pure = {
    inches,
    effect,
    left,
    clock,
    remembered,
    completed,
    travelled,
    keyRefused,
    picked,
    looked,
  };
})();
