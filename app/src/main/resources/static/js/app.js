// Moves and draws; every figure comes from the server.
(function () {
  "use strict";

  document.addEventListener("alpine:init", function () {
    Alpine.data("help", function () {
      return {
        open: false,
        toggle: function () {
          this.open = !this.open;
        },
        close: function () {
          this.open = false;
        },
        theme: function () {
          var next = document.documentElement.getAttribute("data-bs-theme") === "dark" ? "light" : "dark";
          document.documentElement.setAttribute("data-bs-theme", next);
          try {
            localStorage.setItem("yarrek-theme", next);
          } catch (e) {
            /* not kept */
          }
          document.dispatchEvent(new CustomEvent("yarrek:theme"));
        },
      };
    });
  });

  function typing(t) {
    return t && (/^(INPUT|SELECT|TEXTAREA)$/.test(t.tagName) || t.isContentEditable);
  }
  function rows() {
    return Array.prototype.filter.call(document.querySelectorAll("tbody tr"), function (r) {
      return !r.hidden && r.querySelector("a.row-link");
    });
  }

  function move(step) {
    var all = rows();
    if (!all.length) {
      return;
    }
    var now = all.findIndex(function (r) {
      return r.classList.contains("at");
    });
    var next = Math.max(0, Math.min(all.length - 1, now < 0 ? 0 : now + step));
    all.forEach(function (r) {
      r.classList.remove("at");
    });
    all[next].classList.add("at");
    all[next].scrollIntoView({ block: "nearest" });
    all[next].querySelector("a.row-link").focus({ preventScroll: true });
  }

  var waitingForPage = false;
  document.addEventListener("keydown", function (e) {
    if (e.ctrlKey || e.metaKey || e.altKey || typing(e.target)) {
      return;
    }
    if (waitingForPage) {
      waitingForPage = false;
      var tab = document.querySelector('[data-go="' + CSS.escape(e.key) + '"]');
      if (tab) {
        e.preventDefault();
        tab.click();
      }
      return;
    }
    if (e.key === "j") {
      move(1);
    } else if (e.key === "k") {
      move(-1);
    } else if (e.key === "g") {
      waitingForPage = true;
      setTimeout(function () {
        waitingForPage = false;
      }, 1500);
    } else if (e.key === "/") {
      var f = document.querySelector("[data-filter]");
      if (f) {
        e.preventDefault();
        f.focus();
      }
    } else if (e.key === "?") {
      var h = document.getElementById("help-button");
      if (h) {
        h.click();
      }
    } else if (e.key === "n" || e.key === "e") {
      var a = document.querySelector('[data-key="' + e.key + '"]');
      if (a) {
        e.preventDefault();
        a.click();
      }
    }
  });

  document.addEventListener("input", function (e) {
    var target = e.target.getAttribute && e.target.getAttribute("data-filter");
    if (!target) {
      return;
    }
    var words = e.target.value.toLowerCase().split(/\s+/).filter(Boolean);
    document.querySelectorAll(target + " tbody tr").forEach(function (r) {
      var text = r.textContent.toLowerCase();
      r.hidden = !words.every(function (w) {
        return text.indexOf(w) >= 0;
      });
    });
  });

  document.addEventListener("click", function (e) {
    var th = e.target.closest && e.target.closest("th[data-sort]");
    if (!th) {
      return;
    }
    var table = th.closest("table"),
      body = table.tBodies[0],
      index = th.cellIndex;
    var down = th.getAttribute("aria-sort") !== "ascending";
    table.querySelectorAll("th[aria-sort]").forEach(function (o) {
      o.removeAttribute("aria-sort");
    });
    th.setAttribute("aria-sort", down ? "ascending" : "descending");
    var key = function (r) {
      var c = r.cells[index];
      var v = c.getAttribute("data-value");
      return v === null ? c.textContent.trim().toLowerCase() : v;
    };
    Array.prototype.slice
      .call(body.rows)
      .sort(function (a, b) {
        var x = key(a),
          y = key(b),
          n = parseFloat(x) - parseFloat(y);
        var order = isNaN(n) || /[^0-9.eE+-]/.test(x + y) ? (x < y ? -1 : x > y ? 1 : 0) : n;
        return down ? order : -order;
      })
      .forEach(function (r) {
        body.appendChild(r);
      });
  });

  // an address that names a finding opens it
  function openNamed() {
    var named = location.hash && document.getElementById(location.hash.slice(1));
    for (var d = named; d; d = d.parentElement) {
      if (d.tagName === "DETAILS") {
        d.open = true;
      }
    }
    if (named) {
      named.scrollIntoView({ block: "center" });
    }
  }
  window.addEventListener("hashchange", openNamed);
  document.addEventListener("DOMContentLoaded", openNamed);

  // forms that must not be sent by accident
  document.addEventListener("submit", function (e) {
    var ask = e.target.getAttribute("data-ask");
    if (ask && !window.confirm(ask)) {
      e.preventDefault();
    }
  });
})();

/* Where a map looks first: at the sites on file, and at the whole world while there are none. */
function firstView(map, place) {
  var v = (place.getAttribute("data-view") || "").split(",").map(Number);
  if (v.length === 4) {
    map.fitBounds(
      [
        [v[0], v[1]],
        [v[2], v[3]],
      ],
      { maxZoom: 12, padding: [40, 40] },
    );
  } else {
    map.setView([15, 0], 2);
  }
}
