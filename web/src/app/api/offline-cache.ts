/**
 * Has the browser keep the interface at hand for when the server is away (`sw.js`). Browsers do so on this machine's
 * own address or over https; elsewhere a page that is open goes on, but can't be loaded anew while the server is
 * away.
 */
export function cacheForOffline(): void {
  if (!('serviceWorker' in navigator) || !isSecureContext) return;
  void navigator.serviceWorker
    .register('/sw.js')
    .then(async () => {
      const { active } = await navigator.serviceWorker.ready;
      const files = performance
        .getEntriesByType('resource')
        .map((r) => new URL(r.name))
        .filter((u) => u.origin === location.origin && !u.pathname.startsWith('/api/'))
        .map((u) => u.pathname);
      active?.postMessage({ keep: ['/', ...new Set(files)] });
    })
    .catch(() => undefined);
}
