import { Type } from "@sinclair/typebox";
import { type Input, type Stated, statedOf } from "../inputs";
import { isPreselected, type Observation, type ObservationKind, presentObservation } from "../record";
import { success } from "../result";
import type { RunRecord, UsedSolution } from "../run";
import { uncapitalized, msg, unitText } from "../text";
import { type ChangeContext, type ChangeKind, malformed, refused } from "./change";
import { type Inverse, supersedes, together } from "./inverse";
import { Closed, Id, InputSymbol, Key, type Made, Reason } from "./parts";
import { inStage, openStage } from "./place";

export const takeSchema = () =>
  Type.Object(
    {
      intent: Type.Literal("take"),
      stageKey: Key,
      symbol: InputSymbol,
      assignmentId: Id,
      reason: Type.Union([Reason, Type.Null()]),
    },
    Closed,
  );

/** What a bottle states of an input, by kind of observation; null takes back what stands there. */
function statements(
  stated: Stated,
  { value, plusMinus, shape }: UsedSolution,
): readonly (readonly [ObservationKind, string | null])[] {
  const normal = shape === "normal";
  const half = normal ? null : plusMinus;
  if (stated.spreads.includes("given.standard-uncertainty"))
    return [
      ["given", value],
      ["given.plus-minus", half],
      ["given.standard-uncertainty", normal ? plusMinus : null],
    ];
  // A purity is read with a half width only: that of a rectangle with the same standard uncertainty.
  const width = normal ? String(Number((Number(plusMinus) * Math.sqrt(3)).toPrecision(4))) : half;
  return [
    ["purity", value],
    ["purity.plus-minus", width],
  ];
}

/**
 * Writes a bottle's concentration or purity into a stage, its ± with it; where that was a standard uncertainty, no typed ± may
 * stay beside it.
 */
export function writeTaken(
  record: RunRecord,
  stageKey: string,
  input: Input,
  used: UsedSolution,
  reason: string | null,
  context: ChangeContext,
): { readonly record: RunRecord; readonly inverses: readonly Inverse[] } {
  const { symbol } = input;
  const there = record.stages.find((s) => s.key === stageKey)?.observations ?? [];
  const inverses: Inverse[] = [];
  const stated = statedOf(input);
  const added = (stated ? statements(stated, used) : []).flatMap(([kind, value]): Observation[] => {
    const present = presentObservation(there, symbol, kind);
    if (value === null && !present) return [];
    const id = context.newId(`${used.assignmentId}:${kind}`);
    inverses.unshift(supersedes(id, present));
    return [
      {
        ...{ id, symbol, kind, value },
        text: value ?? "",
        unit: present && value === null ? present.unit : used.unit,
        source: "imported",
        person: context.person,
        at: context.now,
        supersedes: present?.id ?? null,
        reason: present ? (reason ?? "taken back") : reason,
        ...(value === null ? {} : { assignment: used.assignmentId }),
      },
    ];
  });
  const { solutions = [] } = record;
  const known = solutions.some((s) => s.assignmentId === used.assignmentId);
  return {
    record: inStage(known ? record : { ...record, solutions: [...solutions, used] }, stageKey, (stage) => ({
      ...stage,
      observations: [...stage.observations, ...added],
    })),
    inverses,
  };
}

/** Takes a concentration, or a purity, from a bottle on the shelf. What was only preselected gives way without a reason. */
export const take: ChangeKind<Made<typeof takeSchema>> = {
  apply(record, { stageKey, symbol, reason }, context) {
    const opened = openStage(record, stageKey);
    if (!opened.ok) return opened;
    const { definition, stage } = opened.value;
    const input = definition.inputs.find((i) => i.symbol === symbol);
    const stated = input && statedOf(input);
    if (!input || !stated?.shelf) return malformed(msg`Nothing from the shelf is used here`);
    const { bottle } = context;
    if (!bottle) return refused(msg`This bottle is no longer on the shelf: look again`);
    const { used, usedUp } = bottle;
    const { formula, unit } = stated.shelf;
    if (used.formula !== formula) return refused(msg`${used.name} is not what this stage needs`);
    if (used.unit !== unit)
      return refused(msg`It is in ${unitText(used.unit)}, and ${unitText(unit)} is needed`);
    if (usedUp) return refused(msg`${used.code} is used up`);
    const standing = presentObservation(stage.observations, symbol, stated.value);
    if (standing && !isPreselected(standing) && reason === null)
      return refused(msg`Say why another one is taken`);
    const taken = writeTaken(record, stageKey, input, used, reason, context);
    return success({
      record: taken.record,
      inverse: together(taken.inverses),
      entry: { description: msg`${uncapitalized(input.label)} taken from ${used.code}` },
    });
  },
};
