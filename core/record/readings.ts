import { absorbanceOf } from "../calibration";
import { endOfCorrections } from "./observation";
import { type Observation, type StageRecord, type TrialRecord } from "./schema";

/** One reading of a cuvette, with all that was ever done to it. */
export interface ReadingView {
  /** Of the observation that stands last. */
  readonly id: string;
  /** What stands, or stood before it was struck out, as typed. */
  readonly text: string;
  readonly unit: string;
  readonly absorbance: number;
  readonly person: string;
  readonly at: string;
  /** Why it was struck out, and by whom; null where it counts. */
  readonly struck: { readonly reason: string; readonly person: string } | null;
}

/**
 * All readings of one cuvette in the order in which they were taken, in absorbance and in transmittance alike. A reading is
 * a first observation and the corrections that followed; one that was taken back last stands struck out, with the reason.
 */
export function readingsOf(observations: readonly Observation[], symbol: string): ReadingView[] {
  const first = observations.filter(
    (o) =>
      o.symbol === symbol && o.supersedes === null && (o.kind === "absorbance" || o.kind === "transmittance"),
  );
  const corrections = new Map(observations.toReversed().map((o) => [o.supersedes, o]));
  return first.flatMap((root): ReadingView[] => {
    const chain = [root];
    for (let next = corrections.get(root.id); next; next = corrections.get(next.id)) chain.push(next);
    const last = chain.at(-1) ?? root;
    const stands = chain.findLast((o) => o.value !== null);
    // Taken back by undo, as though it had never been: nothing is left to show.
    if (!stands || (last.value === null && last.reason === takenBack)) return [];
    const value = Number(stands.value);
    return [
      {
        id: last.id,
        text: stands.text,
        unit: stands.unit,
        absorbance: root.kind === "transmittance" ? absorbanceOf(value) : value,
        person: root.person,
        at: root.at,
        struck: last.value === null ? { reason: last.reason ?? "", person: last.person } : null,
      },
    ];
  });
}

/** The reason that an undone entry is given. */
export const takenBack = "taken back";

/** Absorbances of the readings that count. */
export const counting = (readings: readonly ReadingView[]): number[] =>
  readings.flatMap((r) => (r.struck ? [] : [r.absorbance]));

/** True for a trial whose entries were all taken back by undo: it is none. Readings that were struck out by hand stay. */
export const isTakenBack = (
  { id, struck, observations }: TrialRecord,
  { traces = [] }: Pick<StageRecord, "traces">,
): boolean => {
  const own = traces.filter((t) => t.trialId === id);
  return (
    !struck &&
    observations.length + own.length > 0 &&
    observations.every((o) => (o.value === null && o.reason === takenBack) || !stands(observations, o.id)) &&
    own.every((t) => t.removed?.reason === takenBack)
  );
};

/** Whether this observation is the one that stands for its reading or field. */
export const stands = (observations: readonly Observation[], id: string): boolean =>
  endOfCorrections(observations, id)?.id === id;
