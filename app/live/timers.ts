import { device } from "./device";
import { useSyncExternalStore } from "react";
import type { TimersAnswer, TimerView } from "~/protocol/answers";
import { pressOver } from "../ui/press";
import { readStored, writeStored } from "./browser-store";
import { sameEra } from "./era";
import { onLive } from "./stream";

interface Timers extends TimersAnswer {
  /** How far the server's clock is ahead of this device's, ms. */
  readonly offset: number;
}

/** Timers as they were last told, for a page that is loaded out of reach. */
const storedKey = "steady-bead.timers";

const none: Timers = { now: 0, timers: [], clock: null, offset: 0 };
let known = none;
let asking = false;
let again = false;
const listeners = new Set<() => void>();

/** Asks for the timers; several that ask at once are answered together. */
export async function refreshTimers(): Promise<void> {
  if (asking) {
    again = true;
    return;
  }
  asking = true;
  try {
    const sent = Date.now();
    const response = await fetch("/timers", { headers: { "X-Device": device } });
    if (response.ok && sameEra(response)) {
      const answer = (await response.json()) as TimersAnswer;
      // The answer was written about halfway between question and arrival.
      const offset = answer.now - (sent + Date.now()) / 2;
      await pressOver();
      known = { ...answer, offset };
      writeStored(storedKey, JSON.stringify(known));
      listeners.forEach((listener) => listener());
    }
  } catch {
    // What was known goes on counting, also what was before this page was loaded.
    const stored = known === none ? readStored(storedKey) : null;
    if (stored !== null) {
      known = JSON.parse(stored) as Timers;
      listeners.forEach((listener) => listener());
    }
  } finally {
    asking = false;
    if (again) {
      again = false;
      void refreshTimers();
    }
  }
}

/** What a run's change told of its timers. A request under way may return older ones: it is repeated. */
function take(runId: string, timers: readonly TimerView[]): void {
  if (known === none || asking) return void refreshTimers();
  known = { ...known, timers: [...known.timers.filter((t) => t.runId !== runId), ...timers] };
  writeStored(storedKey, JSON.stringify(known));
  listeners.forEach((listener) => listener());
}

let stopListening: (() => void) | null = null;
function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  stopListening ??= onLive((event) => {
    if (event === "connected" || event.timers === true) void refreshTimers();
    else if (event.timers) take(event.runId, event.timers);
  });
  if (known === none) void refreshTimers();
  return () => listeners.delete(listener);
}

/** The timers that run, wherever they were set. */
export const useTimers = (): Timers =>
  useSyncExternalStore(
    subscribe,
    () => known,
    () => none,
  );

/** How far the server's clock is ahead of this device's, ms. */
export const clockOffset = (): number => known.offset;

/** The server's time by this device's clock, ms since 1970. */
export const serverNow = (): number => Date.now() + known.offset;

let second = 0;
const tickers = new Set<() => void>();
let ticking: ReturnType<typeof setInterval> | null = null;

/** No second yet: the page as the server wrote it, which had another one. */
const noTime = -1;

/** Renders anew each second, and gives the server's time then; null until the page has come to life. */
export function useServerNow(): number | null {
  const tick = useSyncExternalStore(
    (listener) => {
      tickers.add(listener);
      ticking ??= setInterval(() => {
        second += 1;
        tickers.forEach((ticker) => ticker());
      }, 1000);
      return () => {
        tickers.delete(listener);
        if (tickers.size > 0 || !ticking) return;
        clearInterval(ticking);
        ticking = null;
      };
    },
    () => second,
    () => noTime,
  );
  return tick === noTime ? null : serverNow();
}
