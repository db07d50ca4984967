// Field pages: what is kept is shown at once, the network comes after it. On one bar of signal nobody waits for it.
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
function tellAll(what) {
  return self.clients.matchAll().then(function (all) { all.forEach(function (c) { c.postMessage(what); }); });
}
// what is written anew with each answer is no news: tokens, and as of when
function said(page) {
  return page.replace(/<p class="caution">[\s\S]*?<\/p>/, '').replace(/(value|hx-headers)="[^"]*"/g, '');
}
// the kept copy is renewed behind the page; an answer that leads elsewhere, as to signing in, never takes its place
function renew(request, path) {
  return fetch(request).then(function (r) {
    if (!r.ok || r.redirected) { return tellAll({ notRenewed: path, signedOut: r.redirected }); }
    if (path.indexOf('/field/') !== 0) { return null; }
    var copy = r.clone();
    return caches.open(SHELF).then(function (shelf) {
      return shelf.match(path).then(function (old) {
        return Promise.all([old ? old.text() : '', copy.clone().text()]).then(function (both) {
          return shelf.put(path, copy).then(function () { return said(both[0]) === said(both[1]) ? null : tellAll({ newer: path }); });
        });
      });
    });
  }, function () { return tellAll({ notRenewed: path, signedOut: false }); });
}
self.addEventListener('fetch', function (e) {
  if (e.request.method !== 'GET') { return; }
  var address = new URL(e.request.url);
  if (address.origin !== self.location.origin) { return; }
  var path = address.pathname;
  var asked = address.search === '' || path.indexOf('/field/') !== 0;
  e.respondWith(caches.match(path, { ignoreSearch: true }).then(function (kept) {
    if (!kept) { return fetch(e.request); }
    if (asked) {
      if (e.request.mode === 'navigate') { e.waitUntil(renew(e.request, path)); }
      return kept;
    }
    return fetch(e.request).then(function (r) { return r.ok && !r.redirected ? r : kept; }, function () { return kept; });
  }));
});
