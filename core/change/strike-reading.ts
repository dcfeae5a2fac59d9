import { Type } from "@sinclair/typebox";
import { endOfCorrections, type Observation, takenBack } from "../record";
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
import { msg } from "../text";

export const strikeReadingSchema = () =>
  Type.Object({ intent: Type.Literal("strike-reading"), observationId: Id, reason: Reason }, Closed);
export const restoreReadingSchema = () =>
  Type.Object({ intent: Type.Literal("restore-reading"), observationId: Id }, Closed);

/** One reading of many that stands as it was looked at. */
function oneOfMany(
  record: RunRecord,
  observationId: string,
): Result<{ readonly holder: Holder; readonly end: Observation }, ChangeProblem> {
  const holder = holderOf(record, observationId);
  const end = holder && endOfCorrections(holder.observations, observationId);
  if (!holder || !end) return missing(msg`This run has no such reading`);
  if (end.kind !== "absorbance" && end.kind !== "transmittance")
    return malformed(msg`Only one of several readings can be struck out by itself`);
  return end.id === observationId
    ? success({ holder, end })
    : refused(msg`It was changed meanwhile: look again`);
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
  const back = striking ? null : holder.observations.find((o) => o.id === end.supersedes);
  if (!striking && !back) return malformed(msg`There is nothing to restore`);
  const { symbol, kind, unit } = end;
  const after: Observation = {
    ...{ symbol, kind, unit },
    id: context.newId(`${end.id}:${striking ? "struck" : "restored"}`),
    text: back?.text ?? "",
    value: back?.value ?? null,
    source: "typed",
    person: context.person,
    at: context.now,
    supersedes: end.id,
    // That word alone means that an entry was never meant to be.
    reason: reason === takenBack ? `${reason} by hand` : (reason ?? "restored"),
  };
  return success({
    record: inHolder(record, holder, (all) => [...all, after]),
    inverse: {
      do: "supersede",
      observationId: after.id,
      by: striking ? end.text : null,
      ...(striking ? {} : { reason: end.reason ?? "" }),
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
