// Drawing a site. The fields of the form are what is kept; the map writes into them and draws what the server reads in them.
// Lengths, areas and faults come from the server.
(function () {
  "use strict";
  var place = document.getElementById("map");
  if (!place || !window.L) {
    return;
  }
  function css(name) {
    return getComputedStyle(document.documentElement).getPropertyValue(name).trim();
  }
  var token = JSON.parse(document.body.getAttribute("hx-headers") || "{}");
  var map = L.map(place, { attributionControl: false, keyboard: true, keyboardPanDelta: 25, doubleClickZoom: false });
  firstView(map, place);
  L.control.scale({ imperial: false }).addTo(map);
  ["north", "cross"].forEach(function (id) {
    var e = document.getElementById(id);
    if (e) {
      place.appendChild(e);
      e.removeAttribute("hidden");
    }
  });
  var area = document.getElementById("f-area"),
    launch = document.getElementById("f-launch");
  var measured = document.getElementById("measured"),
    mend = document.getElementById("mend");
  var under = L.layerGroup().addTo(map),
    shapes = L.layerGroup().addTo(map),
    handles = L.layerGroup().addTo(map);
  var known = new Map(),
    target = area;
  var readings = new Map(); // what a text was read as, so that undoing draws at once
  function keep(f, d) {
    known.set(f, d);
    readings.set(as(f) + f.value.trim(), d);
  }

  // --- fields ------------------------------------------------------------------------------------------------------
  function rowsNow() {
    return Array.prototype.slice.call(document.querySelectorAll(".editor .thing .shape-text")).filter(function (i) {
      return !i.closest("template");
    });
  }
  function fields() {
    return [area, launch].concat(rowsNow());
  }
  function as(f) {
    return f === area ? "area" : f === launch ? "launch" : "shape";
  }
  function snapshot() {
    return JSON.stringify(
      fields().map(function (f) {
        return f.value;
      }),
    );
  }
  var past = [snapshot()],
    future = [];
  function remember() {
    var now = snapshot();
    if (now !== past[past.length - 1]) {
      past.push(now);
      future = [];
    }
    buttons();
  }
  function restore(text) {
    var values = JSON.parse(text);
    fields().forEach(function (f, i) {
      if (values[i] !== undefined) {
        f.value = values[i];
      }
      var d = readings.get(as(f) + f.value.trim());
      if (d) {
        known.set(f, d);
      }
    });
    draw();
    readAll();
  }
  function undo() {
    if (past.length > 1) {
      future.push(past.pop());
      restore(past[past.length - 1]);
      buttons();
    }
  }
  function redo() {
    if (future.length) {
      past.push(future.pop());
      restore(past[past.length - 1]);
      buttons();
    }
  }
  function buttons() {
    document.querySelector("[data-do=undo]").disabled = past.length < 2;
    document.querySelector("[data-do=redo]").disabled = !future.length;
    document.querySelectorAll("[data-draw]").forEach(function (b) {
      b.setAttribute("aria-pressed", String(fieldOf(b) === target));
    });
  }
  function fieldOf(b) {
    return b.dataset.draw === "launch"
      ? launch
      : b.dataset.draw === "area"
        ? area
        : b.closest(".thing").querySelector(".shape-text");
  }

  // --- reading what stands in a field --------------------------------------------------------------------------------
  function read(f) {
    var text = f.value.trim();
    if (!text) {
      keep(f, { points: [], patches: [] });
      draw();
      return Promise.resolve();
    }
    var body = new URLSearchParams({ text: text, as: as(f), launch: launch.value });
    return fetch("/airspace/shape", {
      method: "POST",
      credentials: "same-origin",
      headers: Object.assign({ "Content-Type": "application/x-www-form-urlencoded" }, token),
      body: body,
    })
      .then(function (r) {
        return r.json();
      })
      .then(function (d) {
        if (f.value.trim() !== text) {
          return;
        }
        keep(f, d);
        f.classList.toggle("unread", Boolean(d.problem));
        if (f === target) {
          tell(d);
        }
        draw();
      });
  }
  function tell(d) {
    measured.textContent = d.problem ? d.problem : d.figures ? d.figures : d.written ? d.written.join("   ") : "";
    measured.classList.toggle("signal", Boolean(d.problem));
    mend.hidden = !d.mended;
    if (d.mended) {
      document.getElementById("mend-words").textContent = d.problem + "; " + d.mended.words + ".";
      mend.dataset.text = d.mended.text;
    }
  }
  document.getElementById("mend-it").addEventListener("click", function () {
    area.value = mend.dataset.text;
    remember();
    read(area);
  });
  function readAll() {
    return Promise.all(fields().map(read));
  }

  // --- shapes as rings -------------------------------------------------------------------------------------------------
  // [{hole, points: [[lat, lon]]}]; a point or a line is one ring
  function rings(f) {
    var d = known.get(f) || {},
      all = [];
    (d.patches || []).forEach(function (p) {
      p.forEach(function (r, i) {
        all.push({ hole: i > 0, points: r.slice() });
      });
    });
    if (!all.length && d.points) {
      all.push({ hole: false, points: d.points.slice() });
    }
    return all;
  }
  function isArea(f) {
    return f === area || /^\s*(area|circle)/i.test(f.value);
  }
  function write(f, all) {
    var text = all
      .filter(function (r) {
        return r.points.length;
      })
      .map(function (r) {
        return (
          (r.hole ? "hole " : "") +
          r.points
            .map(function (p) {
              return p[0].toFixed(6) + ", " + p[1].toFixed(6);
            })
            .join("; ")
        );
      })
      .join("\n\n");
    f.value = f === area || f === launch || !isArea(f) ? text : "area " + text;
    if (f.tagName === "INPUT") {
      f.value = f.value.replace(/\n+/g, " ");
    }
    // shown at once as it was drawn; the server's reading follows
    keep(f, isArea(f) ? { patches: patchesOf(all) } : { points: all[0] ? all[0].points : [] });
    remember();
    draw();
    read(f);
  }
  function patchesOf(all) {
    var p = [];
    all.forEach(function (r) {
      if (r.hole && p.length) {
        p[p.length - 1].push(r.points);
      } else {
        p.push([r.points]);
      }
    });
    return p;
  }

  var openRing = null; // begun but without corners yet
  function addCorner(latlng) {
    var p = snapped(latlng);
    if (target === launch) {
      write(launch, [{ points: [p] }]);
      return;
    }
    var all = rings(target);
    if (openRing) {
      all.push({ hole: openRing === "hole", points: [] });
      openRing = null;
    }
    if (!all.length) {
      all.push({ hole: false, points: [] });
    }
    var kind = target.closest(".thing");
    if (kind && !isArea(target) && pointOnly(kind)) {
      all = [{ points: [] }];
    }
    all[all.length - 1].points.push(p);
    write(target, all);
  }
  function pointOnly(row) {
    return /^(ALTERNATE|EMITTER)$/.test(row.querySelector('[name="feature.kind"]').value);
  }
  function cornerBack() {
    var all = rings(target);
    if (all.length) {
      all[all.length - 1].points.pop();
      if (!all[all.length - 1].points.length) {
        all.pop();
      }
      write(target, all);
    }
  }
  // to the nearest corner of anything drawn within ten pixels
  function snapped(latlng) {
    var at = map.latLngToContainerPoint(latlng),
      best = null,
      near = 10;
    fields().forEach(function (f) {
      rings(f).forEach(function (r) {
        r.points.forEach(function (p) {
          var d = at.distanceTo(map.latLngToContainerPoint(p));
          if (d < near) {
            near = d;
            best = p;
          }
        });
      });
    });
    return best ? best.slice() : [latlng.lat, latlng.lng];
  }

  // --- drawing ---------------------------------------------------------------------------------------------------------
  function draw() {
    shapes.clearLayers();
    handles.clearLayers();
    fields().forEach(function (f) {
      var d = known.get(f) || {},
        on = f === target,
        style = {
          color: on ? css("--signal") : f === area ? css("--bar") : css("--ink"),
          weight: on ? 2.6 : 1.8,
          fillOpacity: f === area ? 0.14 : 0.05,
        };
      var name =
        f === area ? "flight area" : f === launch ? "launch" : f.closest(".thing").querySelector('[name="feature.name"]').value;
      var layer = null;
      if (d.patches && d.patches.length) {
        layer = L.polygon(d.patches, style);
      } else if (d.points && d.points.length === 1) {
        layer = L.circleMarker(d.points[0], Object.assign({ radius: f === launch ? 7 : 5 }, style, { fillOpacity: 0.9 }));
      } else if (d.points && d.points.length > 1) {
        layer = L.polyline(d.points, style);
      }
      if (layer) {
        if (name) {
          layer.bindTooltip(name, { sticky: true });
        }
        layer.addTo(shapes);
      }
    });
    if (
      rings(target).reduce(function (n, r) {
        return n + r.points.length;
      }, 0) <= 400
    ) {
      hold();
    }
  }
  function hold() {
    rings(target).forEach(function (r, i) {
      r.points.forEach(function (p, j) {
        var m = L.marker(p, { draggable: true, keyboard: false, icon: L.divIcon({ className: "corner", iconSize: [14, 14] }) });
        m.on("dragend", function () {
          var all = rings(target);
          m.setOpacity(0);
          all[i].points[j] = snapped(m.getLatLng());
          write(target, all);
        });
        m.on("contextmenu", function () {
          var all = rings(target);
          all[i].points.splice(j, 1);
          write(target, all);
        });
        m.addTo(handles);
        var next = r.points[(j + 1) % r.points.length];
        if (r.points.length > 1 && (isArea(target) || j + 1 < r.points.length)) {
          var half = L.marker([(p[0] + next[0]) / 2, (p[1] + next[1]) / 2], {
            keyboard: false,
            icon: L.divIcon({ className: "corner half", iconSize: [10, 10] }),
          });
          half.on("click", function (e) {
            L.DomEvent.stop(e);
            var all = rings(target);
            all[i].points.splice(j + 1, 0, [half.getLatLng().lat, half.getLatLng().lng]);
            write(target, all);
          });
          half.addTo(handles);
        }
      });
    });
  }

  // --- hands -----------------------------------------------------------------------------------------------------------
  map.on("click", function (e) {
    addCorner(e.latlng);
  });
  place.addEventListener("keydown", function (e) {
    if ((e.ctrlKey || e.metaKey) && e.key.toLowerCase() === "z") {
      e.preventDefault();
      if (e.shiftKey) {
        redo();
      } else {
        undo();
      }
    } else if ((e.ctrlKey || e.metaKey) && e.key.toLowerCase() === "y") {
      e.preventDefault();
      redo();
    } else if (e.key === "Enter") {
      e.preventDefault();
      addCorner(map.getCenter());
    } else if (e.key === "Backspace") {
      e.preventDefault();
      cornerBack();
    }
  });
  document.querySelector(".editor").addEventListener("click", function (e) {
    var b = e.target.closest("button");
    if (!b) {
      return;
    }
    if (b.dataset.draw) {
      target = fieldOf(b);
      openRing = null;
      buttons();
      tell(known.get(target) || {});
      draw();
      place.focus({ preventScroll: true });
    }
    if (b.dataset.do === "piece") {
      openRing = "piece";
    }
    if (b.dataset.do === "hole") {
      openRing = "hole";
    }
    if (b.dataset.do === "back") {
      cornerBack();
    }
    if (b.dataset.do === "undo") {
      undo();
    }
    if (b.dataset.do === "redo") {
      redo();
    }
    if (b.dataset.do === "add") {
      var row = document.getElementById("thing-row").content.firstElementChild.cloneNode(true);
      document.getElementById("things-end").before(row);
      target = row.querySelector(".shape-text");
      past.push(snapshot());
      buttons();
      row.querySelector("select").focus();
    }
    if (b.dataset.do === "drop") {
      var gone = b.closest(".thing");
      if (gone.contains(target)) {
        target = area;
      }
      gone.remove();
      past = [snapshot()];
      future = [];
      buttons();
      draw();
    }
  });
  document.addEventListener("change", function (e) {
    if (fields().indexOf(e.target) >= 0) {
      remember();
      read(e.target);
    }
  });

  fetch("/airspace/scenery.json", { credentials: "same-origin" })
    .then(function (r) {
      return r.json();
    })
    .then(function (data) {
      data.scenery.forEach(function (f) {
        L.geoJSON(f, {
          interactive: false,
          style:
            f.properties.kind === "land"
              ? { color: css("--rule-strong"), weight: 1.2, fillColor: css("--sheet"), fillOpacity: 1 }
              : { color: css("--ink"), weight: 1.6, fillOpacity: 0 },
          pointToLayer: function (p, at) {
            return L.circleMarker(at, { radius: 1, opacity: 0 });
          },
        }).addTo(under);
      });
      return readAll();
    })
    .then(function () {
      var all = [];
      shapes.eachLayer(function (l) {
        all.push(l);
      });
      // a launch point alone has no extent that a view could be fitted to
      if (all.length) {
        map.fitBounds(L.featureGroup(all).getBounds().pad(0.3), { maxZoom: 17 });
      } else if (under.getLayers().length) {
        map.fitBounds(L.featureGroup(under.getLayers()).getBounds());
      }
      tell(known.get(area) || {});
      place.setAttribute("data-ready", "yes");
    });
  buttons();
})();
