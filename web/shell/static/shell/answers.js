// What was said on the line is listed with its answer: what it did, or why it was refused.
(function () {
  "use strict";
  const { $, $$ } = window.page;
  const done = 3; // that many stay listed

  function row(said) {
    const li = document.createElement("li");
    li.dataset.state = "waiting";
    li.append(
      Object.assign(document.createElement("code"), { textContent: said.text }),
      Object.assign(document.createElement("span"), { textContent: "…" }),
    );
    li.said = said;
    return li;
  }

  document.addEventListener("said", (e) => {
    const list = $("#answers");
    list.append(row(e.detail));
    const old = $$("[data-state=done]", list);
    old.slice(0, Math.max(0, old.length - done)).forEach((li) => li.remove());
  });

  document.addEventListener("answered", (e) => {
    const { said, refusal, back, did } = e.detail;
    const li = $$("li", $("#answers")).find((x) => x.said === said);
    if (!li) return;
    if (refusal && back) {
      li.remove();
      return;
    } // it is on the line again, and says why there
    li.dataset.state = refusal ? "bad" : "done";
    $("span", li).textContent =
      refusal || [did, ($("[data-told]") || {}).textContent].filter((t) => t).join("; ") || "done";
    if (!refusal) return;
    const b = Object.assign(document.createElement("button"), {
      type: "button",
      textContent: "Put it back on the line",
    });
    b.addEventListener("click", () => {
      const at = $("#line");
      if (at.value.trim()) at.select();
      else {
        at.value = said.text;
        li.remove();
        at.dispatchEvent(new Event("input", { bubbles: true }));
      }
      at.focus();
    });
    const x = Object.assign(document.createElement("button"), { type: "button", textContent: "Forget it" });
    x.addEventListener("click", () => {
      li.remove();
      $("#line").focus();
    });
    li.append(b, x);
  });
})();
