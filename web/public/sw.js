/*
 * Keeps the interface and what the bench last read at hand, so that a tablet reloaded while the server is away goes on where it was.
 * The net comes first, always: what is kept is only used when nothing answers. Only reading is kept; writing waits in the outbox.
 */
/** Counted up when replies change their form, so that a newer page is not answered with what an older one kept. */
const KEPT = 'vestigia-2';
const READ_OFFLINE = /^\/api\/(?:auth|studio|today|bench|lots\/[0-9a-f-]{36})$/;
const PATIENCE_MS = 15000;

self.addEventListener('install', (event) => event.waitUntil(self.skipWaiting()));
self.addEventListener('activate', (event) =>
  event.waitUntil(
    caches
      .keys()
      .then((names) => Promise.all(names.filter((name) => name !== KEPT).map((name) => caches.delete(name))))
      .then(() => self.clients.claim()),
  ),
);

self.addEventListener('message', (event) => {
  // The page tells which of its files came before this worker was there.
  if (Array.isArray(event.data?.keep))
    event.waitUntil(
      caches
        .open(KEPT)
        .then((kept) =>
          Promise.allSettled(event.data.keep.map(async (url) => (await kept.match(url)) ?? kept.add(url))),
        ),
    );
});

self.addEventListener('fetch', (event) => {
  const { request } = event;
  const url = new URL(request.url);
  if (
    request.method !== 'GET' ||
    url.origin !== self.location.origin ||
    request.headers.get('accept')?.includes('text/event-stream')
  )
    return;
  if (request.mode === 'navigate') event.respondWith(netFirst(request, '/'));
  else if (url.pathname.startsWith('/api/')) {
    if (READ_OFFLINE.test(url.pathname)) event.respondWith(netFirst(request, url.pathname + url.search));
  } else event.respondWith(keptFirst(request));
});

async function netFirst(request, name) {
  const kept = await caches.open(KEPT);
  try {
    const answer = await Promise.race([
      fetch(request),
      new Promise((_, late) => setTimeout(() => late(new Error('late')), PATIENCE_MS)),
    ]);
    if (answer.ok) await kept.put(name, answer.clone());
    return answer;
  } catch (error) {
    const before = await kept.match(name);
    if (before) return before;
    throw error;
  }
}

/** Files with a hash in their name never change. */
async function keptFirst(request) {
  const kept = await caches.open(KEPT);
  const before = await kept.match(request);
  if (before) return before;
  const answer = await fetch(request);
  if (answer.ok && /-[A-Z0-9]{8}\.\w+$/i.test(new URL(request.url).pathname)) await kept.put(request, answer.clone());
  return answer;
}
