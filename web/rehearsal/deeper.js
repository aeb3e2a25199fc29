// A deeper search of the behaviour tells how far it is; when it is done the page shows it.
(function () {
  "use strict";
  const { $, go } = window.page;
  document.addEventListener("alpine:init", () => {
    window.Alpine.data("deeper", () => ({
      source: null,
      init() {
        this.look();
      },
      look() {
        this.stop();
        this.$refs.again.hidden = true;
        this.$refs.stop.hidden = false;
        this.$refs.said.textContent = "begins";
        this.source = new EventSource("/p/" + $("#page").dataset.plan + this.$root.dataset.at);
        this.source.onmessage = (e) => {
          const m = JSON.parse(e.data);
          this.$refs.bar.value = m.share;
          this.$refs.said.textContent = m.said;
          if (m.done) {
            this.stop();
            go(location.href, false);
          }
        };
        this.source.onerror = () => {
          this.stop("The barn does not answer, or other searches are under way.");
        };
      },
      stop(why) {
        if (!this.source) return;
        this.source.close();
        this.source = null;
        this.$refs.stop.hidden = true;
        this.$refs.again.hidden = false;
        this.$refs.said.textContent = typeof why === "string" ? why : "stopped";
      },
      destroy() {
        this.stop();
      },
    }));
  });
})();
