import { useCallback, useSyncExternalStore } from "react";
import { readStored, writeStored } from "../../../live/browser-store";

/** What is being typed for one trial, before it is saved. */
export interface StoredDraft {
  readonly trialId: string;
  readonly kind: "rough" | "fine";
  readonly texts: Readonly<Record<string, string>>;
}

const listeners = new Set<() => void>();
const parsed = new Map<string, { raw: string; draft: StoredDraft | null }>();

/** The draft as it is at this moment, whatever a component last rendered. */
export function readDraft(key: string): StoredDraft | null {
  const raw = readStored(key);
  if (raw === null) return null;
  const known = parsed.get(key);
  if (known?.raw === raw) return known.draft;
  let draft: StoredDraft | null = null;
  try {
    draft = JSON.parse(raw) as StoredDraft;
  } catch {
    // A draft that cannot be read is no draft.
  }
  parsed.set(key, { raw, draft });
  return draft;
}

export function writeDraft(key: string, draft: StoredDraft | null): void {
  writeStored(key, draft ? JSON.stringify(draft) : null);
  listeners.forEach((listener) => listener());
}

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** A draft that outlives a closed tab: kept in this browser until it is saved on the server. */
export function useStoredDraft(key: string): [StoredDraft | null, (draft: StoredDraft | null) => void] {
  const draft = useSyncExternalStore(
    subscribe,
    () => readDraft(key),
    () => null,
  );
  const write = useCallback((next: StoredDraft | null) => writeDraft(key, next), [key]);
  return [draft, write];
}
