import { useEffect } from "react";
import { useLocation } from "react-router";

/** Where the service worker keeps pages. */
const cacheName = "pages";
/** A page is kept once somebody stays on it, ms. */
const afterMs = 1500;

/** Fetches a page as a reload would, and keeps it. A run is kept anew each time that it is opened. */
async function keepPage(pathname: string): Promise<void> {
  if (!("serviceWorker" in navigator)) return;
  await navigator.serviceWorker.ready;
  const pages = await caches.open(cacheName);
  const there = await pages.match(pathname, { ignoreVary: true });
  if (there && !pathname.startsWith("/runs/")) return;
  const response = await fetch(pathname, { headers: { Accept: "text/html" } });
  const html = response.headers.get("content-type")?.startsWith("text/html");
  if (response.ok && !response.redirected && html) await pages.put(pathname, response);
}

/**
 * Keeps each page that is opened for a reload out of reach: going from page to page within the program fetches its data alone, and the
 * first page of all was there before the service worker.
 */
export function useKeptPage(): void {
  const { pathname } = useLocation();
  useEffect(() => {
    const later = setTimeout(() => void keepPage(pathname).catch(() => undefined), afterMs);
    return () => clearTimeout(later);
  }, [pathname]);
}
