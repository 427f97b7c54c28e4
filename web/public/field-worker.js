/* Keeps the field helper's page and code, so that it opens where nothing answers. The table and the
   shots are kept by the page itself; the API is never answered from here. */
const STORE = 'lyrandis-field';

self.addEventListener('install', (event) => {
  event.waitUntil(self.skipWaiting());
});

self.addEventListener('activate', (event) => {
  event.waitUntil(self.clients.claim());
});

self.addEventListener('fetch', (event) => {
  const { request } = event;
  const { origin, pathname } = new URL(request.url);
  if (request.method !== 'GET' || origin !== self.location.origin) return;
  if (pathname.startsWith('/api/')) return;
  event.respondWith(freshOrKept(request));
});

/** What the bench answers, kept for later; what was kept where it does not answer. */
async function freshOrKept(request) {
  const store = await caches.open(STORE);
  try {
    const answer = await fetch(request);
    if (answer.ok) await store.put(request, answer.clone());
    return answer;
  } catch (error) {
    const kept = await store.match(request, { ignoreSearch: true });
    if (kept) return kept;
    throw error;
  }
}
