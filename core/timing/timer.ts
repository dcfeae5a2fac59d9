/** What a timer counts: "for": just as long as it says; "within": no longer; "persist": a color that must stay as long. */
export type Counts = "for" | "within" | "persist";

/** Instants as ISO 8601 texts, all by one clock: the server's. */
export interface Timing {
  readonly counts: Counts;
  readonly seconds: number;
  readonly plannedAt: string | null;
  readonly startedAt: string | null;
  readonly endedAt: string | null;
}

/** Where a timer stands at an instant. */
export type TimerState =
  /** Not begun; `toStart` seconds are left until it should be, less than zero when that has passed. */
  | { readonly state: "planned"; readonly toStart: number | null }
  /** Running; `left` seconds remain, less than zero when it is over and nobody ended it. */
  | { readonly state: "running"; readonly elapsed: number; readonly left: number }
  | { readonly state: "ended"; readonly elapsed: number };

const secondsBetween = (from: string, to: number) => (to - Date.parse(from)) / 1000;

/** Where a timer stands at `nowMs`, ms since 1970 by the clock that began it. A clock set back never makes it negative. */
export function timerState(timer: Timing, nowMs: number): TimerState {
  const { plannedAt, startedAt, endedAt, seconds } = timer;
  if (startedAt === null) {
    return {
      state: "planned",
      toStart: plannedAt === null ? null : (Date.parse(plannedAt) - nowMs) / 1000,
    };
  }
  const elapsed = Math.max(0, secondsBetween(startedAt, endedAt === null ? nowMs : Date.parse(endedAt)));
  if (endedAt !== null) return { state: "ended", elapsed };
  return { state: "running", elapsed, left: seconds - elapsed };
}

/** By how much an end may miss the time without being early or late, s: a twentieth of it, at least five. Common practice, no source. */
export const graceSeconds = (seconds: number): number => Math.max(5, seconds / 20);

export type Punctuality = "early" | "on time" | "late";

/** How an ended timer came out, and by how many seconds it missed; null while it runs. What must be over soon is never early. */
export function punctuality(timer: Timing): { readonly how: Punctuality; readonly bySeconds: number } | null {
  const at = timerState(timer, 0);
  if (at.state !== "ended" || timer.counts === "persist") return null;
  const off = at.elapsed - timer.seconds;
  const grace = graceSeconds(timer.seconds);
  const how = off > grace ? "late" : off < -grace && timer.counts === "for" ? "early" : ("on time" as const);
  return { how, bySeconds: Math.abs(off) };
}

/** A time as a clock shows it: 4:05, 1:02:00; of what is overdue, with a sign. */
export function clockText(seconds: number): string {
  const whole = seconds < 0 ? Math.ceil(-seconds) : Math.ceil(seconds - 1e-9);
  const [h, m, s] = [Math.floor(whole / 3600), Math.floor((whole % 3600) / 60), whole % 60];
  const two = (n: number) => String(n).padStart(2, "0");
  const shown = h > 0 ? `${h}:${two(m)}:${two(s)}` : `${m}:${two(s)}`;
  return seconds < 0 && whole > 0 ? `−${shown}` : shown;
}

/** A time in words, as people say it: "40 s", "2 min", "2 min 30 s", "1 h 10 min". */
export function durationText(seconds: number): string {
  const whole = Math.round(seconds);
  const [h, m, s] = [Math.floor(whole / 3600), Math.floor((whole % 3600) / 60), whole % 60];
  const parts = [h > 0 && `${h} h`, m > 0 && `${m} min`, s > 0 && h === 0 && `${s} s`].filter(Boolean);
  return parts.length > 0 ? parts.join(" ") : "0 s";
}
