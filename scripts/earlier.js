/**
 * The beginning of the service worker. Each build has a store of its own; an earlier one's files are handed out as long as a page
 * of it may be open, and go when the app is opened and no page of it was. OWN is the name that this build's store begins with.
 */
/* global OWN */
const PARTS = /^\/(_expo|assets)\//;

self.addEventListener('fetch', (event) => {
  const { request } = event;
  const url = new URL(request.url);
  if (request.method !== 'GET' || url.origin !== self.location.origin) return;
  if (request.mode === 'navigate') event.waitUntil(forgetEarlier());
  else if (PARTS.test(url.pathname))
    event.respondWith(caches.match(request.url).then((kept) => kept ?? fetch(request)));
});

async function forgetEarlier() {
  const open = await self.clients.matchAll({ type: 'window', includeUncontrolled: true });
  const { installing, waiting } = self.registration;
  if (open.length > 0 || installing || waiting) return;
  const names = await caches.keys();
  const earlier = names.filter((name) => name.includes('-precache-') && !name.startsWith(OWN));
  await Promise.all(earlier.map((name) => caches.delete(name)));
}
