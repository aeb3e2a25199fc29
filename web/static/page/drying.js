// What dries counts down, and rings when it is over: a sound of half a second, and the title.
(function () {
  "use strict";
  const { $$ } = window.page;
  const rung = new Set();
  function ring() {
    const Audio = window.AudioContext || window.webkitAudioContext;
    if (!Audio) return;
    const a = new Audio(), o = a.createOscillator(), g = a.createGain();
    o.frequency.value = 660;
    g.gain.setValueAtTime(0.2, a.currentTime);
    g.gain.exponentialRampToValueAtTime(0.001, a.currentTime + 0.5);
    o.connect(g).connect(a.destination);
    o.start();
    o.stop(a.currentTime + 0.5);
  }
  function left(ms) {
    const min = Math.ceil(ms / 60000);
    return min >= 60 ? Math.floor(min / 60) + " h" + (min % 60 ? " " + (min % 60) + " min" : "") : min + " min";
  }
  function tick() {
    for (const d of $$("[data-until]")) {
      const ms = new Date(d.dataset.until) - new Date(), say = d.querySelector("[data-left]");
      if (!say) continue;
      if (ms > 0) { if (ms < 48 * 3600000) say.textContent = left(ms); continue; }
      say.textContent = "dry";
      d.classList.add("over");
      const what = d.dataset.until + d.textContent;
      if (!rung.has(what)) { rung.add(what); if (ms > -90000) ring(); }
    }
  }
  // a timer runs from a press, and rings; another press stops it
  const running = new Map();
  function stop(b, said) {
    running.delete(b);
    b.classList.remove("runs");
    b.querySelector("[data-left]").textContent = said;
  }
  document.addEventListener("click", (e) => {
    const b = e.target.closest("[data-timer]");
    if (!b) return;
    if (running.has(b)) { stop(b, b.dataset.said); return; }
    b.dataset.said = b.dataset.said || b.querySelector("[data-left]").textContent;
    running.set(b, performance.now() + Number(b.dataset.timer) * 1000);
    b.classList.remove("rang");
    b.classList.add("runs");
    second();
  });
  function second() {
    for (const [b, end] of running) {
      const s = Math.ceil((end - performance.now()) / 1000);
      if (s > 0) { b.querySelector("[data-left]").textContent = Math.floor(s / 60) + ":" + String(s % 60).padStart(2, "0"); continue; }
      stop(b, "now");
      b.classList.add("rang");
      ring();
    }
  }
  setInterval(second, 500);
  setInterval(tick, 5000);
  document.addEventListener("swapped", tick);
  document.addEventListener("DOMContentLoaded", tick);
})();
