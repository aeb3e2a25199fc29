// Mends are tried after the page has answered: each on a copy, solved afresh. What is
// still to be tried is asked for here, and put in its place when it is known; whatever
// else is asked for goes before it.
(function () {
  "use strict";
  const { $, $$ } = window.page;
  let under = null;

  async function ask() {
    if (under) under.abort();
    const mine = (under = new AbortController());
    for (let left = Infinity; ;) {
      const url = $("#page") && $("#page").dataset.untried,
        links = $$(".untried");
      if (!url || !links.length || links.length >= left) return; // one that takes too long keeps its link
      left = links.length;
      try {
        const r = await fetch(url, { signal: mine.signal });
        if (!r.ok) return;
        const next = new DOMParser().parseFromString(await r.text(), "text/html");
        if (mine.signal.aborted) return;
        put(links, next);
      } catch {
        return;
      } // the link is there
    }
  }

  function put(links, next) {
    for (const link of links) {
      const snag = CSS.escape(link.closest("[data-k]").dataset.k);
      const there = $(`[data-k="${snag}"] > .m`, next);
      if (!there || $(":scope > .untried", there)) continue;
      link.replaceWith(...$$(":scope > form", there).map((f) => document.importNode(f, true)));
    }
    if (!$(".untried")) delete $("#page").dataset.untried;
  }

  document.addEventListener("asking", () => {
    if (under) under.abort();
  });
  document.addEventListener("swapped", ask);
  document.addEventListener("DOMContentLoaded", ask);
})();
