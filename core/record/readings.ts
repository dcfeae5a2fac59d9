import { absorbanceOf } from "../calibration";
import { endOfCorrections } from "./observation";
import {
  type CurvePlace,
  type Observation,
  type ObservationKind,
  type StageRecord,
  type TrialRecord,
} from "./schema";

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

/** A reading of many, as far as all kinds of them have it. */
type ReadingOfMany = Omit<ReadingView, "absorbance">;

/**
 * The readings of some kinds in the order in which they were taken. A reading is a first observation and the corrections that
 * followed; one that was taken back last stands struck out, with the reason.
 */
function manyOf<T>(
  observations: readonly Observation[],
  symbol: string,
  kinds: readonly ObservationKind[],
  own: (stands: Observation) => T,
): (ReadingOfMany & T)[] {
  const first = observations.filter(
    (o) => o.symbol === symbol && o.supersedes === null && kinds.includes(o.kind),
  );
  const corrections = new Map(observations.toReversed().map((o) => [o.supersedes, o]));
  return first.flatMap((root): (ReadingOfMany & T)[] => {
    const chain = [root];
    for (let next = corrections.get(root.id); next; next = corrections.get(next.id)) chain.push(next);
    const last = chain.at(-1) ?? root;
    const stands = chain.findLast((o) => o.value !== null);
    // Taken back by undo, as though it had never been: nothing is left to show.
    if (!stands || (last.value === null && last.reason === takenBack)) return [];
    return [
      {
        id: last.id,
        text: stands.text,
        unit: stands.unit,
        person: root.person,
        at: root.at,
        struck: last.value === null ? { reason: last.reason ?? "", person: last.person } : null,
        ...own(stands),
      },
    ];
  });
}

/** All readings of one cuvette, in absorbance and in transmittance alike. */
export const readingsOf = (observations: readonly Observation[], symbol: string): ReadingView[] =>
  manyOf(observations, symbol, ["absorbance", "transmittance"], ({ kind, value }) => ({
    absorbance: kind === "transmittance" ? absorbanceOf(Number(value)) : Number(value),
  }));

/** A point of a titration curve, with all that was ever done to it. */
export interface PointView extends ReadingOfMany {
  readonly value: number;
  /** Reading of the burette, mL. */
  readonly buretteMl: number;
  readonly place: CurvePlace;
  readonly source: Observation["source"];
}

/** All points of a titration curve in the order in which they were taken. */
export const pointsOf = (observations: readonly Observation[], symbol: string): PointView[] =>
  manyOf(observations, symbol, ["point"], ({ value, point, source }) => ({
    value: Number(value),
    buretteMl: Number(point?.burette),
    place: point ?? { burette: "" },
    source,
  }));

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
