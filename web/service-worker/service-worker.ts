/**
 * Keeps the whole interface and what the bench last read at hand, so that a tablet reloaded while the server is away
 * goes on where it was, into places it hadn't been to as well. For the page and for what was read the net comes first:
 * what is kept is only used when nothing answers. Only reading is kept; writing waits in the outbox.
 */
import { clientsClaim } from 'workbox-core';
import { ExpirationPlugin } from 'workbox-expiration';
import type { PrecacheEntry } from 'workbox-precaching';
import { addRoute, cleanupOutdatedCaches, matchPrecache, precache } from 'workbox-precaching';
import { NavigationRoute, registerRoute } from 'workbox-routing';
import { NetworkFirst, NetworkOnly } from 'workbox-strategies';
import { KEPT_LANGUAGE } from '../src/app/api/kept-language';

declare const self: ServiceWorkerGlobalScope;
/** Every file of this build, put in by the build itself. */
declare const BUILT_FILES: PrecacheEntry[];

/** Counted up when replies change their form, so that a newer page is not answered with what an older one kept. */
const READ = 'vestigia-read-3';
const KEPT: readonly string[] = [READ, KEPT_LANGUAGE.cacheName];
const READ_OFFLINE = /^\/api\/(?:auth|studio|today|bench|lots\/[0-9a-f-]{36})$/;
/** After so long what is kept will do, if there is any; else the answer is waited for. */
const PATIENCE_S = 15;
const LOTS_KEPT = 200;

clientsClaim();
cleanupOutdatedCaches();
/**
 * Of every language: each is a build of its own. A worker for each would take over from the other whenever the next
 * one in reads another, and a page that is read anew at that moment would wait for the one that went, for ever.
 */
precache(BUILT_FILES);
/** Where the interface lies in the language this tablet reads: in a folder of its own, but for English. */
async function folder(): Promise<string> {
  const kept = await caches.match(KEPT_LANGUAGE.path, { cacheName: KEPT_LANGUAGE.cacheName });
  return (await kept?.text()) === 'de' ? '/de/' : '/';
}

const net = new NetworkOnly({ networkTimeoutSeconds: PATIENCE_S });
registerRoute(
  new NavigationRoute(
    async (options) => {
      try {
        return await net.handle(options);
      } catch {
        return (await matchPrecache(`${await folder()}index.html`)) ?? Response.error();
      }
    },
    // A paper, a list or a studio file that takes long is no page, and is waited for.
    { denylist: [/^\/api\//] },
  ),
);
registerRoute(
  ({ url, sameOrigin }) => sameOrigin && READ_OFFLINE.test(url.pathname),
  new NetworkFirst({
    cacheName: READ,
    networkTimeoutSeconds: PATIENCE_S,
    plugins: [new ExpirationPlugin({ maxEntries: LOTS_KEPT, purgeOnQuotaError: true })],
  }),
);
addRoute({ cleanURLs: false });

self.addEventListener('activate', (event) =>
  event.waitUntil(
    caches
      .keys()
      .then((names) =>
        Promise.all(
          names.filter((n) => n.startsWith('vestigia-') && !KEPT.includes(n)).map((name) => caches.delete(name)),
        ),
      ),
  ),
);
// Who presses a notice comes to the window that called, where it is answered; to a new one, if that was closed.
self.addEventListener('notificationclick', (event) => {
  event.notification.close();
  const { path } = event.notification.data as { path?: string };
  event.waitUntil(
    self.clients.matchAll({ type: 'window' }).then(async (windows) => {
      const [open] = windows;
      if (open) await open.focus();
      else await self.clients.openWindow(path ?? '/');
    }),
  );
});
// A newer worker waits until a page begins anew: one that stands open still wants the files of its own build.
self.addEventListener('message', (event) => {
  if (event.data === 'begin') void self.skipWaiting();
});
