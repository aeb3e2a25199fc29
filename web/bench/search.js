// A search for a tighter layout, or for a better order of work, improves in view.
(function () {
  "use strict";
  const { $ } = window.page;
  document.addEventListener("alpine:init", () => {
    window.Alpine.data("search", () => ({
      source: null,
      look() {
        const { stock, at, doing } = this.$root.dataset;
        const q = new URLSearchParams(stock ? { stock, prop: $(".quick [name=prop]").value } : {});
        this.stop();
        this.$refs.found.hidden = false;
        this.$refs.stop.hidden = false;
        this.$refs.keep.disabled = true;
        this.$refs.said.textContent = doing || "laying out";
        this.source = new EventSource("/p/" + $("#page").dataset.plan + (at || "/search") + "?" + q);
        this.source.onmessage = (e) => {
          const m = JSON.parse(e.data);
          this.$refs.bar.value = m.share;
          this.$refs.said.textContent = m.said + (m.done ? ". Done." : "");
          if (m.draw) this.$refs.draw.innerHTML = m.draw;
          if (m.layout) {
            this.$refs.layout.value = JSON.stringify(m.layout);
            this.$refs.keep.disabled = false;
          }
          if (m.done) this.stop();
        };
        this.source.onerror = () => {
          this.$refs.said.textContent = "The barn does not answer; what was found so far can still be kept.";
          this.stop();
        };
      },
      stop() {
        if (this.source) this.source.close();
        this.source = null;
        this.$refs.stop.hidden = true;
      },
      drop() {
        this.stop();
        this.$refs.found.hidden = true;
        this.$refs.draw.innerHTML = "";
      },
      destroy() {
        this.stop();
      },
    }));
  });
})();
