import type { IDBPDatabase } from "idb";
import { useSyncExternalStore } from "react";
import type { StandingReading } from "~/core/change";
import type { RunRequest } from "~/protocol/requests";
import { dependsOn, type WaitingChange } from "~/protocol/waiting";
import { browserDatabase, type UnsentChange, type Store } from "./browser-database";
import { type ChangeOutcome, postChange } from "./post";
import { onLive } from "./stream";
import { msg, type Phrase } from "~/core/text";

type Sent = (runId: string, outcome: ChangeOutcome) => void;

const secondsToRetry = 2;
/** A change on which the server failed so often is set aside, so that it holds up nothing else. */
const mostTries = 3;
const listeners = new Set<() => void>();
const sentListeners = new Set<Sent>();
let known: readonly UnsentChange[] = [];
let sending = false;
let timer: ReturnType<typeof setTimeout> | null = null;
/** Tells the other tabs; opened in a browser alone, since elsewhere it would keep the process alive. */
let channel: BroadcastChannel | null = null;

/** Puts back what this page knows to wait, where the browser's storage was cleared meanwhile. */
async function putBackIfCleared(db: IDBPDatabase<Store>): Promise<void> {
  const change = db.transaction(["outbox", "here"], "readwrite");
  if ((await change.objectStore("here").get("mark")) === undefined) {
    for (const kept of known) await change.objectStore("outbox").put(kept);
    await change.objectStore("here").put("here", "mark");
  }
  await change.done;
}

/** The database with all in it that this page knows to wait: before anything is added, since a cleared one counts from one again. */
async function whole(): Promise<IDBPDatabase<Store>> {
  const db = await browserDatabase();
  await putBackIfCleared(db);
  return db;
}

async function loadOutbox(): Promise<void> {
  const db = await whole();
  const all = await db.getAll("outbox");
  known = all.flatMap((kept) => (kept.seq === undefined ? [] : [{ ...kept, seq: kept.seq }]));
  listeners.forEach((listener) => listener());
}

async function changed(): Promise<void> {
  await loadOutbox();
  channel?.postMessage("changed");
}

/** True where something of this run waits to be sent: what comes after it must wait behind it. */
export const somethingWaits = (runId: string): boolean =>
  known.some((k) => k.runId === runId && k.refused === null);

/** Keeps a change in the browser's database until it is sent. Resolves once it is written there; throws where it cannot be. */
export async function keep(
  runId: string,
  request: RunRequest,
  why: { refused: Phrase; standing: StandingReading } | null = null,
): Promise<void> {
  // A timer ends once: until the server is told, it still runs on the screen.
  const ends = (k: UnsentChange) =>
    k.request.intent === "end-timer" &&
    request.intent === "end-timer" &&
    k.request.timerId === request.timerId;
  if (why === null && known.some((k) => k.runId === runId && k.refused === null && ends(k))) return;
  const kept = {
    runId,
    request,
    at: Date.now(),
    refused: why?.refused ?? null,
    standing: why?.standing ?? null,
  };
  await (await whole()).add("outbox", kept);
  void stayHere();
  await changed();
  schedule();
}

/** Asks the browser once not to clear what waits when its disk gets full. */
let asked = false;
async function stayHere(): Promise<void> {
  // Over plain http there is nobody to ask.
  if (asked || !("storage" in navigator)) return;
  asked = true;
  await navigator.storage.persist().catch(() => false);
}

/** Lets go of a kept change that nobody wants any more. */
export async function letGo(seq: number): Promise<void> {
  await (await whole()).delete("outbox", seq);
  await changed();
}

/** Sends a refused change again, as after its run was opened again. */
export async function tryAgain(seq: number): Promise<void> {
  const db = await whole();
  const kept = await db.get("outbox", seq);
  if (kept) await db.put("outbox", { ...kept, refused: null, standing: null, tries: 0 });
  await changed();
  await send();
}

function schedule(): void {
  timer ??= setTimeout(() => {
    timer = null;
    void send();
  }, 1000 * secondsToRetry);
}

/** The change with how long it has waited told in seconds, since two clocks seldom agree. */
function asHeld({ request, at }: WaitingChange): RunRequest {
  const heldSeconds = Math.max(0, (Date.now() - at) / 1000);
  switch (request.intent) {
    case "observe":
    case "enter":
    case "start-timer":
    case "begin-timer":
    case "end-timer":
      return { ...request, heldSeconds };
    default:
      return request;
  }
}

/** Sets a change aside on which the server failed again and again, with all that makes no sense without it. */
async function setAside(failing: UnsentChange, message: Phrase): Promise<void> {
  const db = await whole();
  const behind = known.filter(
    (k) =>
      k.seq > failing.seq &&
      k.runId === failing.runId &&
      k.refused === null &&
      dependsOn(k.request, failing.request),
  );
  const change = db.transaction("outbox", "readwrite");
  await change.store.put({ ...failing, tries: mostTries, refused: message });
  for (const k of behind)
    await change.store.put({ ...k, refused: msg`It depends on a reading that the server could not save` });
  await change.done;
}

/** Sends what waits, in the order in which it was made and one after the other, until all is gone or none gets through. */
async function sendAll(): Promise<void> {
  await loadOutbox();
  for (;;) {
    const next = known.find((k) => k.refused === null);
    if (!next) return;
    const answer = await postChange(next.runId, asHeld(next));
    if (answer.status === "unreachable") return schedule();
    const db = await whole();
    if (answer.status === "failed") {
      const tries = (next.tries ?? 0) + 1;
      if (tries < mostTries) {
        await db.put("outbox", { ...next, tries });
        return schedule();
      }
      await setAside(next, answer.message);
    } else if (answer.status === "done") await db.delete("outbox", next.seq);
    else {
      const standing = answer.present ?? null;
      await db.put("outbox", { ...next, refused: answer.message, standing });
    }
    sentListeners.forEach((listener) => listener(next.runId, answer));
    await changed();
  }
}

/** One sender at a time, in this tab and, where the browser can tell, in all of them. */
export async function send(): Promise<void> {
  if (sending || typeof window === "undefined") return;
  sending = true;
  try {
    if ("locks" in navigator) {
      await navigator.locks.request("steady-bead.outbox", { ifAvailable: true }, (lock) =>
        lock ? sendAll() : Promise.resolve(),
      );
    } else await sendAll();
  } finally {
    sending = false;
  }
}

/** Hears of each change that was sent from the outbox, and how it ended. */
export function onSent(listener: Sent): () => void {
  sentListeners.add(listener);
  return () => sentListeners.delete(listener);
}

let begun = false;
function begin(): void {
  if (begun) return;
  begun = true;
  channel = new BroadcastChannel("steady-bead.outbox");
  void send();
  window.addEventListener("online", () => void send());
  channel.addEventListener("message", () => void loadOutbox());
  onLive((event) => {
    if (event === "connected") void send();
  });
}

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  begin();
  return () => listeners.delete(listener);
}

const nothing: readonly UnsentChange[] = [];

/** All that waits in this browser, oldest first. */
export const useOutbox = (): readonly UnsentChange[] =>
  useSyncExternalStore(
    subscribe,
    () => known,
    () => nothing,
  );
