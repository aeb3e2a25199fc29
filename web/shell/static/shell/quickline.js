// The quick line says what it read, completes, and remembers what was said.
(function () {
  "use strict";
  const { $, remembered, completed } = window.page;
  document.addEventListener("sending", (e) => {
    if (e.detail.matches(".quick")) remember($("#line").value);
  });
  // the quick line's memory, this browser's own
  function memory() {
    try {
      return JSON.parse(localStorage.getItem("said") || "[]");
    } catch {
      return [];
    }
  }
  function remember(line) {
    const said = remembered(memory(), line);
    try {
      localStorage.setItem("said", JSON.stringify(said));
    } catch {
      /* private window */
    }
  }
  document.addEventListener("alpine:init", () => {
    window.Alpine.data("quickline", () => ({
      at: -1,
      next: [],
      asked: "",
      async read() {
        const line = $("#line").value;
        const got = this.$refs.got;
        if (!line.trim()) {
          got.textContent = "";
          got.classList.remove("bad");
          this.offer([]);
          this.goOn([]);
          return;
        }
        const q = new URLSearchParams({ line: line, prop: $(".quick [name=prop]").value });
        try {
          const r = await (await fetch("/p/" + $("#page").dataset.plan + "/read?" + q)).json();
          if ($("#line").value !== line) return;
          this.asked = line;
          got.classList.toggle("bad", !r.text);
          got.textContent = r.text
            ? "reads as: " + r.text
            : (r.tries || []).length
              ? r.error.split("; did you mean: ")[0]
              : r.error;
          this.offer(document.activeElement === $("#line") ? r.next || [] : []);
          this.goOn(r.tries || []);
        } catch {
          got.textContent = "The barn does not answer.";
          got.classList.add("bad");
        }
      },
      // goOn shows lines that would be understood; a press writes one on the line
      goOn(lines) {
        if (lines.length) this.offer([]);
        this.$refs.tries.replaceChildren(
          ...lines.map((l) => {
            const li = document.createElement("li"),
              b = document.createElement("button");
            b.type = "button";
            b.dataset.line = b.textContent = l;
            li.append(b);
            return li;
          }),
        );
      },
      // offer shows what may follow; a press or Tab takes it
      offer(words) {
        this.next = words;
        const ul = this.$refs.next;
        ul.replaceChildren(
          ...words.map((w) => {
            const li = document.createElement("li"),
              b = document.createElement("button");
            b.type = "button";
            b.tabIndex = -1;
            b.textContent = w;
            b.addEventListener("mousedown", (e) => {
              e.preventDefault();
              this.take(w);
            });
            li.append(b);
            return li;
          }),
        );
      },
      async tab() {
        // an answer that is still under way is waited for
        if (this.asked !== $("#line").value) await this.read();
        if (this.next.length) this.take(this.next[0]);
      },
      take(word) {
        const line = $("#line");
        line.value = completed(line.value, word);
        this.read();
      },
      leave() {
        this.offer([]);
      },
      again() {
        const line = $("#line");
        if (!line.value.trim() || this.asked === line.value) return;
        if ($(".tries").dataset.of === line.value) {
          this.asked = line.value;
          return;
        } // it came back with lines to go on with
        this.read();
      },
      key(e) {
        const said = memory();
        if (e.key === "ArrowUp" || e.key === "ArrowDown") {
          const next = this.at + (e.key === "ArrowUp" ? 1 : -1);
          if (next >= -1 && next < said.length) {
            this.at = next;
            $("#line").value = next < 0 ? "" : said[next];
            this.read();
          }
          e.preventDefault();
        } else if (
          e.key === "Tab" &&
          !e.shiftKey &&
          $("#line").value.trim() &&
          (this.next.length || this.asked !== $("#line").value)
        ) {
          e.preventDefault();
          this.tab();
        } else if (e.key === "Escape") {
          // out of the line, to the drawing
          this.offer([]);
          $("#surface").focus({ preventScroll: true });
        } else if (e.key === "Enter") {
          if (e.repeat) e.preventDefault(); // a key that is held says it once
          this.offer([]);
          this.at = -1;
        }
      },
      // several lines at once are shown first, each with what it would do
      paste(e) {
        const text = (e.clipboardData || window.clipboardData).getData("text");
        if (!/\n./.test(text.trim())) return;
        e.preventDefault();
        document.dispatchEvent(new CustomEvent("several", { detail: text }));
      },
    }));
  });
})();
