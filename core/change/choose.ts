import { Type } from "@sinclair/typebox";
import { success } from "../result";
import { type ChangeKind, malformed } from "./change";
import { withChoice } from "./take-back";
import { Closed, Key, type Made } from "./parts";
import { inStage, openStage } from "./place";
import { msg } from "../text";

export const chooseSchema = () =>
  Type.Object(
    {
      intent: Type.Literal("choose"),
      stageKey: Key,
      name: Type.String({ minLength: 1, maxLength: 20 }),
      value: Type.String({ maxLength: 20 }),
    },
    Closed,
  );

/**
 * What is taken in place of what the method takes: the line, its weights, the blank, the order. The kind of the stage says which
 * there are; an empty value goes back to the method.
 */
export const choose: ChangeKind<Made<typeof chooseSchema>> = {
  apply(record, { stageKey, name, value }, context) {
    const opened = openStage(record, stageKey);
    if (!opened.ok) return opened;
    const { definition, stage } = opened.value;
    const { choices } = context.allows(definition);
    if (value !== "" && !choices[name]?.includes(value)) return malformed(msg`This cannot be chosen here`);
    const after = withChoice(stage.choices, name, value || null);
    return success({
      record: inStage(record, stageKey, (s) => ({ ...s, choices: after })),
      inverse: { do: "choose", stageId: stage.id, name, value: stage.choices?.[name] ?? null },
      entry: { description: msg`choice of ${name}: ${value || msg`as the method`}` },
    });
  },
};
