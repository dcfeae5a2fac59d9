import { Type } from "@sinclair/typebox";
import { success } from "../result";
import { isKnowable, knownOf, methodDone, withChoices } from "../run";
import { msg } from "../text";
import { type ChangeKind, missing, refused } from "./change";
import { Closed, Key, type Made, Short } from "./parts";

export const knowStageSchema = () =>
  Type.Object(
    {
      intent: Type.Literal("know-stage"),
      stageKey: Key,
      /** Where its result is from, in a person's words; null where the stage is done here after all. */
      known: Type.Union([Type.Object({ from: Short }, Closed), Type.Null()]),
    },
    Closed,
  );

/**
 * A stage is not done, since its result is known: stated, or on the shelf. What was read in it before is kept, counts no more, and
 * counts again once the stage is done here.
 */
export const knowStage: ChangeKind<Made<typeof knowStageSchema>> = {
  apply(record, { stageKey, known }, context) {
    const stage = record.method.stages.find(({ key }) => key === stageKey);
    if (!stage) return missing(msg`This run has no such stage`);
    if (known && !isKnowable(methodDone(record), stage))
      return refused(msg`No later stage uses the result of "${stage.title}", so it is done here`);
    const before = record.choices ?? [];
    if (JSON.stringify(knownOf(record, stageKey)) === JSON.stringify(known)) return success(null);
    const others = before.filter((c) => c.stageKey !== stageKey || !("known" in c));
    const choices = known ? [...others, { stageKey, known }] : others;
    if (!context.holdsTogether(withChoices(record.method, choices)))
      return refused(msg`The method does not work without "${stage.title}"`);
    return success({
      record: { ...record, choices },
      inverse: { do: "inputs", choices: before },
      entry: {
        description: known
          ? msg`"${stage.title}": known already, not done in this run`
          : msg`"${stage.title}": done in this run`,
      },
    });
  },
};
