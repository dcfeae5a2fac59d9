import { Type } from "@sinclair/typebox";
import { takenOver } from "../inputs";
import type { ComputedStage } from "../method";
import { stands } from "../record";
import { success } from "../result";
import { methodOf, type RunRecord } from "../run";
import { msg } from "../text";
import { type ChangeKind, missing, refused } from "./change";
import { type Inverse, supersedes, together } from "./inverse";
import { Closed, Key, type Made } from "./parts";
import { inStage, inTrial } from "./place";

export const makeAgainSchema = () =>
  Type.Object({ intent: Type.Literal("make-again"), stageKey: Key }, Closed);

/** Stages whose trials are of what a stage made: they take something of it, or expect to find it. */
function isOf(stage: ComputedStage, key: string): boolean {
  const from = "expectedFrom" in stage ? stage.expectedFrom : undefined;
  return from?.stage === key || stage.inputs.some((input) => takenOver(input)?.stage === key);
}

/**
 * What was made in a stage is put away, and made again: what was taken for it is struck through, and the trials of it are struck out.
 * All of it stays on record, and one undo brings it back.
 */
export const makeAgain: ChangeKind<Made<typeof makeAgainSchema>> = {
  apply(record, { stageKey }, context) {
    const method = methodOf(record);
    const made = method.stages.find(({ key }) => key === stageKey);
    const own = record.stages.find(({ key }) => key === stageKey);
    if (!made || !own) return missing(msg`This run has no such stage`);
    const aim = "aim" in made ? made.aim : undefined;
    if (!aim) return refused(msg`"${made.title}" has no target, so there is nothing to make again`);
    const { by } = aim;
    const inverses: Inverse[] = [];
    let after: RunRecord = record;
    const standing = own.observations.filter(
      (o) => o.symbol === by && o.value !== null && stands(own.observations, o.id),
    );
    for (const o of standing) {
      const id = context.newId(`${o.id}:again`);
      inverses.unshift(supersedes(id, o));
      const { symbol, kind, unit } = o;
      const struck = {
        ...{ id, symbol, kind, unit, text: "", value: null, source: "typed" as const },
        ...{ person: context.person, at: context.now, supersedes: o.id, reason: "made again" },
      };
      after = inStage(after, stageKey, (stage) => ({
        ...stage,
        observations: [...stage.observations, struck],
      }));
    }
    const keys = method.stages.filter((stage) => isOf(stage, stageKey)).map(({ key }) => key);
    for (const { key, trials } of record.stages) {
      if (!keys.includes(key)) continue;
      for (const trial of trials.filter(({ struck }) => struck === null)) {
        inverses.unshift({ do: "trial", trialId: trial.id, struck: null });
        const struck = { at: context.now, person: context.person, reason: "of what was made before" };
        after = inTrial(after, trial.id, (t) => ({ ...t, struck }));
      }
    }
    if (inverses.length === 0) return success(null);
    return success({
      record: after,
      inverse: together(inverses),
      entry: { description: msg`"${made.title}": made again; what was made before is struck out` },
    });
  },
};
