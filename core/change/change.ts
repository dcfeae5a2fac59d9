import type { ComputedStage, Method } from "../method";
import type { Observation, TraceRecord } from "../record";
import type { Problem, Result } from "../result";
import type { HouseRules } from "../rules";
import type { RunRecord, UsedSolution } from "../run";
import type { Inverse } from "./inverse";
import { type Phrase } from "../text";

/** The reading that stands in a field that another one was sent for. */
export type StandingReading = Pick<Observation, "id" | "text" | "person" | "at">;

/**
 * Why a change is not made. `refused`: understood, but the data forbid it; `malformed`: it cannot be understood here;
 * `missing`: it names a run, a trial or a reading that is not there; `conflict`: it uses an id that something else has.
 */
export interface ChangeProblem extends Problem {
  readonly status: "refused" | "malformed" | "missing" | "conflict";
  /** What was probably meant. */
  readonly proposal?: string;
  /** Two readings for one field: the one that was there first. */
  readonly present?: StandingReading;
}

type Failed = { readonly ok: false; readonly problem: ChangeProblem };
type More = Pick<ChangeProblem, "proposal" | "present">;

const failed =
  (status: ChangeProblem["status"]) =>
  (message: Phrase, more: More = {}): Failed => ({ ok: false, problem: { status, message, ...more } });
export const refused = failed("refused");
export const malformed = failed("malformed");
export const missing = failed("missing");
export const conflict = failed("conflict");

/** What a change turned into what, and why. */
export interface ChangeDetail {
  readonly from?: Phrase;
  readonly to?: Phrase;
  readonly why?: Phrase;
}

/** What the trail tells of a change. */
export interface TrailEntry {
  readonly description: Phrase;
  /** What a reading does not tell by itself. */
  readonly detail?: ChangeDetail;
}

/** What became of a record: the record as it now is, what takes the change back, and what the trail tells of it. */
export interface Changed {
  readonly record: RunRecord;
  readonly inverse: Inverse;
  readonly entry: TrailEntry;
}

/** A change that was made before, or that says what stands already, leaves the record as it is: null. */
export type Applied = Result<Changed | null, ChangeProblem>;

/** What a kind of stage lets be changed in it. */
export interface StageAllows {
  /** True where flasks or trials are begun in it. */
  readonly trials: boolean;
  /** Whether a spectrum (nm) or a course (s) belongs in it, of the stage or of a trial. */
  readonly trace: (xUnit: TraceRecord["xUnit"], ofTrial: boolean) => boolean;
  /** Whether its result can be held against a known value or a limit, and whether a titer is expected of it. */
  readonly holds: boolean;
  readonly expects: boolean;
  /** What can be chosen in place of what the method takes, by name. */
  readonly choices: Readonly<Record<string, readonly string[]>>;
}

/** A bottle's concentration, or a solid's purity, as a run takes it. */
export interface TakenBottle {
  readonly used: UsedSolution;
  readonly usedUp: boolean;
}

/** What a change needs to know beside the record. */
export interface ChangeContext {
  /** When it is made, by the server's clock. */
  readonly now: string;
  /** Who makes it, where the change itself does not say. */
  readonly person: string;
  /** A new id for what a change writes beside what it names; `of` is what that belongs to. */
  readonly newId: (of: string) => string;
  /** Rules of the kind of a stage. */
  readonly allows: (stage: ComputedStage) => StageAllows;
  /** Whether a method passes the check, so that it can be followed. */
  readonly holdsTogether: (method: Method) => boolean;
  /** What contradicts itself in house rules; null where nothing does. A browser leaves it to the server, which has all of the rules. */
  readonly wrongRules: (rules: HouseRules) => Phrase | null;
  /** Whether a run has a result to finish with. */
  readonly hasResult: (record: RunRecord) => boolean;
  /** The bottle that is taken; null where it is not on the shelf. */
  readonly bottle?: TakenBottle | null;
  /** The last change that has not been taken back. */
  readonly last?: { readonly id: string; readonly inverse: Inverse } | null;
  /** The change that was taken back last, while nothing else was changed since: what makes it again, and takes it back then. */
  readonly next?: {
    readonly id: string;
    readonly description: Phrase;
    readonly inverse: Inverse;
    readonly redo: Inverse;
  } | null;
}

/** A kind of change: what it does to a record, and how it travels. */
export interface ChangeKind<R> {
  readonly apply: (record: RunRecord, request: R, context: ChangeContext) => Applied;
  /** True where it may be made in a run that is closed too. */
  readonly whenClosed?: boolean;
  /** True where it may be made in a run that is countersigned. */
  readonly whenCountersigned?: boolean;
  /** True where it carries its own id, so that it can wait in the browser and be sent twice without harm. */
  readonly waits?: boolean;
  /** Ids of the trials, timers and readings that it makes or speaks of. */
  readonly names?: (request: R) => readonly string[];
  /** True where it changes the timers that all screens show: those of open runs, under the run's title. */
  readonly timers?: boolean;
}

/** When something happened that waited before it was sent, by the server's clock; never before the run began. */
export const happenedAt = (
  { now }: ChangeContext,
  { startedAt }: RunRecord,
  heldSeconds: number | undefined,
): string => {
  const at = Date.parse(now);
  return new Date(
    Math.max(at - 1000 * (heldSeconds ?? 0), Math.min(at, Date.parse(startedAt))),
  ).toISOString();
};
