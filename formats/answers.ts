import type { Bead, RunRecord, RunStatus, Shown } from "~/core/run";

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
}

/** The answer to a change of a run. */
export type ChangeAnswer =
  | { readonly status: "done"; readonly state: RunState | null }
  | {
      readonly status: "refused" | "malformed" | "missing";
      readonly message: string;
      readonly proposal?: string;
    };
