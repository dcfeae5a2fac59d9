import { resultQuantity, showQuantity, type ComputedEvaluation } from "../stages";
import {
  inUnit,
  type Quantity,
  sameDimension,
  standardUncertainty,
  toDecimals,
  unitOf,
  unitsLike,
} from "../quantity";
import { percentError, recoveryPercent } from "../judgement";
import { mean, standardDeviation } from "../statistics";
import { methodOf, type Role, type RunRecord } from "../run";
import { msg, type Phrase } from "../text";
import { evaluateRun } from "./evaluate";
import { type Remembering, withoutMemory } from "./remembered";

/** One run of a series: its result, and what it says beside the others. */
export interface SeriesRow {
  readonly runId: string;
  readonly title: string;
  readonly sample: string;
  readonly bench: string;
  readonly role: Role;
  /** How far it is, and whether its last stage is done: until then its result may change. */
  readonly state: Phrase;
  readonly done: boolean;
  /** Its result with its ±, in the unit of the table; null while there is none. */
  readonly shown: { readonly value: string; readonly plusMinus: string } | null;
  /** The same as a number, and its standard uncertainty. */
  readonly value: number | null;
  readonly u: number | null;
  /** Against what it is held against, in percent, as the house writes it; null where nothing is known. */
  readonly errorPercent: number | null;
  /** What was found of what is known, or of what was added to a spiked sample, in percent. */
  readonly recoveryPercent: number | null;
  /** Of a duplicate: how far it is from its sample, in percent of their mean. */
  readonly differencePercent: number | null;
  /** False where it is outside what is allowed. */
  readonly within: boolean | null;
}

export interface SeriesTable {
  readonly rows: readonly SeriesRow[];
  /** What is found, and in which unit; units that it can be shown in. */
  readonly name: string;
  readonly unit: string;
  readonly units: readonly string[];
  /** Of samples and duplicates whose result stands. */
  readonly count: number;
  readonly mean: number | null;
  readonly standardDeviation: number | null;
}

interface Found {
  readonly record: RunRecord;
  readonly last: ComputedEvaluation | undefined;
  readonly state: Phrase;
  readonly q: Quantity | null;
}

/** Of another run of the same sample: the first that is one. */
const sampleOf = ({ record }: Found, all: readonly Found[]): Found | undefined =>
  all.find(
    (other) =>
      other.record.sample === record.sample &&
      other.record !== record &&
      (other.record.series?.role ?? "sample") === "sample",
  );

/** What was found of what was added to a sample, in percent; null while one of the two has no result. */
function spikeRecovery(found: Found, all: readonly Found[], unit: string): number | null {
  const added = Number(found.record.series?.added ?? NaN);
  const own = sampleOf(found, all)?.q;
  return found.q && own && added > 0 ? (100 * (inUnit(found.q, unit) - inUnit(own, unit))) / added : null;
}

function duplicateDifference(found: Found, all: readonly Found[]): number | null {
  const own = sampleOf(found, all)?.q;
  return found.q && own ? (100 * (found.q.value - own.value)) / ((found.q.value + own.value) / 2) : null;
}

/** The error of a result against what it is held against, and whether that is allowed; nulls where nothing is known. */
function besideKnown({ record, last, q }: Found) {
  const acceptance = last?.acceptance ?? null;
  const within = acceptance?.against === "value" ? acceptance.within : (acceptance?.passes ?? null);
  if (acceptance?.against !== "value" || !q) return { errorPercent: null, recoveryPercent: null, within };
  const { value } = acceptance.known;
  return {
    errorPercent: percentError(q.value, value, record.houseRules.percentError),
    recoveryPercent: recoveryPercent(q.value, value),
    within,
  };
}

function rowOf(found: Found, all: readonly Found[], unit: string, ownUnit: string): SeriesRow {
  const { record, last, state, q } = found;
  const { id: runId, title, sample, bench } = record;
  const role = record.series?.role ?? "sample";
  const known = besideKnown(found);
  const shown = q && last ? showQuantity(q, { ...last.definition.result, unit }, record.houseRules) : null;
  return {
    ...{ runId, title, sample, bench, role, state, done: last?.done ?? false },
    shown: shown && { value: shown.value, plusMinus: shown.plusMinus },
    value: q ? inUnit(q, unit) : null,
    u: q ? standardUncertainty(q) / unitOf(unit).factor : null,
    ...known,
    recoveryPercent: role === "spiked" ? spikeRecovery(found, all, ownUnit) : known.recoveryPercent,
    differencePercent: role === "duplicate" ? duplicateDifference(found, all) : null,
  };
}

/**
 * Results of runs of one method beside each other: what each found, in one unit, with its error where what it should be is known, the
 * difference of duplicates, the recovery of spiked samples, and the mean and scatter of all samples.
 *
 * @param records Runs of one method, in the order in which they are shown; at least one.
 * @param asked A unit that the results are shown in; one that they cannot be shown in is left aside.
 */
export function seriesTable(
  records: readonly RunRecord[],
  asked: string,
  remembered: Remembering = withoutMemory,
): SeriesTable {
  const all = records.map((record): Found => {
    const { stages, state } = evaluateRun(record, undefined, remembered);
    const last = stages.at(-1);
    return { record, last, state, q: last ? resultQuantity(last) : null };
  });
  const result = records[0] && methodOf(records[0]).stages.at(-1)?.result;
  const ownUnit = result?.unit ?? "1";
  const units = unitsLike(ownUnit);
  const unit = units.includes(asked) ? asked : ownUnit;
  // A newer version of the method may find another kind of quantity.
  const { dimension } = unitOf(unit);
  const alike = all.map((found) =>
    found.q && sameDimension(found.q.dimension, dimension) ? found : { ...found, q: null },
  );
  const rows = alike.map((found) => rowOf(found, alike, unit, ownUnit));
  const values = rows.flatMap(({ role, value, done }) =>
    done && value !== null && (role === "sample" || role === "duplicate") ? [value] : [],
  );
  return {
    ...{ rows, unit, units, name: result?.name ?? "", count: values.length },
    mean: values.length > 0 ? mean(values) : null,
    standardDeviation: values.length > 1 ? standardDeviation(values) : null,
  };
}

/** What a row says beside its result, in words. */
export function seriesRemark({
  within,
  errorPercent,
  role,
  recoveryPercent: recovery,
  differencePercent: difference,
}: SeriesRow): Phrase {
  if (role === "spiked" && recovery !== null) return msg`${toDecimals(recovery, 1)} % of what was added`;
  if (role === "duplicate" && difference !== null)
    return msg`${toDecimals(Math.abs(difference), 2)} % from its sample`;
  // Held against a limit: an error in percent says nothing there.
  if (within !== null && errorPercent === null) return within ? msg`passes its limit` : msg`fails its limit`;
  return "";
}
