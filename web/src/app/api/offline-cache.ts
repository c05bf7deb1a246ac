import { KEPT_LANGUAGE } from './kept-language';
import { pageLanguage } from './page-language';

/**
 * Has the browser keep the interface at hand for when the server is away (`web/service-worker`). Browsers do so on
 * this machine's own address or over https; elsewhere a page that is open goes on, but can't be loaded anew while the
 * server is away.
 */
export function cacheForOffline(): void {
  if (!('serviceWorker' in navigator) || !isSecureContext) return;
  void navigator.serviceWorker
    .register('/sw.js')
    // One that came while the last page stood open takes over now: this page is of its build.
    .then(({ waiting }) => waiting?.postMessage('begin'))
    .catch(() => undefined);
  void caches
    .open(KEPT_LANGUAGE.cacheName)
    .then((kept) => kept.put(KEPT_LANGUAGE.path, new Response(pageLanguage())))
    .catch(() => undefined);
}
