import { useSyncExternalStore } from "react";

/**
 * Texts that this browser keeps between visits. Where its storage is full or forbidden, or is cleared meanwhile, they live in this
 * page's memory, so that nobody is kept from typing; `keepsNothing` and `wasCleared` tell.
 */

/** Written once for each page: when it is gone, the storage was cleared. */
const sentinel = "steady-bead.here";

const memory = new Map<string, string>();
const listeners = new Set<() => void>();
let marked = false;
let state: "kept" | "memory only" | "cleared" = "kept";

function become(next: typeof state): void {
  if (state === next) return;
  state = next;
  // It may be found out while something is drawn: told when that is done.
  queueMicrotask(() => listeners.forEach((listener) => listener()));
}

function storeText(key: string, text: string): boolean {
  try {
    window.localStorage.setItem(key, text);
    return true;
  } catch {
    return false;
  }
}

/** Marks the storage as seen by this page; puts back what this page wrote where it was cleared since. */
function look(): void {
  try {
    const there = window.localStorage.getItem(sentinel) !== null;
    if (there) {
      marked = true;
      return;
    }
    const cleared = marked && memory.size > 0;
    marked = storeText(sentinel, "1");
    if (!cleared) return;
    memory.forEach((text, key) => storeText(key, text));
    become("cleared");
  } catch {
    become("memory only");
  }
}

/** What is kept under a key; null where nothing is. Never throws. */
export function readStored(key: string): string | null {
  look();
  try {
    const stored = window.localStorage.getItem(key);
    // A full storage still holds the text of before.
    return state === "memory only" ? (memory.get(key) ?? stored) : stored;
  } catch {
    return memory.get(key) ?? null;
  }
}

/** Keeps a text under a key, or lets go of it. Never throws. */
export function writeStored(key: string, text: string | null): void {
  look();
  if (text === null) {
    memory.delete(key);
    try {
      window.localStorage.removeItem(key);
      if (
        state === "memory only" &&
        storeText(sentinel, "1") &&
        [...memory].every(([k, v]) => storeText(k, v))
      )
        become("kept");
    } catch {
      // It was never there.
    }
    return;
  }
  memory.set(key, text);
  if (!storeText(key, text)) become("memory only");
}

/** "memory only": the browser keeps nothing now; "cleared": what this page had written was gone and was put back. */
export const useStorageState = (): typeof state =>
  useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => state,
    () => "kept",
  );

/** The notice about a cleared storage was read. */
export const storageNoticed = (): void => {
  if (state === "cleared") become("kept");
};
