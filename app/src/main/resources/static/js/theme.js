// Sets the theme before the page is drawn: as chosen, else as the machine is set.
(function () {
  var chosen = null;
  try {
    chosen = localStorage.getItem("yarrek-theme");
  } catch (e) {
    /* private window: follow the machine */
  }
  var dark = chosen ? chosen === "dark" : window.matchMedia("(prefers-color-scheme: dark)").matches;
  document.documentElement.setAttribute("data-bs-theme", dark ? "dark" : "light");
})();
