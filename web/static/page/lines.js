// Several lines are read as they are typed, and done all or none.
(function () {
  "use strict";
  const { $ } = window.page;
  function several(text) {
    const d = $("#lines"), f = $("form", d);
    f.action = "/p/" + $("#page").dataset.plan + "/lines";
    f.back.value = $(".quick [name=back]").value;
    f.prop.value = $(".quick [name=prop]").value;
    f.lines.value = text;
    d.showModal();
    readSeveral();
  }
  async function readSeveral() {
    const d = $("#lines"), f = $("form", d), text = f.lines.value;
    const r = await (await fetch("/p/" + $("#page").dataset.plan + "/read", { method: "POST", body: new URLSearchParams({ prop: f.prop.value, lines: text }) })).json();
    if (f.lines.value !== text) return;
    $("ol", d).replaceChildren(...(r.lines || []).map((l) => {
      const li = document.createElement("li");
      li.className = l.error ? "bad" : "";
      li.textContent = (l.error ? "✕ " : "✓ ") + l.line + ": " + (l.error || l.text);
      return li;
    }));
    $("[data-all]", d).disabled = !r.good;
  }
  let reading = 0;
  document.addEventListener("input", (e) => { if (e.target.matches("#lines textarea")) { clearTimeout(reading); reading = setTimeout(readSeveral, 200); } });
  document.addEventListener("click", (e) => { if (e.target.closest("[data-shut]")) e.target.closest("dialog").close(); });
  document.addEventListener("sending", (e) => { if (e.detail.matches("[data-lines]")) $("#lines").close(); });
  window.page.several = several;
})();
