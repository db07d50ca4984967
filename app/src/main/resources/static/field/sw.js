// Field pages: what is kept is shown at once, the network comes after it. On one bar of signal nobody waits for it.
'use strict';
var SHELF = 'yarrek-field-1';
self.addEventListener('install', function () { self.skipWaiting(); });
self.addEventListener('activate', function (e) { e.waitUntil(self.clients.claim()); });
// what is written anew with each answer is no news: tokens, and as of when
function said(page) {
  return page.replace(/<p class="caution">[\s\S]*?<\/p>/, '').replace(/(value|hx-headers)="[^"]*"/g, '');
}
function text(answer) { return answer ? answer.clone().text() : Promise.resolve(null); }
// an answer that leads elsewhere, as to signing in, never takes the place of what is kept
function fetched(address) {
  return fetch(address, { credentials: 'same-origin' }).then(function (r) {
    if (r.redirected) { throw new Error('signed out'); }
    if (!r.ok) { throw new Error(address); }
    return r;
  });
}
// each page asks for this when it is open: it and what it needs are kept anew
function keep(shelf, page, addresses) {
  return Promise.all([shelf.match(page).then(text), Promise.all(addresses.map(fetched))]).then(function (both) {
    var old = both[0];
    return text(both[1][addresses.indexOf(page)]).then(function (now) {
      return Promise.all(both[1].map(function (r, i) { return shelf.put(addresses[i], r); })).then(function () {
        return { kept: page, newer: old !== null && said(old) !== said(now) };
      });
    });
  });
}
self.addEventListener('message', function (e) {
  if (e.data.keep) {
    e.waitUntil(caches.open(SHELF).then(function (shelf) { return keep(shelf, e.data.page, e.data.keep); }).then(function (what) {
      if (e.source) { e.source.postMessage(what); }
    }, function (trouble) {
      if (e.source) { e.source.postMessage({ notKept: e.data.page, signedOut: trouble.message === 'signed out' }); }
    }));
  }
  if (e.data.forget) { e.waitUntil(caches.delete(SHELF).then(function () { e.source.postMessage({ forgotten: true }); })); }
});
self.addEventListener('fetch', function (e) {
  var address = new URL(e.request.url);
  if (e.request.method !== 'GET' || address.origin !== self.location.origin) { return; }
  var withFigures = address.search !== '' && address.pathname.indexOf('/field/') === 0;
  e.respondWith(caches.match(address.pathname, { ignoreSearch: true }).then(function (kept) {
    if (!kept) { return fetch(e.request); }
    if (!withFigures) { return kept; }
    return fetch(e.request).then(function (r) { return r.ok && !r.redirected ? r : kept; }, function () { return kept; });
  }));
});
