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

declare const self: ServiceWorkerGlobalScope;
/** Every file of this build, put in by the build itself. */
declare const BUILT_FILES: PrecacheEntry[];

/** Counted up when replies change their form, so that a newer page is not answered with what an older one kept. */
const READ = 'vestigia-read-3';
const READ_OFFLINE = /^\/api\/(?:auth|studio|today|bench|lots\/[0-9a-f-]{36})$/;
/** After so long what is kept will do, if there is any; else the answer is waited for. */
const PATIENCE_S = 15;
const LOTS_KEPT = 200;

const urlOf = (file: PrecacheEntry | string): string => (typeof file === 'string' ? file : file.url);

clientsClaim();
cleanupOutdatedCaches();
/** Each language is a build of its own, in a folder of its own but for English; a tablet keeps the one it reads. */
const folder = new URL(self.location.href).searchParams.get('language') === 'de' ? '/de/' : '/';
precache(BUILT_FILES.filter((file) => urlOf(file).startsWith('/de/') === (folder === '/de/')));

const net = new NetworkOnly({ networkTimeoutSeconds: PATIENCE_S });
registerRoute(
  new NavigationRoute(
    async (options) => {
      try {
        return await net.handle(options);
      } catch {
        return (await matchPrecache(`${folder}index.html`)) ?? Response.error();
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
        Promise.all(names.filter((n) => n.startsWith('vestigia-') && n !== READ).map((name) => caches.delete(name))),
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
