import type { Operation } from "fast-json-patch";
import type { ChangeProblem } from "~/core/change";
import type { Bead, Shown } from "~/core/stages";
import type { RunRecord, RunStatus } from "~/core/run";
import { msg, type Phrase } from "~/core/text";
import type { TimerRecord } from "~/core/record";

/** What the server tells the screens. */

/** The small part of an evaluation that is kept with a run for lists. */
export interface RunSummary {
  readonly chain: readonly Bead[];
  readonly next: Phrase;
  readonly state: Phrase;
  readonly result: Shown | null;
}

export interface RunListItem {
  readonly id: string;
  readonly title: string;
  readonly sample: string;
  readonly bench: string;
  readonly status: RunStatus;
  readonly methodId: string;
  readonly methodTitle: string;
  readonly startedAt: Date;
  readonly finishedAt: Date | null;
  readonly summary: RunSummary;
}

/** A method as it is offered where a run begins. */
export interface MethodChoice {
  readonly id: string;
  readonly title: string;
  readonly purpose: string;
  readonly family: string;
  readonly equation: string;
  /** True where it fixes the concentration of a solution. */
  readonly standardizes: boolean;
  /** True where it ends with a sample and not with a solution for the shelf. */
  readonly findsUnknown: boolean;
  /** Its place among the methods used last, from 0; null where it was not. */
  readonly recent: number | null;
  /** Its words in small letters, by which it is found. */
  readonly words: string;
}

export interface RunSearchResult {
  readonly runs: readonly RunListItem[];
  /** How many there are in all, shown or not. */
  readonly total: number;
}

/** What the run screen works on: the record as saved, and the change that undo would take back. */
export interface RunState {
  readonly record: RunRecord;
  readonly undo: { readonly eventId: string; readonly description: Phrase } | null;
  /** The change that was undone last and can be made again; null once something else was changed. */
  readonly redo: { readonly eventId: string; readonly description: Phrase } | null;
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
  /** Where a timer was set, begun or ended: those of the run that are planned or running now; true where all have to be asked for. */
  readonly timers: readonly TimerView[] | boolean;
  /** The device that made the change: it knows already. */
  readonly device: string;
  /** What became other, where that is little; a screen that shows the run asks for it otherwise. */
  readonly step: RunStep | null;
}

/** What one change made other in the state with so many changes, by RFC 6902. */
export interface RunStep {
  /** The revision that it follows on. */
  readonly from: number;
  readonly patch: readonly Operation[];
}

/** What became of a change of a run: as the server has it, the state, and the step to it where there is one. */
export type ChangeAnswer =
  { readonly status: "done"; readonly state: RunState | null; readonly step: RunStep | null } | ChangeProblem;

/** The same as a screen is told it: the step where it follows on what the screen has, else the state; null after a deletion. */
export type SavedAnswer =
  { readonly status: "done"; readonly update: RunState | RunStep | null } | ChangeProblem;

/** The header by which a screen says which revision of the run it has. */
export const revisionHeader = "X-Revision";

/** What is said beside the fields of who and why where nothing stands in them. */
export const sayWho = msg`Say who: initials, or a bench`;
export const sayWhy = msg`Say why`;
