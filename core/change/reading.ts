import { checkField, fieldKey, stageFields, trialFields } from "../method";
import {
  endOfCorrections,
  isPreselected,
  nextTrialNumber,
  type Observation,
  type ObservationKind,
  presentObservation,
  spreadKinds,
  type TrialRecord,
} from "../record";
import { type Result, success } from "../result";
import type { RunRecord } from "../run";
import { uncapitalized, msg, type Phrase } from "../text";
import {
  type Applied,
  type ChangeContext,
  type ChangeProblem,
  conflict,
  malformed,
  missing,
  refused,
} from "./change";
import { type Inverse, supersedes } from "./inverse";
import {
  findTrial,
  holderOf,
  inHolder,
  inStage,
  inTrial,
  openStage,
  readingsAt,
  type HolderPlace,
} from "./place";

/** A reading as it was sent, before its field has checked it. */
export type NewReading = Omit<Observation, "value" | "unit" | "assignment">;

type Sent = Pick<NewReading, "id" | "symbol" | "kind" | "text"> & {
  readonly supersedes?: string | null;
  readonly point?: NewReading["point"];
};

const inUse = conflict(msg`This id is in use already, for something else`);

/**
 * A request that is sent again, since its answer was lost, names the same id: it changes nothing, and is answered as the first
 * time. The same id with other content is a fault. Null where the reading is new to this run.
 */
export function readingSentBefore(record: RunRecord, place: HolderPlace, sent: Sent): Applied | null {
  const holder = holderOf(record, sent.id);
  const there = holder?.observations.find((o) => o.id === sent.id);
  if (!holder || !there) return null;
  const same =
    holder.stageKey === place.stageKey &&
    holder.trialId === place.trialId &&
    there.symbol === sent.symbol &&
    there.kind === sent.kind &&
    there.text === sent.text.trim() &&
    there.point?.burette === sent.point?.burette &&
    (sent.supersedes === undefined || there.supersedes === sent.supersedes);
  return same ? success(null) : inUse;
}

export interface NewTrial {
  readonly id: string;
  readonly kind: TrialRecord["kind"];
  readonly label?: string | undefined;
}

/** The record with a trial that had given up its number numbered again: something is read in it again. */
export function withNumber(record: RunRecord, trialId: string): RunRecord {
  const there = findTrial(record, trialId);
  if (!there || there.trial.kind === "rough" || there.trial.number !== null) return record;
  const number = nextTrialNumber(there.stage.trials);
  return inTrial(record, trialId, (trial) => ({ ...trial, number }));
}

/**
 * The record with this trial begun where it is not there. One whose readings were all taken back has given up its number, and
 * gets the next one.
 */
export function beginTrial(
  record: RunRecord,
  stageKey: string,
  sent: NewTrial,
  context: ChangeContext,
): Result<RunRecord, ChangeProblem> {
  const opened = openStage(record, stageKey);
  if (!opened.ok) return opened;
  const { definition, stage } = opened.value;
  const there = findTrial(record, sent.id);
  if (there && there.stage.key !== stageKey) return missing(msg`This trial belongs to another stage`);
  if (!there && !context.allows(definition).trials) return malformed(msg`This stage has no trials`);
  if (there) return success(withNumber(record, sent.id));
  const begun: TrialRecord = {
    id: sent.id,
    number: sent.kind === "fine" ? nextTrialNumber(stage.trials) : null,
    label: sent.label?.trim() || null,
    kind: sent.kind,
    struck: null,
    observations: [],
  };
  return success(inStage(record, stageKey, (s) => ({ ...s, trials: [...s.trials, begun] })));
}

/** The reading that a new one stands in place of: named by it where a field holds many, else the one that stands. */
function before(
  observations: readonly Observation[],
  reading: NewReading,
  many: boolean,
): Observation | null {
  if (!many) return presentObservation(observations, reading.symbol, reading.kind);
  if (reading.supersedes === null) return null;
  const end = endOfCorrections(observations, reading.supersedes);
  return end?.id === reading.supersedes && end.value !== null ? end : null;
}

