// Keeps this page on the phone, so that it opens without a connection.
(function () {
  "use strict";
  var told = document.getElementById("offline");
  function tell(text) {
    if (told) {
      told.hidden = false;
      told.textContent = text;
    }
  }
  if (!("serviceWorker" in navigator)) {
    tell("This browser cannot keep the page; print it or load it before you go.");
    return;
  }
  navigator.serviceWorker
    .register("/field/sw.js", { scope: "/field/" })
    .then(function () {
      return navigator.serviceWorker.ready;
    })
    .then(function (r) {
      var addresses = [location.pathname];
      document.querySelectorAll("link[href], script[src], img[src]").forEach(function (e) {
        addresses.push(e.getAttribute("href") || e.getAttribute("src"));
      });
      [
        "/fonts/atkinson-hyperlegible-next-latin-400-normal.woff2",
        "/fonts/atkinson-hyperlegible-next-latin-600-normal.woff2",
        "/fonts/atkinson-hyperlegible-next-latin-700-normal.woff2",
        "/fonts/barlow-semi-condensed-latin-400-normal.woff2",
        "/fonts/barlow-semi-condensed-latin-600-normal.woff2",
      ].forEach(function (f) {
        addresses.push(f);
      });
      navigator.serviceWorker.addEventListener("message", function (e) {
        if (e.data && e.data.kept === location.pathname) {
          tell("Kept on this phone. It opens without a connection.");
          document.documentElement.setAttribute("data-kept", "yes");
        }
        if (e.data && e.data.forgotten) {
          tell("No longer on this phone.");
          document.documentElement.removeAttribute("data-kept");
        }
      });
      r.active.postMessage({ keep: addresses, page: location.pathname });
    })
    .catch(function () {
      tell("This page could not be kept on the phone; print it, or load it before you go.");
    });
  if (!navigator.onLine) {
    tell("No connection: this is the page as it was kept.");
  }
  var forget = document.getElementById("forget");
  if (forget) {
    forget.addEventListener("click", function () {
      navigator.serviceWorker.ready.then(function (r) {
        r.active.postMessage({ forget: true });
      });
    });
  }
})();
