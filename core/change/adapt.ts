import { Type } from "@sinclair/typebox";
import { success } from "../result";
import { adaptations, isAdapted, methodOf, withChoices } from "../run";
import { msg } from "../text";
import { type ChangeKind, missing, refused } from "./change";
import { Closed, Key, type Made } from "./parts";

export const adaptSchema = () =>
  Type.Object(
    {
      intent: Type.Literal("adapt"),
      stageKey: Key,
      adapted: Type.Union([Type.Literal("undiluted"), Type.Literal("dry"), Type.Literal("left-out")]),
      /** False for as the method says. */
      on: Type.Boolean(),
    },
    Closed,
  );

/**
 * A stage is done otherwise than the method says: its sample is not diluted, its result is on dry basis, or it is left out with what
 * rests on it. What was read of what is left out is kept, and counts again once it is done as the method says.
 */
export const adapt: ChangeKind<Made<typeof adaptSchema>> = {
  apply(record, { stageKey, adapted, on }, context) {
    const stage = record.method.stages.find(({ key }) => key === stageKey);
    if (!stage) return missing(msg`This run has no such stage`);
    const { fits, words, refused: why } = adaptations[adapted];
    if (on && !fits(stage, methodOf(record))) return refused(why);
    if (isAdapted(record, stageKey, adapted) === on) return success(null);
    const before = record.choices ?? [];
    const choices = on
      ? [...before, { stageKey, adapted }]
      : before.filter((c) => c.stageKey !== stageKey || !("adapted" in c) || c.adapted !== adapted);
    if (!context.holdsTogether(withChoices(record.method, choices)))
      return refused(msg`The method does not work so`);
    return success({
      record: { ...record, choices },
      inverse: { do: "inputs", choices: before },
      entry: { description: msg`"${stage.title}": ${on ? words.on : words.off}` },
    });
  },
};
