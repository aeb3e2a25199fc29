// What can be said is fetched when it is asked for; a press writes it on the line.
(function () {
  "use strict";
  const { $ } = window.page;
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
  document.addEventListener("input", (e) => {
    if (!e.target.matches("[data-look]")) return;
    const want = e.target.value.trim().toLowerCase();
    for (const g of e.target.closest(".said").querySelectorAll("[data-group]")) {
      let some = false;
      for (const li of g.querySelectorAll("[data-said]")) {
        li.hidden = !!want && !li.textContent.toLowerCase().includes(want) && !g.querySelector("summary").textContent.toLowerCase().includes(want);
        some = some || !li.hidden;
      }
      g.hidden = !some;
      if (want) g.open = some;
    }
  });
  document.addEventListener("alpine:init", () => {
    window.Alpine.data("help", () => ({
      async open() {
        const box = this.$refs.said;
        if (!this.$el.open) return;
        const q = new URLSearchParams({ prop: $(".quick [name=prop]").value, place: $("#page").className.match(/place-(\w+)/)[1] });
        try {
          const r = await fetch("/p/" + $("#page").dataset.plan + "/help?" + q);
          if (!r.ok) throw new Error(String(r.status));
          box.innerHTML = await r.text();
          box.querySelector("[data-look]").focus();
        } catch (_) { box.textContent = "The barn does not answer."; }
      },
    }));
  });
})();
