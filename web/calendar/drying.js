// What dries counts down, and rings when it is over: a sound of half a second. A
// timer runs from a press, and rings; another press stops it.
(function () {
  "use strict";
  const { left, clock } = window.page;
  const rung = new Set(); // what has rung already, though its row is put in anew
  function ring() {
    const Audio = window.AudioContext || window.webkitAudioContext;
    if (!Audio) return;
    const a = new Audio(),
      o = a.createOscillator(),
      g = a.createGain();
    o.frequency.value = 660;
    g.gain.setValueAtTime(0.2, a.currentTime);
    g.gain.exponentialRampToValueAtTime(0.001, a.currentTime + 0.5);
    o.connect(g).connect(a.destination);
    o.start();
    o.stop(a.currentTime + 0.5);
  }
  const [lately, shown] = [90_000, 48 * 3_600_000]; // ms: what was over longer ago rings no more

  document.addEventListener("alpine:init", () => {
    window.Alpine.data("drying", () => ({
      says: "",
      state: "",
      clock: 0,
      init() {
        this.says = this.$root.dataset.said;
        this.tick();
        this.clock = setInterval(() => this.tick(), 5000);
      },
      destroy() {
        clearInterval(this.clock);
      },
      tick() {
        const { until, said } = this.$root.dataset,
          ms = new Date(until) - new Date();
        if (ms > 0) {
          this.says = ms < shown ? left(ms) : said;
          return;
        }
        this.says = "dry";
        this.state = "over";
        const what = until + this.$root.textContent;
        if (!rung.has(what) && ms > -lately) ring();
        rung.add(what);
      },
    }));
    window.Alpine.data("timer", () => ({
      usual: "",
      says: "",
      state: "",
      end: 0,
      clock: 0,
      init() {
        this.usual = this.says = this.$root.querySelector("[data-left]").textContent;
      },
      destroy() {
        clearInterval(this.clock);
      },
      press() {
        if (this.clock) {
          this.stop(this.usual, "");
          return;
        }
        this.end = performance.now() + Number(this.$root.dataset.timer) * 1000;
        this.state = "runs";
        this.second();
        this.clock = setInterval(() => this.second(), 500);
      },
      second() {
        const s = Math.ceil((this.end - performance.now()) / 1000);
        if (s > 0) {
          this.says = clock(s);
          return;
        }
        this.stop("now", "rang");
        ring();
      },
      stop(says, state) {
        clearInterval(this.clock);
        this.clock = 0;
        this.says = says;
        this.state = state;
      },
    }));
  });
})();
