import { Type } from "@sinclair/typebox";
import { success } from "../result";
import { dilutionOf, isUndiluted, withChoices } from "../run";
import { msg, uncapitalized } from "../text";
import { type ChangeKind, missing, refused } from "./change";
import { Closed, Key, type Made } from "./parts";

export const undiluteSchema = () =>
  Type.Object({ intent: Type.Literal("undilute"), stageKey: Key, undiluted: Type.Boolean() }, Closed);

/** A sample is titrated as it is, without the dilution of its method. What was read of the dilution is kept, and counts once it is made. */
export const undilute: ChangeKind<Made<typeof undiluteSchema>> = {
  apply(record, { stageKey, undiluted }, context) {
    const stage = record.method.stages.find(({ key }) => key === stageKey);
    if (!stage) return missing(msg`This run has no such stage`);
    const dilution = dilutionOf(stage);
    if (!dilution) return refused(msg`"${stage.title}" dilutes nothing that could be left out`);
    if (isUndiluted(record, stageKey) === undiluted) return success(null);
    const before = record.choices ?? [];
    const others = before.filter((c) => c.stageKey !== stageKey || !("undiluted" in c));
    const choices = undiluted ? [...others, { stageKey, undiluted: true as const }] : others;
    if (!context.holdsTogether(withChoices(record.method, choices)))
      return refused(msg`The method does not work without this dilution`);
    return success({
      record: { ...record, choices },
      inverse: { do: "inputs", choices: before },
      entry: {
        description: undiluted
          ? msg`${uncapitalized(dilution.taken.label)}: not diluted`
          : msg`${uncapitalized(dilution.taken.label)}: diluted as the method says`,
      },
    });
  },
};