/** Why a reading may not stand in place of the one that is there; null where it says the same, false where it may. */
function contradicted(present: Observation | null, reading: NewReading): Applied | false {
  if ((present?.id ?? null) !== reading.supersedes) {
    // Two devices that read the same thing the same way agree.
    if (present && reading.supersedes === null && present.text === reading.text.trim()) return success(null);
    if (!present) return refused(msg`What you correct is no longer there: look again`);
    const { id, text, person, at } = present;
    return refused(msg`This was read as ${text} meanwhile: look again before you correct it`, {
      present: { id, text, person, at },
    });
  }
  if (present && reading.reason === null && !isPreselected(present))
    return refused(msg`Say why the reading is corrected`);
  return false;
}

interface WrittenReading {
  readonly record: RunRecord;
  readonly inverse: Inverse;
  /** What was written, in words. */
  readonly what: Phrase;
}

/**
 * Checks a reading by the rules of its field and appends it. A correction must name what stands now, and say why. Null where
 * the field says the same already.
 */
export function writeReading(
  record: RunRecord,
  place: HolderPlace,
  reading: NewReading,
): Result<WrittenReading | null, ChangeProblem> {
  const opened = openStage(record, place.stageKey);
  if (!opened.ok) return opened;
  const { definition } = opened.value;
  const { houseRules } = record;
  const observations = readingsAt(record, place);
  const fields = (place.trialId === null ? stageFields : trialFields)(definition, houseRules);
  const field = fields.find((f) => fieldKey(f) === fieldKey(reading));
  if (!field || !observations) return malformed(msg`No such reading belongs here`);
  if (reading.point && reading.kind !== "point")
    return malformed(msg`Only a point of a curve has a volume beside it`);
  const checked = checkField(field, reading.text, {
    stage: definition,
    method: record.method,
    houseRules,
    holder: { observations: [...observations] },
    ...(reading.point ? { place: reading.point } : {}),
  });
  if (!checked.ok) {
    const { message, proposal } = checked.problem;
    return refused(message, proposal === undefined ? {} : { proposal });
  }
  const present = before(observations, reading, field.many === true);
  const refusal = contradicted(present, reading);
  if (refusal) return refusal.ok ? success(null) : refusal;
  const observation: Observation = {
    ...reading,
    text: reading.text.trim(),
    value: checked.value.text,
    unit: field.unit,
  };
  const label = reading.point
    ? msg`${uncapitalized(field.label)} at ${reading.point.burette} mL`
    : uncapitalized(field.label);
  return success({
    record: inHolder(record, place, (all) => [...all, observation]),
    inverse: supersedes(reading.id, present),
    what: present ? msg`${label} corrected to ${checked.value.text}` : msg`${label} ${checked.value.text}`,
  });
}

/** Takes back the ± that stood beside a value that is now typed: it was that value's. */
export function takeBackSpread(
  record: RunRecord,
  place: HolderPlace,
  { id, symbol, kind }: { readonly id: string; readonly symbol: string; readonly kind: ObservationKind },
  context: ChangeContext,
): { readonly record: RunRecord; readonly inverses: readonly Inverse[] } {
  const observations = readingsAt(record, place);
  const cleared = (spreadKinds[kind] ?? []).flatMap((spread): [Observation, Inverse][] => {
    const present = presentObservation(observations ?? [], symbol, spread);
    if (!present) return [];
    const gone: Observation = {
      ...present,
      id: context.newId(`${id}:${spread}`),
      ...{ text: "", value: null, source: "imported" as const },
      ...{ person: context.person, at: context.now },
      supersedes: present.id,
      reason: "another value was typed",
    };
    delete gone.assignment;
    return [[gone, supersedes(gone.id, present)]];
  });
  return {
    record: inHolder(record, place, (all) => [...all, ...cleared.map(([gone]) => gone)]),
    inverses: cleared.map(([, inverse]) => inverse),
  };
}
