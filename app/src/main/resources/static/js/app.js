// Moves and draws; every figure comes from the server.
(function () {
  "use strict";

  document.addEventListener("alpine:init", function () {
    Alpine.data("help", function () {
      return {
        toggle: function () {
          this.$refs.keys.showModal();
        },
        close: function () {
          this.$refs.keys.close();
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

  // on a narrow screen a table is read in lines, and each figure needs its name
  function label(root) {
    root.querySelectorAll("table.book-table").forEach(function (table) {
      if (!table.tHead || table.classList.contains("matrix")) {
        return;
      }
      var names = Array.prototype.map.call(table.tHead.rows[table.tHead.rows.length - 1].cells, function (c) {
        return c.querySelector(".visually-hidden") ? "" : c.textContent.trim();
      });
      Array.prototype.forEach.call(table.tBodies, function (body) {
        Array.prototype.forEach.call(body.rows, function (row) {
          Array.prototype.forEach.call(row.cells, function (cell, i) {
            var told = cell.querySelector(".st, a.row-link, form, .btn, details");
            if (
              !told &&
              names[i] &&
              !cell.matches(".rest, .by") &&
              row.cells.length === names.length &&
              !cell.hasAttribute("data-label")
            ) {
              cell.setAttribute("data-label", names[i]);
            }
            if (cell.textContent.trim() === "" && !cell.querySelector("input, button, svg, img")) {
              cell.classList.add("blank");
            }
          });
        });
      });
    });
  }
  // columns that sort do so from the keyboard too
  function sortable(root) {
    root.querySelectorAll("th[data-sort]:not(:has(button))").forEach(function (th) {
      var b = document.createElement("button");
      b.type = "button";
      b.append.apply(b, th.childNodes);
      th.appendChild(b);
    });
  }
  document.addEventListener("DOMContentLoaded", function () {
    label(document);
    sortable(document);
    var bad = document.querySelector("main .bad-note[role=alert]");
    var form = document.querySelector("form#main-form");
    if (bad && form) {
      bad.tabIndex = -1;
      bad.focus();
    } else if (form && !location.hash) {
      var first = form.querySelector("input:not([type=hidden]), select, textarea");
      if (first && window.matchMedia("(pointer: fine)").matches) {
        first.focus({ preventScroll: true });
      }
    }
  });
  // a part that was on its way has come: said once, and read like the rest
  document.addEventListener("htmx:beforeRequest", function (e) {
    e.target.setAttribute("aria-busy", "true");
  });
  document.addEventListener("htmx:afterSettle", function (e) {
    label(e.target);
    sortable(e.target);
    e.target.removeAttribute("aria-busy");
    var says = document.getElementById("came");
    var name = e.target.closest("section") && e.target.closest("section").querySelector("h2");
    if (says && name) {
      says.textContent = name.textContent.trim() + ": there now";
    }
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
    } else if (e.key === "e" && document.querySelector("tr.at a[data-edit]")) {
      e.preventDefault();
      location.href = document.querySelector("tr.at a[data-edit]").getAttribute("href") + "/edit";
    } else if (e.key === "n" || e.key === "e") {
      var a = document.querySelector('[data-key="' + e.key + '"]');
      if (a) {
        e.preventDefault();
        a.click();
      }
    }
  });

  // out of a filter: Escape clears it, then leaves; down goes to the first row
  document.addEventListener("keydown", function (e) {
    if (!e.target.hasAttribute || !e.target.hasAttribute("data-filter")) {
      return;
    }
    if (e.key === "Escape") {
      if (e.target.value === "") {
        e.target.blur();
      }
      e.target.value = "";
      e.target.dispatchEvent(new Event("input", { bubbles: true }));
      e.preventDefault();
    } else if (e.key === "ArrowDown" || (e.key === "Enter" && !e.target.form)) {
      e.preventDefault();
      e.target.blur();
      move(1);
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
    if (location.hash === "#worst") {
      var worst = document.querySelector(".rung .st-notch");
      var rung = worst && worst.closest(".rung");
      if (rung && rung.id) {
        location.replace("#" + rung.id);
      }
      return;
    }
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

  // what is wanted in the field is kept on the phone before anybody goes there: the report, the next card, the papers
  var AHEAD_MS = 600000;
  function addressesOf(page) {
    return fetch(page, { credentials: "same-origin" })
      .then(function (r) {
        if (!r.ok || r.redirected) {
          throw new Error(page);
        }
        return r.text();
      })
      .then(function (html) {
        var read = new DOMParser().parseFromString(html, "text/html");
        return Array.prototype.map
          .call(read.querySelectorAll("link[href], script[src], img[src]"), function (e) {
            return e.getAttribute("href") || e.getAttribute("src");
          })
          .concat(page);
      });
  }
  function keepAhead() {
    var pages = Array.prototype.map.call(document.querySelectorAll("a[data-ahead]"), function (a) {
      return a.pathname;
    });
    var last = Number(sessionStorage.getItem("yarrek-ahead") || 0);
    if (!("serviceWorker" in navigator) || !window.matchMedia("(max-width: 50rem)").matches || Date.now() - last < AHEAD_MS) {
      return;
    }
    navigator.serviceWorker
      .register("/field/sw.js", { scope: "/field/" })
      .then(function (r) {
        var worker = r.active || r.waiting || r.installing;
        return pages.reduce(function (before, page) {
          return before.then(function () {
            return addressesOf(page).then(function (all) {
              worker.postMessage({ keep: all, page: page });
            });
          });
        }, Promise.resolve());
      })
      .then(function () {
        sessionStorage.setItem("yarrek-ahead", String(Date.now()));
        document.documentElement.setAttribute("data-ahead", "kept");
      })
      .catch(function () {
        /* tried again with the next page */
      });
  }
  window.addEventListener("load", keepAhead);

  // a file dropped on its frame, or chosen in it, is sent at once
  document.addEventListener("dragover", function (e) {
    var form = e.target.closest && e.target.closest("form[data-drop]");
    if (form) {
      e.preventDefault();
      form.classList.add("over");
    }
  });
  document.addEventListener("dragleave", function (e) {
    var form = e.target.closest && e.target.closest("form[data-drop]");
    if (form) {
      form.classList.remove("over");
    }
  });
  document.addEventListener("drop", function (e) {
    var form = e.target.closest && e.target.closest("form[data-drop]");
    if (form && e.dataTransfer.files.length) {
      e.preventDefault();
      form.querySelector("input[type=file]").files = e.dataTransfer.files;
      form.requestSubmit();
    }
  });
  document.addEventListener("change", function (e) {
    var form = e.target.type === "file" && e.target.closest("form[data-drop]");
    if (form && e.target.files.length) {
      form.classList.add("over");
      form.requestSubmit();
    }
  });

  // forms that must not be sent by accident
  document.addEventListener("submit", function (e) {
    var ask = e.target.getAttribute("data-ask");
    if (ask && !window.confirm(ask)) {
      e.preventDefault();
      return;
    }
    // a step that takes long says so and is not pressed twice
    var wait = e.target.getAttribute("data-wait");
    if (wait) {
      var button = e.target.querySelector("button");
      button.disabled = true;
      button.textContent = wait;
      document.getElementById("came").textContent = wait;
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
