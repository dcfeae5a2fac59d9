import { useSyncExternalStore } from "react";

/* Whether the server answers, as far as this page knows. */

let reached = true;
const listeners = new Set<() => void>();

export function setReached(now: boolean): void {
  if (reached === now) return;
  reached = now;
  listeners.forEach((listener) => listener());
}

export const useReached = (): boolean =>
  useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => reached,
    () => true,
  );
