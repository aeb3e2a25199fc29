// A number opens its working.
(function () {
  "use strict";
  document.addEventListener("alpine:init", () => {
    window.Alpine.data("working", () => ({
      press(e) {
        const w = e.target.closest("[data-working]");
        if (!w || e.ctrlKey || e.metaKey) return;
        e.preventDefault();
        this.show(w.getAttribute("href"));
      },
      async show(url) {
        const r = await fetch(url, { headers: { "X-Fragment": "1" } });
        this.$refs.into.innerHTML = r.ok
          ? await r.text()
          : "<p>That number is gone; load the page again.</p>";
        this.$root.showModal();
      },
    }));
  });
})();
