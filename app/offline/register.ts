import { useSyncExternalStore } from "react";
import { Workbox } from "workbox-window";

/* The service worker, as pages see it. */

let worker: Workbox | null = null;
let waits = false;
const listeners = new Set<() => void>();

/** Registers the service worker where the browser lets one be: over https, and on the machine itself. */
export function registerServiceWorker(): void {
  if (!("serviceWorker" in navigator) || worker) return;
  worker = new Workbox("/sw.js");
  worker.addEventListener("waiting", () => {
    waits = true;
    listeners.forEach((listener) => listener());
  });
  // Another version has taken over because somebody said so, here or in another tab: the page belongs to the one before. The first
  // version of all takes over a page that is its own.
  let controlled = navigator.serviceWorker.controller !== null;
  navigator.serviceWorker.addEventListener("controllerchange", () => {
    if (controlled) window.location.reload();
    controlled = true;
  });
  void worker
    .register()
    .catch((error: unknown) => console.warn("Pages are not kept for work without the network:", error));
}

/** True once a newer version of this program is ready to take over. */
export const useNewVersion = (): boolean =>
  useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => waits,
    () => false,
  );

/** Lets the new version take over; all pages are loaded anew then. */
export const takeNewVersion = (): void => worker?.messageSkipWaiting();
