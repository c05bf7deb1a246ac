/**
 * What a tablet reads, for its service worker, which has to answer with a page while the server is away: the page
 * leaves it as this cache's one reply.
 */
export const KEPT_LANGUAGE = { cacheName: 'vestigia-language', path: '/' } as const;
