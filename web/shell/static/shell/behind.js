// A page that is of just before the last edit asks for the newest by itself, unless
// something else is asked for: that brings it as well.
(function () {
  "use strict";
  const { $, go } = window.page;
  const wait = 300;
  function look() {
    if (!$("[data-behind]")) return;
    setTimeout(() => {
      if ($("[data-behind]") && !document.body.classList.contains("busy")) go(location.href, false);
    }, wait);
  }
  document.addEventListener("swapped", look);
  document.addEventListener("DOMContentLoaded", look);
})();
