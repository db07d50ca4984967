// The map without tiles: coast, zones and sites as they are on file; drawing a site's area by clicking.
(function () {
  'use strict';
  var place = document.getElementById('map');
  if (!place || !window.L) { return; }
  function css(name) { return getComputedStyle(document.documentElement).getPropertyValue(name).trim(); }

  var map = L.map(place, { attributionControl: false, zoomControl: true, preferCanvas: false });
  map.setView([46.6, -17.9], 11);
  L.control.scale({ imperial: false }).addTo(map);
  var north = document.getElementById('north');
  if (north) { place.appendChild(north); north.removeAttribute('hidden'); }

  function zoneStyle(z) {
    var hard = z.restriction === 'PROHIBITED';
    return { color: hard ? css('--signal') : css('--ink'), weight: hard ? 2 : 1.3, dashArray: z.restriction === 'CONDITIONAL' ? '2 5' : z.restriction === 'NEEDS_AUTHORISATION' ? '8 4' : null, fillColor: hard ? css('--signal') : css('--rule-strong'), fillOpacity: hard ? 0.12 : 0.10 };
  }

  fetch('/airspace/map.json', { credentials: 'same-origin' }).then(function (r) { return r.json(); }).then(function (data) {
    var all = [];
    data.scenery.forEach(function (f) {
      var kind = f.properties.kind;
      L.geoJSON(f, { interactive: false, style: kind === 'land' ? { color: css('--rule-strong'), weight: 1.4, fillColor: css('--sheet'), fillOpacity: 1 } : { color: css('--ink'), weight: 2, fillOpacity: 0 }, pointToLayer: function (p, at) { return L.circleMarker(at, { radius: 1, opacity: 0 }); } })
        .addTo(map).eachLayer(function (l) { if (f.properties.name) { l.bindTooltip(f.properties.name, { permanent: true, direction: 'center', className: 'map-name' }); } });
    });
    data.zones.forEach(function (z) {
      var p = L.polygon(z.ring, zoneStyle(z)).addTo(map);
      p.bindTooltip(z.name + ', ' + z.heights + ': ' + z.message, { sticky: true });
      all.push(p);
    });
    data.sites.forEach(function (s) {
      var p = L.polygon(s.ring, { color: css('--bar'), weight: 2.4, fillColor: css('--bar'), fillOpacity: 0.18 }).addTo(map);
      L.circleMarker(s.launch, { radius: 4, color: css('--bar'), fillOpacity: 1 }).addTo(map);
      p.bindTooltip(s.name, { sticky: true });
      if (place.dataset.mode !== 'draw') { p.on('click', function () { window.location = '/airspace/sites/' + s.id; }); }
      all.push(p);
    });
    if (place.dataset.mode === 'draw') { draw(all); } else if (all.length) { map.fitBounds(L.featureGroup(all).getBounds().pad(0.05)); } else { map.setView([46.6, -17.9], 11); }
  });

  function draw(all) {
    var area = document.querySelector('[name=area]'), launch = document.querySelector('[name=launch]');
    var outline = L.polygon([], { color: css('--signal'), weight: 2.5, fillOpacity: 0.08 }).addTo(map);
    var point = null;
    function parse(text) { return text.split(/[;\n]/).map(function (c) { return c.trim().split(/[ ,]+/).map(Number); }).filter(function (c) { return c.length === 2 && isFinite(c[0]) && isFinite(c[1]); }); }
    function show() {
      var ring = parse(area.value), at = parse(launch.value)[0];
      outline.setLatLngs(ring);
      if (point) { point.remove(); point = null; }
      if (at) { point = L.circleMarker(at, { radius: 6, color: css('--signal'), fillOpacity: 1 }).addTo(map); }
      return ring;
    }
    function text(p) { return p.lat.toFixed(6) + ', ' + p.lng.toFixed(6); }
    var mode = 'launch';
    document.querySelectorAll('[data-draw]').forEach(function (b) {
      b.addEventListener('click', function () {
        mode = b.dataset.draw;
        if (mode === 'clear') { area.value = ''; mode = 'area'; show(); }
        if (mode === 'undo') { area.value = area.value.split(';').slice(0, -1).join(';').trim(); mode = 'area'; show(); }
        document.querySelectorAll('[data-draw]').forEach(function (o) { o.setAttribute('aria-pressed', String(o.dataset.draw === mode)); });
      });
    });
    map.on('click', function (e) {
      if (mode === 'launch') { launch.value = text(e.latlng); }
      else { area.value = (area.value.trim() ? area.value.trim().replace(/;$/, '') + '; ' : '') + text(e.latlng); }
      show();
    });
    area.addEventListener('input', show); launch.addEventListener('input', show);
    var ring = show();
    if (ring.length > 2) { map.fitBounds(outline.getBounds().pad(1.2)); } else if (all.length) { map.fitBounds(L.featureGroup(all).getBounds()); } else { map.setView([46.6, -17.9], 11); }
  }
})();
