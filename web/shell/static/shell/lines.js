// Several lines are read as they are typed, and done all or none.
(function () {
  "use strict";
  const { $ } = window.page;
  document.addEventListener("alpine:init", () => {
    window.Alpine.data("lines", () => ({
      at: () => "/p/" + $("#page").dataset.plan,
      show(e) {
        const f = this.$refs.form;
        f.action = this.at() + "/lines";
        f.back.value = $(".quick [name=back]").value;
        f.prop.value = $(".quick [name=prop]").value;
        f.lines.value = e.detail;
        this.$root.showModal();
        this.read();
      },
      async read() {
        const f = this.$refs.form,
          text = f.lines.value;
        const body = new URLSearchParams({ prop: f.prop.value, lines: text });
        const r = await (await fetch(this.at() + "/read", { method: "POST", body })).json();
        if (f.lines.value !== text) return;
        this.$refs.list.replaceChildren(...(r.lines || []).map(this.row));
        this.$refs.all.disabled = !r.good;
      },
      row(l) {
        const li = document.createElement("li");
        li.className = l.error ? "bad" : "";
        li.textContent = (l.error ? "✕ " : "✓ ") + l.line + ": " + (l.error || l.text);
        return li;
      },
      shut() {
        this.$root.close();
      },
      sent(e) {
        if (e.detail === this.$refs.form) this.shut();
      },
    }));
  });
})();
