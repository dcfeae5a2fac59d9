import { Type } from "@sinclair/typebox";
import { ExpectedSchema } from "../method/schema";
import { withUnit } from "../quantity";
import { success } from "../result";
import { methodOf } from "../run";
import { msg } from "../text";
import { type ChangeKind, malformed, missing } from "./change";
import { Closed, Key, type Made } from "./parts";

export const expectSchema = () =>
  Type.Object(
    {
      intent: Type.Literal("expect"),
      stageKey: Key,
      /** Null where nothing is expected any more. */
      expected: Type.Union([ExpectedSchema(), Type.Null()]),
    },
    Closed,
  );

/** What a person expects of a titration before its first trial, by which its end is looked for. */
export const expectResult: ChangeKind<Made<typeof expectSchema>> = {
  apply(record, { stageKey, expected }, context) {
    const stage = record.method.stages.find(({ key }) => key === stageKey);
    if (!stage) return missing(msg`This run has no such stage`);
    if (!context.allows(stage).expects) return malformed(msg`Nothing is titrated in this stage`);
    const before = record.choices ?? [];
    const others = before.filter((c) => c.stageKey !== stageKey || !("expected" in c));
    const choices = expected ? [...others, { stageKey, expected }] : others;
    if (JSON.stringify(choices) === JSON.stringify(before)) return success(null);
    const { unit } = methodOf(record).stages.find(({ key }) => key === stageKey)?.result ?? stage.result;
    const amount = expected && withUnit(String(expected.value), expected.in === "mL" ? "mL" : unit);
    return success({
      record: { ...record, choices },
      inverse: { do: "inputs", choices: before },
      entry: {
        description: amount
          ? msg`"${stage.title}": about ${amount} expected`
          : msg`"${stage.title}": nothing expected`,
      },
    });
  },
};
