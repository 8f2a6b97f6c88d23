/* Without a connection a page says so. Nothing else is kept: what belongs to the company stays with the company. */
const KEPT = 'vivid-ledger-offline-1';
const PAGE = ['/offline.html', '/offline.js', '/mark.svg'];

addEventListener('install', (event) => event.waitUntil(caches.open(KEPT).then((cache) => cache.addAll(PAGE)).then(() => skipWaiting())));

addEventListener('activate', (event) =>
    event.waitUntil(
        caches
            .keys()
            .then((names) => Promise.all(names.filter((name) => name !== KEPT).map((name) => caches.delete(name))))
            .then(() => clients.claim()),
    ),
);

addEventListener('fetch', (event) => {
    const { request } = event;
    const path = new URL(request.url).pathname;
    if (request.mode === 'navigate') event.respondWith(fetch(request).catch(() => caches.match('/offline.html')));
    else if (PAGE.includes(path)) event.respondWith(fetch(request).catch(() => caches.match(path)));
});
