// Field pages: from the network while there is one, else as kept.
'use strict';
var SHELF = 'yarrek-field-1';
self.addEventListener('install', function () { self.skipWaiting(); });
self.addEventListener('activate', function (e) { e.waitUntil(self.clients.claim()); });
self.addEventListener('message', function (e) {
  if (e.data.keep) {
    e.waitUntil(caches.open(SHELF).then(function (shelf) {
      return Promise.all(e.data.keep.map(function (a) {
        return fetch(a, { credentials: 'same-origin' }).then(function (r) { if (r.ok && !r.redirected) { return shelf.put(a, r); } throw new Error(a); });
      }));
    }).then(function () { e.source.postMessage({ kept: e.data.page }); }, function () { /* told by the page when it is asked for */ }));
  }
  if (e.data.forget) { e.waitUntil(caches.delete(SHELF).then(function () { e.source.postMessage({ forgotten: true }); })); }
});
self.addEventListener('fetch', function (e) {
  if (e.request.method !== 'GET') { return; }
  e.respondWith(fetch(e.request).then(function (r) {
    if (r.ok && !r.redirected && new URL(r.url).pathname.indexOf('/field/') === 0 && new URL(e.request.url).search === '') {
      var copy = r.clone();
      caches.open(SHELF).then(function (shelf) { shelf.put(new URL(e.request.url).pathname, copy); });
    }
    return r;
  }).catch(function () {
    return caches.match(new URL(e.request.url).pathname, { ignoreSearch: true }).then(function (kept) { return kept || Response.error(); });
  }));
});
