import { Type } from "@sinclair/typebox";
import { isTakenBack, nextTrialNumber, type TrialRecord, trialWords } from "../record";
import { success } from "../result";
import type { RunRecord } from "../run";
import { type Applied, type ChangeDetail, type ChangeKind, missing, refused } from "./change";
import { Closed, Id, type Made, Reason, TrialKind } from "./parts";
import { findTrial, inTrial } from "./place";
import { msg, type Phrase } from "../text";

const ofTrial = { trialId: Id };

export const strikeSchema = () =>
  Type.Object({ intent: Type.Literal("strike"), ...ofTrial, reason: Reason }, Closed);
export const restoreSchema = () => Type.Object({ intent: Type.Literal("restore"), ...ofTrial }, Closed);
export const markSchema = () =>
  Type.Object({ intent: Type.Literal("mark"), ...ofTrial, kind: TrialKind }, Closed);
export const labelSchema = () =>
  Type.Object({ intent: Type.Literal("label"), ...ofTrial, label: Type.String({ maxLength: 40 }) }, Closed);

type Attributes = Partial<Pick<TrialRecord, "kind" | "label" | "struck" | "number">>;

/** A trial with some of its attributes changed, and how they were. */
function changed(
  record: RunRecord,
  trial: TrialRecord,
  after: Attributes,
  description: Phrase,
  detail: ChangeDetail = {},
): Applied {
  const keys = Object.keys(after) as (keyof Attributes)[];
  const before: Attributes = Object.fromEntries(keys.map((key) => [key, trial[key]]));
  return success({
    record: inTrial(record, trial.id, (t) => ({ ...t, ...after })),
    inverse: { do: "trial", trialId: trial.id, ...before },
    entry: { description, ...(Object.keys(detail).length > 0 ? { detail } : {}) },
  });
}

/** A change of one trial, which must be there. */
const trialChange = <R extends { readonly trialId: string }>(
  apply: (
    found: { readonly record: RunRecord; readonly trial: TrialRecord; readonly name: Phrase },
    request: R,
    context: Parameters<ChangeKind<R>["apply"]>[2],
  ) => Applied,
): ChangeKind<R> => ({
  apply(record, request, context) {
    const found = findTrial(record, request.trialId);
    // One that was taken back is none any more; only another reading makes it one.
    if (!found || isTakenBack(found.trial, found.stage)) return missing(msg`This run has no such trial`);
    return apply({ record, trial: found.trial, name: trialWords(found.trial) }, request, context);
  },
});

export const strike = trialChange<Made<typeof strikeSchema>>(({ record, trial, name }, request, context) => {
  if (trial.struck) return refused(msg`This trial is already struck out`);
  const struck = { at: context.now, person: context.person, reason: request.reason.trim() };
  return changed(record, trial, { struck }, msg`${name} struck out`, { why: struck.reason });
});

export const restore = trialChange<Made<typeof restoreSchema>>(({ record, trial, name }) =>
  trial.struck
    ? changed(record, trial, { struck: null }, msg`${name} restored`)
    : refused(msg`This trial is not struck out`),
);

/** Makes a trial rough, or one that counts, which gets a number where it has none. */
export const mark = trialChange<Made<typeof markSchema>>(({ record, trial, name }, { kind }) => {
  const stage = findTrial(record, trial.id)?.stage;
  const number =
    kind === "fine" && trial.number === null ? { number: nextTrialNumber(stage?.trials ?? []) } : {};
  const description = kind === "rough" ? msg`${name} marked rough` : msg`${name} counts again`;
  return changed(record, trial, { kind, ...number }, description, { from: trial.kind, to: kind });
});

export const label = trialChange<Made<typeof labelSchema>>(({ record, trial, name }, request) => {
  const after = request.label.trim() || null;
  const detail = { from: trial.label ?? "", to: after ?? "" };
  return changed(record, trial, { label: after }, msg`${name} renamed`, detail);
});
