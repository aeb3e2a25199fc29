// A number opens its working.
(function () {
  "use strict";
  const { $ } = window.page;
  document.addEventListener("click", (e) => {
    const w = e.target.closest("[data-working]");
    if (!w || e.ctrlKey || e.metaKey) return;
    e.preventDefault();
    working(w.getAttribute("href"));
  });

  async function working(url) {
    const r = await fetch(url, { headers: { "X-Fragment": "1" } });
    const d = $("#working");
    $("[data-into]", d).innerHTML = r.ok ? await r.text() : "<p>That number is gone; load the page again.</p>";
    d.showModal();
  }
})();
