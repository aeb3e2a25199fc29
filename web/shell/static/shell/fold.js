// The ticket folds away, and stays so.
(function () {
  "use strict";
  const { $, $$ } = window.page;
  const kept = () => {
    try {
      return localStorage.getItem("folded") === "yes";
    } catch {
      return false;
    }
  };
  const show = (on) => document.documentElement.classList.toggle("folded", on);
  document.addEventListener("alpine:init", () => {
    window.Alpine.data("fold", () => ({
      folded: kept(),
      get says() {
        return this.folded ? "Unfold" : "Fold";
      },
      get open() {
        return String(!this.folded);
      },
      toggle() {
        this.folded = !this.folded;
        try {
          localStorage.setItem("folded", this.folded ? "yes" : "no");
        } catch {
          /* it folds all the same */
        }
        show(this.folded);
      },
    }));
  });
  function settle() {
    show(kept());
    // rows that scroll on a phone: where one is is in view. By their own scrollLeft: the
    // browser begins a Tab where something was scrolled into view, past the skip links.
    for (const list of $$(".doors, .ways, .props")) {
      const on = $(".on", list);
      if (on) list.scrollLeft = on.offsetLeft - list.offsetLeft - (list.clientWidth - on.offsetWidth) / 2;
    }
  }
  document.addEventListener("swapped", settle);
  document.addEventListener("DOMContentLoaded", settle);
})();
