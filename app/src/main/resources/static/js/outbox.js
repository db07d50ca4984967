// What is typed here is kept on this phone until the server has it: without a connection, after the session ended, after
// the page was closed. It is sent as soon as it can be, and once only: each form carries a mark of its own.
(function () {
  "use strict";
  var AGAIN_MS = 20000;
  var MONTHS = ["Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sept", "Oct", "Nov", "Dec"];
  document.querySelectorAll("form[data-outbox]").forEach(function (form) {
    var key = "yarrek-outbox " + form.getAttribute("data-outbox") + " " + form.getAttribute("action");
    var says = form.querySelector("[data-outbox-says]");
    var busy = false;

    function tell(words, link, label) {
      says.hidden = false;
      says.textContent = words;
      if (link) {
        var a = document.createElement("a");
        a.href = link;
        a.textContent = label;
        says.appendChild(a);
      }
    }
    function kept() {
      try {
        return JSON.parse(localStorage.getItem(key));
      } catch (e) {
        return null;
      }
    }
    function keep(waits, pressed) {
      var fields = [];
      new FormData(form).forEach(function (value, name) {
        if (typeof value === "string" && name !== "_csrf") {
          fields.push([name, value]);
        }
      });
      if (pressed && pressed.name) {
        fields.push([pressed.name, pressed.value]);
      }
      try {
        localStorage.setItem(key, JSON.stringify({ at: Date.now(), waits: waits, fields: fields }));
        return true;
      } catch (e) {
        tell("This phone does not keep what is typed; do not leave the page before it is sent.");
        return false;
      }
    }
    function forget() {
      localStorage.removeItem(key);
    }
    function restore(what) {
      var values = {};
      what.fields.forEach(function (f) {
        (values[f[0]] = values[f[0]] || []).push(f[1]);
      });
      Array.prototype.forEach.call(form.elements, function (e) {
        if (!e.name || e.name === "_csrf" || e.type === "submit") {
          return;
        }
        if (e.type === "radio" || e.type === "checkbox") {
          e.checked = (values[e.name] || []).indexOf(e.value) >= 0;
        } else if (values[e.name]) {
          e.value = values[e.name][0];
        }
      });
    }
    function later(words, link, label) {
      busy = false;
      tell(words, link, label);
    }
    function send() {
      var what = kept();
      if (busy || !what || !what.waits) {
        return;
      }
      busy = true;
      tell("sending…");
      fetch("/field/token", { cache: "no-store", credentials: "same-origin" })
        .then(function (r) {
          if (r.redirected || !r.ok) {
            throw new Error("signed out");
          }
          return r.json();
        })
        .then(function (token) {
          var body = new URLSearchParams(what.fields);
          body.set("_csrf", token.token);
          return fetch(form.getAttribute("action"), { method: "POST", body: body, credentials: "same-origin" });
        })
        .then(function (r) {
          if (r.redirected && new URL(r.url).pathname.indexOf("/login") === 0) {
            throw new Error("signed out");
          }
          if (r.status >= 500) {
            throw new Error("busy");
          }
          return r.text().then(function (page) {
            if (r.redirected) {
              forget();
              history.replaceState(null, "", r.url);
            } else {
              keep(false); // refused: what the server says is shown, and what was typed is in it
            }
            document.open();
            document.write(page);
            document.close();
          });
        })
        .catch(function (e) {
          if (e.message === "signed out") {
            later("It waits on this phone: sign in again and come back to this page, then it is sent. ", "/login", "Sign in");
          } else if (e.message === "busy") {
            later("The server could not take it just now. It waits on this phone and is sent again by itself.");
          } else {
            later(
              "No connection. It waits on this phone and is sent as soon as there is one, while this page is open or opened again.",
            );
          }
        });
    }

    var before = kept();
    if (before) {
      restore(before);
      tell(
        (before.waits ? "Not sent yet, written " : "Kept from before, written ") +
          new Date(before.at).toLocaleString("en-GB", { day: "numeric", month: "short", hour: "2-digit", minute: "2-digit" }) +
          ". ",
      );
      send();
    }
    form.addEventListener("input", function () {
      keep(false);
    });
    form.addEventListener("submit", function (e) {
      e.preventDefault();
      if (!form.reportValidity() || !keep(true, e.submitter)) {
        return;
      }
      send();
    });
    window.addEventListener("online", send);
    setInterval(send, AGAIN_MS);
    document.documentElement.setAttribute("data-outbox", "ready");
  });

  // the time and the day are those of the moment, also on a page that was kept long ago
  document.querySelectorAll("[data-now]").forEach(function (e) {
    if (e.value === "" || e.defaultValue === e.value) {
      var parts = new Intl.DateTimeFormat("en-CA", {
        timeZone: e.getAttribute("data-zone"),
        year: "numeric",
        month: "2-digit",
        day: "2-digit",
        hour: "2-digit",
        minute: "2-digit",
        hourCycle: "h23",
      }).formatToParts(new Date());
      var p = {};
      parts.forEach(function (x) {
        p[x.type] = x.value;
      });
      e.value =
        e.getAttribute("data-now") === "day" ? Number(p.day) + " " + MONTHS[p.month - 1] + " " + p.year : p.hour + ":" + p.minute;
    }
  });
  var place = document.getElementById("place-of-phone");
  if (place) {
    place.addEventListener("click", function () {
      var says = document.getElementById("place-says");
      if (!navigator.geolocation) {
        says.textContent = "This browser does not know where it is; type it.";
        return;
      }
      says.textContent = "looking…";
      navigator.geolocation.getCurrentPosition(
        function (at) {
          var field = document.getElementById("f-place");
          field.value = at.coords.latitude.toFixed(5) + ", " + at.coords.longitude.toFixed(5);
          field.dispatchEvent(new Event("input", { bubbles: true }));
          says.textContent = "within " + Math.ceil(at.coords.accuracy) + " m; this is you, not the aircraft";
        },
        function () {
          says.textContent = "The phone does not say where it is; type it, or leave it empty.";
        },
        { enableHighAccuracy: true, timeout: 20000, maximumAge: 10000 },
      );
    });
  }
})();
