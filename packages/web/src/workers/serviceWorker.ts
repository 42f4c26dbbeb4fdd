/// <reference lib="webworker" />
import { cleanupOutdatedCaches, matchPrecache, precacheAndRoute, type PrecacheEntry } from 'workbox-precaching';
import { NavigationRoute, registerRoute } from 'workbox-routing';
import { NetworkFirst } from 'workbox-strategies';
import { type PageMessage, SERVER_CACHE, type WorkerAnswer } from './offlineMessages';

declare const self: ServiceWorkerGlobalScope;
/** The built files, put here by the build. */
declare const BUILT_FILES: readonly PrecacheEntry[];

/** The address of the kept page. */
const PAGE = '/';
/** How long a server that is there, but slow, is waited for before the kept page is shown, in milliseconds. */
const PAGE_WAIT_MS = 4000;

/** The page from the server, which is always the newest; without it the one that belongs to the kept files, with the headers that came
 *  with it: its nonce and its policy stay a pair. */
async function page(request: Request): Promise<Response> {
  try {
    return await fetch(request, { signal: AbortSignal.timeout(PAGE_WAIT_MS) });
  } catch {
    return (await matchPrecache(PAGE)) ?? Response.error();
  }
}

// Before the kept files, of which the page is one.
registerRoute(new NavigationRoute(({ request }) => page(request), { denylist: [/^\/api\//] }));
precacheAndRoute([...BUILT_FILES]);
cleanupOutdatedCaches();

// What the application cannot begin without. Each plan is kept by the application itself, together with its unsent edits.
const LISTS = ['/api/catalogue', '/api/plans'];
const lists = new NetworkFirst({ cacheName: SERVER_CACHE });
registerRoute(({ url, sameOrigin }) => sameOrigin && LISTS.includes(url.pathname), lists, 'GET');

// The first page has requested them already, before this worker was installed. Without a session they are kept when one begins.
const keepLists = async (): Promise<void> => (await caches.open(SERVER_CACHE)).addAll(LISTS);
self.addEventListener('install', (event) => event.waitUntil(keepLists().catch(() => undefined)));
self.addEventListener('activate', (event) => event.waitUntil(self.clients.claim()));

// A new version waits until a page says so: it takes the files of the old one away.
self.addEventListener('message', (event) => {
  const message = event.data as PageMessage;
  if (message.kind === 'take-over') void self.skipWaiting();
  else {
    const isSame = BUILT_FILES.some((entry) => typeof entry !== 'string' && entry.url === message.script);
    if (isSame) void self.skipWaiting();
    event.ports[0]?.postMessage({ isSame } satisfies WorkerAnswer);
  }
});
