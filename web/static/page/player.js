// The rehearsal plays along its rails.
(function () {
  "use strict";
  const { $, $$, go } = window.page;
  document.addEventListener("alpine:init", () => {
    window.Alpine.data("player", () => ({
      timer: 0, now: 0, last: 0, data: null,
      init() { this.data = JSON.parse(this.$root.dataset.frames); this.now = Number(this.$root.dataset.at); },
      destroy() { cancelAnimationFrame(this.timer); },
      toggle() {
        if (this.timer) { this.stop(); return; }
        if (this.now >= this.data.until) this.now = 0;
        this.$refs.play.textContent = "❚❚ pause";
        this.last = performance.now();
        const tick = (t) => {
          this.now = Math.min(this.data.until, this.now + (t - this.last));
          this.last = t;
          this.show();
          if (this.now >= this.data.until) { this.stop(); return; }
          this.timer = requestAnimationFrame(tick);
        };
        this.timer = requestAnimationFrame(tick);
      },
      stop() {
        cancelAnimationFrame(this.timer);
        this.timer = 0;
        this.$refs.play.textContent = "▶ play";
        const u = new URL(location.href);
        u.searchParams.set("t", Math.round(this.now));
        go(u.pathname + u.search, false).then(() => history.replaceState({}, "", u));
      },
      show() {
        const c = $("[data-cursor]", this.$root);
        const x0 = Number(c.dataset.x0), x1 = Number(c.dataset.x1);
        c.setAttribute("transform", `translate(${x0 + (this.now / this.data.until) * (x1 - x0)} 0)`);
        this.$refs.clock.textContent = (this.now / 1000).toFixed(2) + " s";
        let f = this.data.frames[0];
        for (const g of this.data.frames) if (g.at <= this.now) f = g;
        if (f === this.shown) return;
        this.shown = f;
        $$("[data-lamp]", this.$root).forEach((l) => l.setAttribute("class", "stageglow lv" + f.lamps[l.dataset.lamp]));
        $$("[data-amps]", this.$root).forEach((l) => { l.textContent = f.amps[l.dataset.amps]; });
      },
    }));
  });
})();
