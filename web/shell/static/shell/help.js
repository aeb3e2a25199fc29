// What can be said is fetched when it is asked for; a press writes it on the line.
(function () {
  "use strict";
  const { $, looked } = window.page;
  function onTheLine(line) {
    const input = $("#line");
    input.value = line;
    input.focus();
    input.dispatchEvent(new Event("input", { bubbles: true }));
  }
  document.addEventListener("click", (e) => {
    const b = e.target.closest("button[data-line]");
    if (!b) return;
    const open = b.closest("details.says");
    if (open) open.open = false;
    onTheLine(b.dataset.line);
  });
  document.addEventListener("alpine:init", () => {
    window.Alpine.data("help", () => ({
      // look leaves those lines whose words, or whose subject's, are looked for
      look(e) {
        const want = e.target.value;
        for (const g of this.$refs.said.querySelectorAll("[data-group]")) {
          let some = false;
          for (const li of g.querySelectorAll("[data-said]")) {
            li.hidden = !looked(want, li.textContent, g.querySelector("summary").textContent);
            some = some || !li.hidden;
          }
          g.hidden = !some;
          if (want.trim()) g.open = some;
        }
      },
      async open() {
        const box = this.$refs.said;
        if (!this.$el.open) return;
        const q = new URLSearchParams({
          prop: $(".quick [name=prop]").value,
          place: $("#page").className.match(/place-(\w+)/)[1],
        });
        try {
          const r = await fetch("/p/" + $("#page").dataset.plan + "/help?" + q);
          if (!r.ok) throw new Error(String(r.status));
          box.innerHTML = await r.text();
          box.querySelector("[data-look]").focus();
        } catch {
          box.textContent = "The barn does not answer.";
        }
      },
    }));
  });
})();
