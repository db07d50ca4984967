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
      performance.getEntriesByType("resource").forEach(function (e) {
        var file = new URL(e.name);
        if (file.origin === location.origin && /\.woff2$/.test(file.pathname)) {
          addresses.push(file.pathname);
        }
      });
      navigator.serviceWorker.addEventListener("message", function (e) {
        if (e.data && e.data.kept === location.pathname) {
          document.documentElement.setAttribute("data-kept", "yes");
          if (e.data.newer && location.search === "") {
            tell("Renewed just now. ");
            var again = document.createElement("a");
            again.href = location.pathname;
            again.textContent = "Show the new one";
            told.appendChild(again);
          } else {
            tell("Kept on this phone. It opens without a connection.");
          }
        }
        if (e.data && e.data.notKept === location.pathname) {
          tell(
            e.data.signedOut
              ? "This is the page as it was kept; sign in again to have it renewed."
              : "No connection: this is the page as it was kept.",
          );
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

  // a clock in both times, since both are asked for
  var now = document.getElementById("now");
  if (now) {
    var show = function () {
      var t = new Date();
      var local = t.toLocaleTimeString("en-GB", { timeZone: now.dataset.zone, hour12: false });
      now.textContent = local + " local, " + t.toISOString().slice(11, 19) + " UTC";
    };
    show();
    setInterval(show, 1000);
  }
  var here = document.getElementById("here");
  if (here) {
    here.addEventListener("click", function () {
      var says = document.getElementById("here-says");
      if (!navigator.geolocation) {
        says.textContent = "This browser does not know where it is.";
        return;
      }
      says.textContent = "looking…";
      navigator.geolocation.getCurrentPosition(
        function (p) {
          says.textContent =
            p.coords.latitude.toFixed(5) +
            ", " +
            p.coords.longitude.toFixed(5) +
            ", within " +
            Math.ceil(p.coords.accuracy) +
            " m, at " +
            new Date(p.timestamp).toISOString().slice(11, 19) +
            " UTC. This is you, not the aircraft.";
        },
        function () {
          says.textContent = "The phone does not say where it is; allow it, or look at the sky for longer.";
        },
        { enableHighAccuracy: true, timeout: 20000, maximumAge: 10000 },
      );
    });
  }
  // figures are reckoned by the server; without it what was typed stays, and what was reckoned before is shown
  var reckon = document.getElementById("reckon");
  if (reckon) {
    reckon.addEventListener("submit", function (e) {
      e.preventDefault();
      var says = document.getElementById("reckon-says");
      var address = reckon.action + "?" + new URLSearchParams(new FormData(reckon)).toString();
      var late = new AbortController();
      var bell = setTimeout(function () {
        late.abort();
      }, 5000);
      says.hidden = false;
      says.textContent = "asking…";
      fetch(address, { cache: "no-store", signal: late.signal })
        .then(function (r) {
          clearTimeout(bell);
          if (!r.ok || r.redirected || new URL(r.url).search === "") {
            throw new Error("kept");
          }
          location.href = address;
        })
        .catch(function () {
          clearTimeout(bell);
          says.textContent =
            "Reckoning with your figures needs a connection, and there is none. What you typed stays. " +
            "Below stands where it can be in each direction at the usual speed.";
          document.getElementById("directions").open = true;
        });
    });
  }
})();
