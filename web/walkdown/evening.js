// A night on a phone that is out of reach: what is entered is kept on the phone, and saved as
// a file to be merged.
(function () {
  "use strict";
  const on = document.body.dataset.evening,
    key = document.body.dataset.key,
    was = JSON.parse(document.getElementById("was").textContent);
  let kept = {
    who: "",
    phone: "p" + Math.random().toString(36).slice(2, 8),
    ticks: {},
    incidents: [],
    night: {},
  };
  try {
    kept = Object.assign(kept, JSON.parse(localStorage.getItem(key) || "{}"));
  } catch {
    /* private window */
  }
  const $ = function (s) {
    return document.querySelector(s);
  };
  function clock() {
    const d = new Date();
    return ("0" + d.getHours()).slice(-2) + ":" + ("0" + d.getMinutes()).slice(-2);
  }
  function entries() {
    const out = [];
    Object.keys(kept.ticks).forEach(function (line) {
      out.push({
        kind: "ticked",
        id: "",
        value: { id: "t", on: on, line: line, by: kept.ticks[line].by, at: kept.ticks[line].at },
      });
    });
    kept.incidents.forEach(function (x) {
      out.push({ kind: "incident", id: x.id, value: x });
    });
    if (Object.keys(kept.night).length) {
      out.push({
        kind: "night",
        id: was.id,
        value: Object.assign({}, was, kept.night, { id: was.id || "n", on: on }),
        was: was.id ? was : null,
      });
    }
    return out;
  }
  function show() {
    const n = entries().length;
    $("#kept").textContent = n
      ? n + (n === 1 ? " entry" : " entries") + " kept on this phone."
      : "Nothing entered yet.";
    $("#noted").replaceChildren.apply(
      $("#noted"),
      kept.incidents.map(function (x) {
        const li = document.createElement("li");
        li.textContent = x.what + (x.minutes ? ", " + x.minutes + " min" : "");
        return li;
      }),
    );
  }
  function keep() {
    try {
      localStorage.setItem(key, JSON.stringify(kept));
    } catch {
      $("#kept").textContent = "This phone keeps nothing: save now.";
      return;
    }
    show();
  }
  $("#who").value = kept.who;
  $("#who").addEventListener("input", function (e) {
    kept.who = e.target.value;
    keep();
  });
  document.querySelectorAll("[data-line]").forEach(function (b) {
    if (b.disabled) return;
    b.checked = !!kept.ticks[b.dataset.line];
    b.closest("label").classList.toggle("done", b.checked);
    b.addEventListener("change", function () {
      if (b.checked) kept.ticks[b.dataset.line] = { by: kept.who, at: clock() };
      else delete kept.ticks[b.dataset.line];
      b.closest("label").classList.toggle("done", b.checked);
      keep();
    });
  });
  $("#incident").addEventListener("submit", function (e) {
    e.preventDefault();
    const f = e.target.elements,
      x = { id: kept.phone + "-" + (kept.incidents.length + 1), on: on, what: f.what.value, by: kept.who };
    if (f.prop.value) x.prop = f.prop.value;
    if (f.part.value) x.part = f.part.value;
    if (f.mended.value) x.mended = f.mended.value;
    if (f.minutes.value) x.minutes = Number(f.minutes.value);
    kept.incidents.push(x);
    e.target.reset();
    keep();
  });
  document.querySelectorAll("[data-night]").forEach(function (b) {
    const k = b.dataset.night;
    if (kept.night[k] !== undefined) b.value = kept.night[k];
    b.addEventListener("input", function () {
      kept.night[k] = b.type === "number" ? Number(b.value) : b.value;
      keep();
    });
  });
  $("#save").addEventListener("click", function () {
    const a = document.createElement("a");
    a.href = URL.createObjectURL(new Blob([JSON.stringify(entries())], { type: "application/json" }));
    a.download = "night-" + on + "-" + (kept.who || kept.phone) + ".json";
    a.click();
  });
  window.night = { entries: entries };
  show();
})();
