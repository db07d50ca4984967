// Draws a flight: the trace on the map and strips below, with one cursor. Figures are the server's.
(function () {
  "use strict";
  var place = document.getElementById("flight-map");
  if (!place) {
    return;
  }
  function css(name) {
    return getComputedStyle(document.documentElement).getPropertyValue(name).trim();
  }
  var id = place.dataset.flight;
  Promise.all([
    fetch("/flights/" + id + "/drawing.json").then(function (r) {
      return r.json();
    }),
    fetch("/airspace/scenery.json").then(function (r) {
      return r.json();
    }),
  ]).then(function (both) {
    var d = both[0],
      ground = both[1];
    var map = L.map(place, { attributionControl: false, preferCanvas: true });
    firstView(map, place);
    L.control.scale({ imperial: false }).addTo(map);
    var north = document.getElementById("north");
    if (north) {
      place.appendChild(north);
      north.removeAttribute("hidden");
    }
    map.createPane("ground").style.zIndex = 340;
    ground.scenery.forEach(function (f) {
      if (f.properties.kind === "land") {
        L.geoJSON(f, {
          pane: "ground",
          interactive: false,
          style: { color: css("--rule-strong"), weight: 1.4, fillColor: css("--sheet"), fillOpacity: 1 },
        }).addTo(map);
      }
    });
    // zones in sight of the flight, drawn under its trace
    var under = L.layerGroup().addTo(map);
    map.createPane("zones").style.zIndex = 350;
    function zones(bounds) {
      var box = [bounds.getSouth(), bounds.getWest(), bounds.getNorth(), bounds.getEast()]
        .map(function (v) {
          return v.toFixed(6);
        })
        .join(",");
      fetch("/airspace/zones.json?box=" + box, { credentials: "same-origin" })
        .then(function (r) {
          return r.json();
        })
        .then(function (z) {
          under.clearLayers();
          (z.zones || []).forEach(function (z) {
            L.polygon(z.patches, {
              pane: "zones",
              color: z.restriction === "PROHIBITED" ? css("--signal") : css("--ink"),
              weight: 1.3,
              dashArray: "6 4",
              fillOpacity: 0.06,
            })
              .addTo(under)
              .bindTooltip(z.name + ", " + z.heights, { sticky: true });
          });
        });
    }

    var colours = [css("--bar"), css("--bar-soft"), css("--signal")],
      weights = [3, 3, 5];
    var run = [],
      standing = null,
      bounds = [];
    function flush() {
      if (run.length > 1) {
        L.polyline(run, { color: colours[standing], weight: weights[standing], lineCap: "butt", interactive: false }).addTo(map);
      }
    }
    d.seconds.forEach(function (t, i) {
      if (d.latitude[i] === null) {
        return;
      }
      var p = [d.latitude[i], d.longitude[i]];
      bounds.push(p);
      if (d.standing[i] !== standing) {
        run.push(p);
        flush();
        run = [p];
        standing = d.standing[i];
      } else {
        run.push(p);
      }
    });
    flush();
    var dot = null;
    if (bounds.length) {
      L.circleMarker(bounds[0], { radius: 5, color: css("--ink"), fillColor: css("--sheet"), fillOpacity: 1, weight: 2 })
        .addTo(map)
        .bindTooltip("take-off");
      map.fitBounds(L.latLngBounds(bounds).pad(0.25), { maxZoom: 18 });
      zones(map.getBounds().pad(1));
      dot = L.circleMarker(bounds[0], { radius: 6, color: css("--ink"), weight: 2.5, fillOpacity: 0 }).addTo(map);
    }

    var clock = document.getElementById("cursor-clock"),
      start = Date.parse(d.start);
    var shown = null,
      exact = null;
    function at(i) {
      if (i === null || i === undefined) {
        return;
      }
      shown = i;
      exact = d.seconds[i];
      clock.textContent =
        new Date(start + d.seconds[i] * 1000).toISOString().slice(11, 21) +
        " UTC, " +
        (d.seconds[i] - d.takeoffS).toFixed(1) +
        " s after take-off";
      if (dot && d.latitude[i] !== null) {
        dot.setLatLng([d.latitude[i], d.longitude[i]]);
      }
      if (otherDot && d.beside && d.beside.latitude[i] !== null) {
        otherDot.setLatLng([d.beside.latitude[i], d.beside.longitude[i]]);
      }
      document.dispatchEvent(new CustomEvent("yarrek:moment", { detail: d.seconds[i] }));
      Object.keys(d.strips).forEach(function (k) {
        var out = document.getElementById("strip-value-" + k);
        if (out) {
          out.textContent = d.strips[k].curves
            .map(function (c) {
              var v = c.values[i];
              return (c.name + " " + (v === null ? "–" : (Math.abs(v) < 0.05 ? 0 : v).toFixed(d.strips[k].more ? 2 : 1))).trim();
            })
            .join("  ")
            .concat(" ", d.strips[k].unit);
        }
      });
    }
    var host = document.getElementById("strips"),
      charts = [],
      byStrip = {},
      whole = d,
      other = "",
      otherDot = null,
      sync = uPlot.sync("flight");
    function breachPlugin() {
      return {
        hooks: {
          drawAxes: function (u) {
            u.ctx.save();
            u.ctx.fillStyle = css("--signal-wash");
            d.bands.forEach(function (b) {
              var x0 = u.valToPos(b.fromS, "x", true),
                x1 = u.valToPos(b.toS, "x", true);
              u.ctx.fillRect(x0, u.bbox.top, Math.max(2, x1 - x0), u.bbox.height);
            });
            u.ctx.strokeStyle = css("--rule-strong");
            u.ctx.setLineDash([2, 4]);
            [d.takeoffS, d.landingS].forEach(function (s) {
              var x = u.valToPos(s, "x", true);
              u.ctx.beginPath();
              u.ctx.moveTo(x, u.bbox.top);
              u.ctx.lineTo(x, u.bbox.top + u.bbox.height);
              u.ctx.stroke();
            });
            u.ctx.restore();
          },
          draw: function (u) {
            u.ctx.save();
            d.marks.forEach(function (m) {
              var x = u.valToPos(m.atS, "x", true);
              u.ctx.fillStyle = /warn|err|crit/i.test(m.level) ? css("--signal") : css("--soft");
              u.ctx.fillRect(x - 1, u.bbox.top, 2, 7);
            });
            u.ctx.restore();
          },
        },
      };
    }
    // several curves of one strip differ by how they are broken, and by name beside the figure
    var dashes = [[], [7, 3], [2, 3], [8, 3, 2, 3], [4, 4], [1, 4], [10, 4], [3, 2, 1, 2], [6, 2], [2, 6], [5, 1], [1, 2]];
    function figures(k) {
      var s = d.strips[k],
        data = [d.seconds];
      s.curves.forEach(function (c) {
        data.push(c.values);
      });
      if (s.limit !== null) {
        data.push(
          d.seconds.map(function () {
            return s.limit;
          }),
        );
      }
      return data;
    }
    // all strips show the same stretch; one other than what was drawn is asked for with more of its points
    var seen = { from: whole.seconds[0], to: whole.seconds[whole.seconds.length - 1] },
      wait = null,
      asked = 0,
      held = null;
    function zoomed(u) {
      var from = u.scales.x.min,
        to = u.scales.x.max;
      if (typeof from !== "number" || (Math.abs(from - seen.from) < 1e-6 && Math.abs(to - seen.to) < 1e-6)) {
        return;
      }
      seen = { from: from, to: to };
      charts.forEach(function (c) {
        if (c !== u) {
          c.setScale("x", { min: from, max: to });
        }
      });
      clearTimeout(wait);
      wait = setTimeout(stretch, 150);
    }
    function stretch() {
      var mine = ++asked,
        all = seen.from <= whole.seconds[0] && seen.to >= whole.seconds[whole.seconds.length - 1];
      if (all && !other) {
        take(whole);
        return;
      }
      fetch(
        "/flights/" +
          id +
          "/drawing.json?" +
          (all ? "" : "from=" + seen.from + "&to=" + seen.to) +
          (other ? "&with=" + other : ""),
      )
        .then(function (r) {
          return r.json();
        })
        .then(function (part) {
          if (mine === asked) {
            take(part);
          }
        });
    }
    function take(part) {
      var t = held === null ? exact : held;
      d = part;
      Object.keys(byStrip).forEach(function (k) {
        var c = charts[byStrip[k]],
          s = d.strips[k];
        while (c.series.length > figures(k).length) {
          c.delSeries(c.series.length - 1 - (s.limit !== null ? 1 : 0));
        }
        while (c.series.length < figures(k).length) {
          c.addSeries(
            { stroke: css("--soft"), width: 1.4, dash: [2, 3], points: { show: false }, spanGaps: false },
            c.series.length - (s.limit !== null ? 1 : 0),
          );
        }
        c.setData(figures(k), false);
        c.setScale("x", { min: seen.from, max: seen.to });
      });
      held = null;
      if (otherDot) {
        otherDot.remove();
        otherDot = null;
      }
      if (d.beside && bounds.length) {
        otherDot = L.circleMarker(bounds[0], { radius: 5, color: css("--soft"), weight: 2.5, dashArray: "2 3", fillOpacity: 0 })
          .addTo(map)
          .bindTooltip(d.beside.name);
      }
      moveTo(t);
    }
    function moveTo(t) {
      var lo = 0,
        hi = d.seconds.length - 1;
      while (lo < hi) {
        var mid = (lo + hi) >> 1;
        if (d.seconds[mid] < t) {
          lo = mid + 1;
        } else {
          hi = mid;
        }
      }
      charts.forEach(function (c) {
        c.setCursor({ left: c.valToPos(d.seconds[lo], "x"), top: 10 }, false);
      });
      at(lo);
      exact = t;
    }
    // the cursor stays at its moment, not at its place on the screen
    function zoom(from, to) {
      held = exact;
      charts[0].setScale("x", { min: from, max: to });
    }
    function draw(k, n, host) {
      var s = d.strips[k],
        box = document.createElement("div");
      box.className = "strip";
      box.innerHTML = '<div class="strip-head"><span></span><span class="fig" id="strip-value-' + k + '"></span></div>';
      box.querySelector("span").textContent =
        s.label + (s.unit ? " (" + s.unit + ")" : "") + (s.limit !== null ? ", limit " + s.limit + " " + s.unit : "");
      box.setAttribute("role", "group");
      box.setAttribute("aria-label", s.heard);
      host.appendChild(box);
      var data = figures(k),
        series = [{}];
      s.curves.forEach(function (c, j) {
        series.push({ stroke: css("--bar"), width: 1.6, dash: dashes[j], points: { show: false }, spanGaps: false });
      });
      if (s.limit !== null) {
        series.push({ stroke: css("--signal"), width: 1.2, dash: [6, 4], points: { show: false } });
      }
      var font = '11px "Barlow Semi Condensed"';
      byStrip[k] = charts.length;
      charts.push(
        new uPlot(
          {
            width: host.clientWidth,
            height: n === 0 ? 120 : 84,
            scales: { x: { time: false } },
            series: series,
            plugins: [breachPlugin()],
            axes: [
              {
                stroke: css("--soft"),
                font: font,
                grid: { stroke: css("--rule"), width: 1 },
                size: 30,
                values: function (u, v) {
                  return v.map(function (x) {
                    return x + " s";
                  });
                },
              },
              { stroke: css("--soft"), font: font, grid: { stroke: css("--rule"), width: 1 }, size: 40 },
            ],
            cursor: { sync: { key: sync.key }, y: false },
            legend: { show: false },
            hooks: {
              setCursor: [
                function (u) {
                  if (held === null) {
                    at(u.cursor.idx);
                  }
                },
              ],
              setScale: [
                function (u, key) {
                  if (key === "x") {
                    zoomed(u);
                  }
                },
              ],
            },
          },
          data,
          box,
        ),
      );
    }
    var keys = Object.keys(d.strips),
      more = document.getElementById("more-strips");
    keys
      .filter(function (k) {
        return !d.strips[k].more;
      })
      .forEach(function (k, n) {
        draw(k, n, host);
      });
    var later = keys.filter(function (k) {
      return d.strips[k].more;
    });
    if (more && later.length) {
      more.hidden = false;
      more.addEventListener(
        "toggle",
        function () {
          later.forEach(function (k) {
            draw(k, 1, more.querySelector("div"));
          });
          at(shown);
        },
        { once: true },
      );
    }
    at(
      Math.max(
        0,
        d.seconds.findIndex(function (s) {
          return s >= d.takeoffS;
        }),
      ),
    );
    window.addEventListener("resize", function () {
      charts.forEach(function (c) {
        c.setSize({ width: host.clientWidth, height: c.height });
      });
    });
    document.addEventListener("yarrek:theme", function () {
      window.location.reload();
    });

    document.dispatchEvent(
      new CustomEvent("yarrek:flight", {
        detail: {
          whole: whole,
          at: function () {
            return exact;
          },
          moveTo: moveTo,
          zoom: zoom,
          beside: function (flight) {
            other = flight;
            stretch();
          },
        },
      }),
    );
    // the tables' moments move the cursor
    document.addEventListener("click", function (e) {
      var b = e.target.closest("[data-at]");
      if (b) {
        moveTo(parseFloat(b.dataset.at));
        place.scrollIntoView({ block: "nearest" });
      }
    });
    // whoever comes for one finding sees its worst moment at once
    var named = location.hash && document.getElementById(location.hash.slice(1));
    var moment = named && named.querySelector("[data-at]");
    if (moment) {
      moment.click();
    }
  });
})();
