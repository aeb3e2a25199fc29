// A performance by hand: while the button is held the slider is sampled, ten times a second.
(function () {
  "use strict";
  const { send } = window.page;
  const heights = "0123456789abcdefghijklmnopqrstuvwxyz";
  let curve = "",
    timer = 0,
    since = 0;
  function start(form) {
    if (timer) return;
    curve = "";
    since = performance.now();
    form.querySelector("[data-record]").classList.add("runs");
    timer = setInterval(() => {
      const v = Number(form.elements.level.value) / 100;
      curve += heights[Math.min(heights.length - 1, Math.floor(v * heights.length))];
      form.querySelector("output").textContent = ((performance.now() - since) / 1000).toFixed(1) + " s";
      if (curve.length >= 300) stop(form); // a clip's outline is no longer
    }, 100);
  }
  function stop(form) {
    if (!timer) return;
    clearInterval(timer);
    timer = 0;
    form.querySelector("[data-record]").classList.remove("runs");
    form.elements.curve.value = curve;
    form.elements.long.value = curve.length * 100;
    send(form);
  }
  document.addEventListener("click", (e) => {
    const b = e.target.closest("[data-record]");
    if (!b) return;
    if (timer) stop(b.form);
    else start(b.form);
    b.textContent = timer ? "Stop and keep it" : "Record";
  });
})();
