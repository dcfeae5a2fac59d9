import { useSyncExternalStore } from "react";
import { readStored, writeStored } from "../live/browser-store";
import { type Draft, type FieldEvent, reopened, type Sending, step } from "./field";

/** What is typed of one trial, flask or stage and is not saved, by field. */
export interface Drafts {
  readonly trialId: string;
  readonly kind: "rough" | "fine";
  readonly fields: Readonly<Record<string, Draft>>;
}

/** Drafts of a dialog live as long as it is open, and in this page alone. */
const ofDialog = "dialog.";
export const dialogKey = (of: string): string => `${ofDialog}${of}`;
const inMemory = new Map<string, string>();

const listeners = new Set<() => void>();
const known = new Map<string, { readonly raw: string; readonly drafts: Drafts | null }>();

const readRaw = (key: string): string | null =>
  key.startsWith(ofDialog) ? (inMemory.get(key) ?? null) : readStored(key);

/** Drafts of a page that is gone: nothing is on its way any more. Versions before this one kept texts alone. */
function parsed(raw: string): Drafts | null {
  try {
    const {
      trialId,
      kind,
      fields,
      texts = {},
    } = JSON.parse(raw) as Drafts & { texts?: Record<string, string> };
    const kept = fields
      ? Object.entries(fields).map(([key, draft]) => [key, reopened(draft)] as const)
      : Object.entries(texts).map(([key, text]) => [key, { text }] as const);
    return { trialId, kind, fields: Object.fromEntries(kept) };
  } catch {
    // A draft that cannot be read is no draft.
    return null;
  }
}

/** What is kept under a key at this moment, whatever a component last rendered. */
export function readDrafts(key: string): Drafts | null {
  const raw = readRaw(key);
  if (raw === null) return null;
  const there = known.get(key);
  if (there?.raw === raw) return there.drafts;
  const drafts = parsed(raw);
  known.set(key, { raw, drafts });
  return drafts;
}

export function writeDrafts(key: string, drafts: Drafts | null): void {
  const raw = drafts && JSON.stringify(drafts);
  if (raw !== null) known.set(key, { raw, drafts });
  if (!key.startsWith(ofDialog)) writeStored(key, raw);
  else if (raw === null) inMemory.delete(key);
  else inMemory.set(key, raw);
  listeners.forEach((listener) => listener());
}

/** Where drafts are kept, and whose they are. */
export interface DraftPlace extends Omit<Drafts, "fields"> {
  readonly key: string;
}

/** Lets something happen to a field, and keeps what came of it; returns the readings that are to be sent. */
export function happen(place: DraftPlace, field: string, event: FieldEvent): readonly Sending[] {
  const { key, trialId, kind } = place;
  const fields = readDrafts(key)?.fields ?? {};
  const before = fields[field] ?? null;
  const { draft, send } = step(before, event);
  if (draft === before) return send;
  const others = Object.entries(fields).filter(([name]) => name !== field);
  const all = draft ? [...others, [field, draft] as const] : others;
  writeDrafts(key, all.length > 0 ? { trialId, kind, fields: Object.fromEntries(all) } : null);
  return send;
}

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** What is typed and not saved: it outlives a closed tab, in this browser. */
export const useDrafts = (key: string): Drafts | null =>
  useSyncExternalStore(
    subscribe,
    () => readDrafts(key),
    () => null,
  );
