/*
 * Keeps this program, and the pages that were open, for work without the network. Changes are not its business: they wait in the
 * browser's database (`app/live/outbox.ts`). Built by scripts/write-service-worker.ts.
 */
import { clientsClaim } from "workbox-core";
import { ExpirationPlugin } from "workbox-expiration";
import {
  cleanupOutdatedCaches,
  matchPrecache,
  type PrecacheEntry,
  precacheAndRoute,
} from "workbox-precaching";
import { registerRoute } from "workbox-routing";
import { NetworkFirst } from "workbox-strategies";

/** What of a service worker's surroundings is used here: the types of pages and of workers do not go together. */
interface Surroundings {
  readonly __WB_MANIFEST: (PrecacheEntry | string)[];
  readonly skipWaiting: () => Promise<void>;
  readonly addEventListener: (type: "message", listener: (event: { data: unknown }) => void) => void;
}
declare const self: Surroundings;

// Everything that the program consists of, from its build.
precacheAndRoute(self.__WB_MANIFEST);
cleanupOutdatedCaches();
clientsClaim();

// A new version waits until somebody says so, or until no page of the old one is open.
self.addEventListener("message", ({ data }) => {
  if ((data as { type?: string } | null)?.type === "SKIP_WAITING") void self.skipWaiting();
});

/** How long the network is waited for, s, before a page is shown as it was kept. */
const patience = 10;

/** The newest answer at each address; `otherwise` says what is shown where there is none. */
const kept = (cacheName: string, otherwise: (request: Request) => Promise<Response | undefined>) =>
  new NetworkFirst({
    cacheName,
    networkTimeoutSeconds: patience,
    matchOptions: { ignoreVary: true },
    plugins: [
      new ExpirationPlugin({ maxEntries: 120, maxAgeSeconds: 60 * 24 * 3600, purgeOnQuotaError: true }),
      {
        cacheWillUpdate: ({ response }) =>
          Promise.resolve(response.status === 200 && !response.redirected ? response : null),
      },
      { handlerDidError: ({ request }) => otherwise(request) },
    ],
  });

/** A page without its question, as a run at another stage; or the one that says that there is none. */
const alike = async (request: Request) =>
  (await (await caches.open("pages")).match(request, { ignoreSearch: true, ignoreVary: true })) ??
  matchPrecache("/offline.html");

registerRoute(({ request }) => request.mode === "navigate", kept("pages", alike));
registerRoute(
  ({ url, request }) => request.method === "GET" && url.pathname.endsWith(".data"),
  kept("data", () => Promise.resolve(undefined)),
);
