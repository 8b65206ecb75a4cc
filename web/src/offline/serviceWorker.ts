import {
  cleanupOutdatedCaches,
  createHandlerBoundToURL,
  precacheAndRoute,
  type PrecacheEntry,
} from "workbox-precaching";
import { registerRoute } from "workbox-routing";

// The program on this device: pages, core, fonts and drawings as they were built together. What the server knows is asked by the pages
// themselves, and kept by them.

declare const self: ServiceWorkerGlobalScope & { __WB_MANIFEST: (string | PrecacheEntry)[] };

precacheAndRoute(self.__WB_MANIFEST);
cleanupOutdatedCaches();

// Whatever its address, a page is the one page; the server answers for its own files and the API itself.
registerRoute(
  ({ request, url }) =>
    request.mode === "navigate" && !url.pathname.startsWith("/api/") && !/\.[a-z]+$/.test(url.pathname),
  createHandlerBoundToURL("/index.html"),
);

// A new version waits until somebody asks for it.
self.addEventListener("message", (event) => {
  if ((event.data as { type?: string } | undefined)?.type === "SKIP_WAITING") void self.skipWaiting();
});
