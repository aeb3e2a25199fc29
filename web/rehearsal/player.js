// The rehearsal plays along its rails.
(function () {
  "use strict";
  const { $, $$, go, travelled } = window.page;
  document.addEventListener("alpine:init", () => {
    window.Alpine.data("player", () => ({
      timer: 0,
      now: 0,
      last: 0,
      data: null,
      speed: 1,
      init() {
        this.data = JSON.parse(this.$root.dataset.frames);
        this.now = Number(this.$root.dataset.at);
      },
      destroy() {
        cancelAnimationFrame(this.timer);
      },
      toggle() {
        if (this.timer) {
          this.stop();
          return;
        }
        if (this.now >= this.data.until) this.now = 0;
        this.$refs.play.textContent = "❚❚ pause";
        this.last = performance.now();
        const tick = (t) => {
          this.now = Math.min(this.data.until, this.now + (t - this.last) * this.speed);
          this.last = t;
          this.show();
          if (this.now >= this.data.until) {
            this.stop();
            return;
          }
          this.timer = requestAnimationFrame(tick);
        };
        this.timer = requestAnimationFrame(tick);
      },
      stop() {
        cancelAnimationFrame(this.timer);
        this.timer = 0;
        this.$refs.play.textContent = "▶ play";
        this.keep();
      },
      // keep writes the moment into the address, and asks for its drawing
      keep() {
        const u = new URL(location.href);
        u.searchParams.set("t", Math.round(this.now));
        go(u.pathname + u.search, false).then(() => history.replaceState({}, "", u));
      },
      faster() {
        const speeds = [1, 2, 4, 0.25, 0.5];
        this.speed = speeds[(speeds.indexOf(this.speed) + 1) % speeds.length];
        this.$refs.speed.textContent = String(this.speed).replace("0.25", "¼").replace("0.5", "½") + "×";
      },
      scrub() {
        this.now = Number(this.$refs.scrub.value);
        this.show();
      },
      move() {
        for (const m of this.data.movers) {
          const el = $(`[data-mover="${m.id}"]`, this.$root);
          if (el)
            el.setAttribute(
              "d",
              m.poses[Math.round((travelled(this.data.moves, m, this.now) * (m.poses.length - 1)) / 1000)],
            );
        }
      },
      show() {
        const c = $("[data-cursor]", this.$root);
        const x0 = Number(c.dataset.x0),
          x1 = Number(c.dataset.x1);
        c.setAttribute("transform", `translate(${x0 + (this.now / this.data.until) * (x1 - x0)} 0)`);
        this.$refs.clock.textContent = (this.now / 1000).toFixed(2) + " s";
        if (document.activeElement !== this.$refs.scrub) this.$refs.scrub.value = Math.round(this.now);
        this.move();
        let f = this.data.frames[0];
        for (const g of this.data.frames) if (g.at <= this.now) f = g;
        if (f === this.shown) return;
        this.shown = f;
        $$("[data-lamp]", this.$root).forEach((l) =>
          l.setAttribute("class", "stageglow lv" + f.lamps[l.dataset.lamp]),
        );
        $$("[data-fog]", this.$root).forEach((l) => l.classList.toggle("on", f.fog.includes(l.dataset.fog)));
        const bar = $("[data-meter]", this.$root),
          db = $("[data-db]", this.$root);
        if (bar) {
          const tall = Number(bar.dataset.meter);
          bar.setAttribute("height", tall * f.loud);
          bar.setAttribute("y", Number(bar.dataset.top) + tall * (1 - f.loud));
        }
        if (db) db.textContent = f.db;
        $$("[data-amps]", this.$root).forEach((l) => {
          l.textContent = f.amps[l.dataset.amps];
        });
      },
    }));
    // a prop's behaviour is read as it is typed: what is wrong is said, with its word
    window.Alpine.data("behaviour", () => ({
      async read() {
        const f = this.$root,
          says = this.$refs.says;
        const text = f.elements.text.value;
        try {
          const body = new URLSearchParams({ text: text, prop: f.elements.prop.value });
          const r = await (
            await fetch(f.getAttribute("action") + "/read", { method: "POST", body: body })
          ).json();
          if (f.elements.text.value !== text) return;
          says.classList.toggle("bad", !!r.why);
          says.replaceChildren();
          if (r.why) {
            if (r.word) {
              const m = document.createElement("mark");
              m.textContent = r.word;
              says.append("line " + r.line + ": “", m, "” ");
            }
            says.append(r.why);
          } else {
            says.textContent = r.changes
              ? "understood: " + r.changes + (r.changes === 1 ? " change" : " changes")
              : "as it is";
          }
        } catch {
          says.textContent = "The barn does not answer.";
          says.classList.add("bad");
        }
      },
    }));
  });
})();
