import { useSyncExternalStore } from "react";
import { readStored, writeStored } from "./browser-store";

const listeners = new Set<() => void>();

/** A text that this browser remembers for its person: how a list is shown, who reads. Null on the server, and where nothing is. */
export function useStoredText(key: string): [string | null, (text: string) => void] {
  const stored = useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => readStored(key),
    () => null,
  );
  return [
    stored,
    (text) => {
      writeStored(key, text);
      listeners.forEach((listener) => listener());
    },
  ];
}
