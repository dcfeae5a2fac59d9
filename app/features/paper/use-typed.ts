import { useCallback, useMemo, useSyncExternalStore } from "react";
import { readStored, writeStored } from "../../live/browser-store";

type Texts = Readonly<Record<string, string>>;

const listeners = new Set<() => void>();

const textsIn = (raw: string | null): Texts => {
  try {
    return raw === null ? {} : (JSON.parse(raw) as Texts);
  } catch {
    // What cannot be read was not typed here.
    return {};
  }
};

/** Texts of a form that outlive a closed page: kept in this browser under a key until they are entered. */
export function useTyped(
  key: string,
): readonly [Texts, (change: Readonly<Record<string, string | null>>) => void] {
  const raw = useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => readStored(key),
    () => null,
  );
  const texts = useMemo(() => textsIn(raw), [raw]);
  const write = useCallback(
    (change: Readonly<Record<string, string | null>>) => {
      const kept = Object.entries({ ...textsIn(readStored(key)), ...change }).filter(
        ([, text]) => text !== null,
      );
      writeStored(key, kept.length > 0 ? JSON.stringify(Object.fromEntries(kept)) : null);
      listeners.forEach((listener) => listener());
    },
    [key],
  );
  return [texts, write];
}
