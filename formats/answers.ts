import type { Bead, Shown } from "~/core/stages";
import type { RunRecord, RunStatus } from "~/core/run";
import type { TimerRecord } from "~/core/record";

/** What the server tells the screens. */

/** The small part of an evaluation that is kept with a run for lists. */
export interface RunSummary {
  readonly chain: readonly Bead[];
  readonly next: string;
  readonly state: string;
  readonly result: Shown | null;
}

export interface RunListItem {
  readonly id: string;
  readonly title: string;
  readonly sample: string;
  readonly bench: string;
  readonly status: RunStatus;
  readonly startedAt: Date;
  readonly finishedAt: Date | null;
  readonly summary: RunSummary;
}

export interface RunSearchResult {
  readonly runs: readonly RunListItem[];
  /** How many there are in all, shown or not. */
  readonly total: number;
}

/** What the run screen works on: the record as saved, and the change that undo would take back. */
export interface RunState {
  readonly record: RunRecord;
  readonly undo: { readonly eventId: string; readonly description: string } | null;
  /** Grows with each change. */
  readonly revision: number;
}

/** A timer as all screens show it, with the run that it belongs to. */
export interface TimerView extends TimerRecord {
  readonly runId: string;
  readonly runTitle: string;
  readonly stageKey: string;
}

/** The timers that are planned or running, and the server's time, ms since 1970, by which they count. */
export interface TimersAnswer {
  readonly now: number;
  readonly timers: readonly TimerView[];
  /** What is wrong with the server's clock, in words; null where nothing is. */
  readonly clock: string | null;
}

/** What the server tells all open screens: that a run has changed, or that all has, so that each screen loads anew. */
export type LiveMessage = RunChanged | { readonly reload: true };

export interface RunChanged {
  readonly runId: string;
  /** True where a timer was set, begun or ended. */
  readonly timers: boolean;
  /** The device that made the change: it knows already. */
  readonly device: string;
}

/** One line of a run's trail: who did what, when, from what to what, and why. */
export interface TrailLine {
  readonly id: string;
  /** When it was done, as the sender said. */
  readonly at: string;
  /** When it reached this server, by the server's clock. */
  readonly received: string;
  readonly person: string;
  readonly what: string;
  /** The stage and the trial, where it was done in one. */
  readonly where: string | null;
  readonly from: string | null;
  readonly to: string | null;
  readonly why: string | null;
  /** Where it was taken back: when and by whom. */
  readonly undone: { readonly at: string | null; readonly person: string } | null;
}

/** What a line of the lab's trail is about. */
export type TrailSubject = "house rules" | "method" | "bottle" | "run" | "backup" | "clock";
export const trailSubjects: readonly TrailSubject[] = [
  "run",
  "bottle",
  "method",
  "house rules",
  "backup",
  "clock",
];

/** One line of the lab's trail: of any run, or of what belongs to none. */
export interface LabTrailLine extends TrailLine {
  readonly seq: number;
  readonly about: TrailSubject;
  readonly subjectId: string | null;
  readonly subject: string;
  /** The address that it came from. */
  readonly receivedFrom: string | null;
}

/** The reading that stands in a field that another one was sent for. */
export interface StandingReading {
  readonly id: string;
  readonly text: string;
  readonly person: string;
  readonly at: string;
}

/** The answer to a change of a run. */
export type ChangeAnswer =
  | { readonly status: "done"; readonly state: RunState | null }
  | {
      readonly status: "refused" | "malformed" | "missing" | "conflict";
      readonly message: string;
      readonly proposal?: string;
      /** Two readings for one field: the one that was there first. */
      readonly present?: StandingReading;
    };

/** What is said beside the fields of who and why where nothing stands in them. */
export const sayWho = "Say who: initials, or a bench";
export const sayWhy = "Say why";
