/// <reference lib="webworker" />

import type { WorkboxPlugin } from "workbox-core";
import { ExpirationPlugin } from "workbox-expiration";
import {
  cleanupOutdatedCaches,
  createHandlerBoundToURL,
  precacheAndRoute,
} from "workbox-precaching";
import { NavigationRoute, registerRoute } from "workbox-routing";
import { CacheFirst, NetworkFirst } from "workbox-strategies";

declare const self: ServiceWorkerGlobalScope & {
  __WB_MANIFEST: (string | { url: string; revision: string | null })[];
};

const DAYS = 24 * 3600;
/** What was opened, by address; erased at sign-out. */
const OPENED = "opened";

/** Days without a network are usual; what nobody opened for weeks makes room. */
const lasting = new ExpirationPlugin({
  maxEntries: 400,
  maxAgeSeconds: 60 * DAYS,
}) as WorkboxPlugin;

/** What is shown from here says so: as last told is not the same as now. */
const marked: WorkboxPlugin = {
  cachedResponseWillBeUsed: async ({ cachedResponse }) => {
    if (!cachedResponse) return cachedResponse;
    const headers = new Headers(cachedResponse.headers);
    headers.set("X-As-Last-Told", "1");
    return new Response(await cachedResponse.blob(), { status: cachedResponse.status, headers });
  },
};

// the page itself and everything it is made of: it opens without a network, for days
precacheAndRoute(self.__WB_MANIFEST);
cleanupOutdatedCaches();
registerRoute(
  new NavigationRoute(createHandlerBoundToURL("/"), {
    denylist: [/^\/api\//, /^\/static\//],
  }),
);

// a picture never changes under its address
registerRoute(
  ({ url }) => /^\/api\/.*\/photos\//.test(url.pathname),
  new CacheFirst({
    cacheName: OPENED,
    plugins: [lasting],
  }),
);

// what was opened is there again as it was told last, and marked so. Files are never handed out
// stale, and neither is how a panel stands: the screen has its own copy, and knows that it is one
registerRoute(
  ({ url, request }) =>
    url.pathname.startsWith("/api/") &&
    request.method === "GET" &&
    !/\.(csv|pdf|json)$|\/pdf$|\/auth\/|\/panel(\/|$)|\/card$/.test(url.pathname),
  new NetworkFirst({
    cacheName: OPENED,
    networkTimeoutSeconds: 5,
    plugins: [marked, lasting],
  }),
);

self.addEventListener("install", () => void self.skipWaiting());
self.addEventListener("activate", (event) => event.waitUntil(self.clients.claim()));
