import { Type } from "@sinclair/typebox";
import { endOfCorrections, type Observation, type ObservationKind, takenBack } from "../record";
import { success, type Result } from "../result";
import type { RunRecord } from "../run";
import {
  type Applied,
  type ChangeContext,
  type ChangeKind,
  malformed,
  missing,
  refused,
  type ChangeProblem,
} from "./change";
import { Closed, Id, type Made, Reason } from "./parts";
import { holderOf, inHolder, type Holder } from "./place";
import { withNumber } from "./reading";
import { msg } from "../text";

export const strikeReadingSchema = () =>
  Type.Object({ intent: Type.Literal("strike-reading"), observationId: Id, reason: Reason }, Closed);
export const restoreReadingSchema = () =>
  Type.Object({ intent: Type.Literal("restore-reading"), observationId: Id }, Closed);

/** Readings of which there are many: each can be struck out by itself. */
const ofMany: ReadonlySet<ObservationKind> = new Set(["absorbance", "transmittance", "point"]);

/** One reading of many that stands as it was looked at. */
function oneOfMany(
  record: RunRecord,
  observationId: string,
): Result<{ readonly holder: Holder; readonly end: Observation }, ChangeProblem> {
  const holder = holderOf(record, observationId);
  const end = holder && endOfCorrections(holder.observations, observationId);
  if (!holder || !end) return missing(msg`This run has no such reading`);
  if (!ofMany.has(end.kind)) return malformed(msg`Only one of several readings can be struck out by itself`);
  return end.id === observationId
    ? success({ holder, end })
    : refused(msg`It was changed meanwhile: look again`);
}

/** The observation that strikes a reading out, or brings `back` what it was. */
function after(
  end: Observation,
  back: Observation | null,
  reason: string | null,
  { newId, person, now: at }: ChangeContext,
): Observation {
  const { symbol, kind, unit, point } = end;
  return {
    ...{ symbol, kind, unit, person, at },
    id: newId(`${end.id}:${back ? "restored" : "struck"}`),
    text: back?.text ?? "",
    value: back?.value ?? null,
    source: "typed",
    supersedes: end.id,
    // That word alone means that an entry was never meant to be.
    reason: reason === takenBack ? `${reason} by hand` : (reason ?? "restored"),
    ...(point ? { point } : {}),
  };
}

/** Strikes one reading of many out (`reason`), or brings it back (null); the reading itself stays. */
function strikeOne(
  record: RunRecord,
  observationId: string,
  reason: string | null,
  context: ChangeContext,
): Applied {
  const found = oneOfMany(record, observationId);
  if (!found.ok) return found;
  const { holder, end } = found.value;
  const striking = reason !== null;
  if (striking === (end.value === null))
    return refused(striking ? msg`It is struck out already` : msg`It counts already`);
  const back = striking ? null : (holder.observations.find((o) => o.id === end.supersedes) ?? null);
  if (!striking && !back) return malformed(msg`There is nothing to restore`);
  const written = after(end, back, reason, context);
  const read = inHolder(record, holder, (all) => [...all, written]);
  return success({
    record: striking || holder.trialId === null ? read : withNumber(read, holder.trialId),
    inverse: {
      do: "supersede",
      observationId: written.id,
      by: striking ? end.text : null,
      ...(striking ? {} : { reason: end.reason ?? "" }),
      ...(end.point ? { point: end.point } : {}),
    },
    entry: {
      description: striking ? msg`reading ${end.text} struck out` : msg`reading ${back?.text ?? ""} restored`,
    },
  });
}

export const strikeReading: ChangeKind<Made<typeof strikeReadingSchema>> = {
  apply: (record, { observationId, reason }, context) =>
    strikeOne(record, observationId, reason.trim(), context),
};

export const restoreReading: ChangeKind<Made<typeof restoreReadingSchema>> = {
  apply: (record, { observationId }, context) => strikeOne(record, observationId, null, context),
};
