/* The parts of a job by their digit; the next and the one before of what is in the way by ] and [. */
(function () {
  "use strict";
  function typing(e) {
    return e.target.closest("input, select, textarea, dialog") || e.ctrlKey || e.metaKey || e.altKey;
  }
  document.addEventListener("keydown", function (e) {
    if (typing(e)) {
      return;
    }
    var part = /^[1-9]$/.test(e.key) && document.querySelector('.spine [data-part="' + e.key + '"]');
    if (part) {
      e.preventDefault();
      part.click();
      part.focus();
      return;
    }
    if (e.key === "]" || e.key === "[") {
      var all = Array.prototype.slice.call(document.querySelectorAll("#findings .ladder > details.rung > summary"));
      var at = all.indexOf(document.activeElement);
      var to = all[e.key === "]" ? at + 1 : Math.max(0, at - 1)];
      if (to) {
        e.preventDefault();
        to.focus();
        to.scrollIntoView({ block: "center" });
      }
    }
  });
})();
