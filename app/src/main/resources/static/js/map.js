// The map without tiles: coast, sites, and the zones in sight. Draws only; what is in sight and in force is told by the server.
(function () {
  "use strict";
  var place = document.getElementById("map");
  var form = document.getElementById("map-form");
  if (!place || !form || !window.L) {
    return;
  }
  function css(name) {
    return getComputedStyle(document.documentElement).getPropertyValue(name).trim();
  }

  var map = L.map(place, { attributionControl: false, zoomControl: true });
  firstView(map, place);
  L.control.scale({ imperial: false }).addTo(map);
  var north = document.getElementById("north");
  if (north) {
    place.appendChild(north);
    north.removeAttribute("hidden");
  }
  var coast = L.layerGroup().addTo(map),
    zones = L.layerGroup().addTo(map),
    sites = L.layerGroup().addTo(map);
  var told = document.getElementById("map-told"),
    listed = document.getElementById("in-sight");

  function query() {
    var b = map.getBounds();
    var q = new URLSearchParams(new FormData(form));
    if (!q.get("kind")) {
      q.delete("kind");
    }
    q.set(
      "box",
      [b.getSouth(), b.getWest(), b.getNorth(), b.getEast()]
        .map(function (v) {
          return v.toFixed(6);
        })
        .join(","),
    );
    return q;
  }
  var PATTERN = {
    PROHIBITED: "prohibited",
    NEEDS_AUTHORISATION: "authorisation",
    CONDITIONAL: "conditional",
    NO_RESTRICTION: "free",
  };
  var asked = 0,
    list;
  function look() {
    var mine = ++asked,
      q = query();
    fetch("/airspace/zones.json?" + q, { credentials: "same-origin" })
      .then(function (r) {
        return r.json();
      })
      .then(function (data) {
        if (mine !== asked) {
          return;
        }
        if (data.problem) {
          told.textContent = data.problem;
          return;
        }
        zones.clearLayers();
        data.zones.forEach(function (z) {
          L.polygon(z.patches, {
            className: "zn zn-" + (z.kind === "MAKER" ? "maker" : PATTERN[z.restriction]),
            fillOpacity: 1,
            weight: z.restriction === "PROHIBITED" ? 2 : 1.2,
          })
            .bindTooltip(z.name + " (" + z.kindWords + "), " + z.heights + ", " + z.when + (z.message ? ": " + z.message : ""), {
              sticky: true,
            })
            .addTo(zones);
        });
        told.textContent =
          data.inSight > data.drawn
            ? "the largest " + data.drawn + " of " + data.inSight + " zones in sight are drawn"
            : data.inSight + " zones in sight";
        place.setAttribute("data-drawn", String(data.drawn));
      });
    clearTimeout(list);
    list = setTimeout(function () {
      htmx.ajax("GET", "/airspace/in-sight?" + q, { source: listed, target: listed, swap: "innerHTML" });
    }, 250);
  }
  map.on("moveend", look);
  form.addEventListener("submit", function (e) {
    e.preventDefault();
    look();
  });
  form.addEventListener("change", look);

  fetch("/airspace/scenery.json", { credentials: "same-origin" })
    .then(function (r) {
      return r.json();
    })
    .then(function (data) {
      data.scenery.forEach(function (f) {
        var kind = f.properties.kind;
        L.geoJSON(f, {
          interactive: false,
          style:
            kind === "land"
              ? { color: css("--rule-strong"), weight: 1.4, fillColor: css("--sheet"), fillOpacity: 1 }
              : { color: css("--ink"), weight: 2, fillOpacity: 0 },
          pointToLayer: function (p, at) {
            return L.circleMarker(at, { radius: 1, opacity: 0 });
          },
        })
          .addTo(coast)
          .eachLayer(function (l) {
            if (f.properties.name) {
              l.bindTooltip(f.properties.name, { permanent: true, direction: "center", className: "map-name" });
            }
          });
      });
      var all = [];
      data.sites.forEach(function (s) {
        var p = L.polygon(s.patches, { color: css("--bar"), weight: 2.4, fillColor: css("--bar"), fillOpacity: 0.2 }).addTo(
          sites,
        );
        L.circleMarker(s.launch, { radius: 4, color: css("--bar"), fillOpacity: 1 }).addTo(sites);
        p.bindTooltip(s.name, { sticky: true });
        p.on("click", function () {
          window.location = "/airspace/sites/" + s.id;
        });
        all.push(p);
      });
      if (all.length) {
        map.fitBounds(L.featureGroup(all).getBounds().pad(0.15));
      } else {
        look();
      }
    });
})();
