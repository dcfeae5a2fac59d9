import { Type } from "@sinclair/typebox";
import { InputSchema, takenOver, wayOf } from "../inputs";
import { presentObservation } from "../record";
import { success } from "../result";
import { type RunRecord, withChoices } from "../run";
import { type ChangeKind, malformed, missing, refused } from "./change";
import { Closed, InputSymbol, Key, type Made } from "./parts";
import { msg, uncapitalized } from "../text";

export const chooseInputSchema = () =>
  Type.Object(
    {
      intent: Type.Literal("choose-input"),
      stageKey: Key,
      symbol: InputSymbol,
      /** What is read in place of the method's own; null goes back to that. */
      input: Type.Union([InputSchema, Type.Null()]),
    },
    Closed,
  );

/** Whether anything stands that was read of an input; it would mean something else for another one. */
const isRead = ({ stages }: RunRecord, stageKey: string, symbol: string): boolean =>
  stages
    .filter(({ key }) => key === stageKey)
    .flatMap(({ observations, trials }) => [observations, ...trials.map((t) => t.observations)])
    .some((all) => all.some((o) => o.symbol === symbol && presentObservation(all, symbol, o.kind)));

/**
 * Another way to read one input in this run: other glass, another weighing, stated or taken from the shelf. The method with it must
 * compile.
 */
export const chooseInput: ChangeKind<Made<typeof chooseInputSchema>> = {
  apply(record, { stageKey, symbol, input }, context) {
    const written = record.method.stages.find(({ key }) => key === stageKey);
    if (!written) return missing(msg`This run has no such stage`);
    const own = written.inputs.find((i) => i.symbol === symbol);
    if (!own || (input && input.symbol !== symbol)) return malformed(msg`This stage has no such reading`);
    if (takenOver(own)) return refused(msg`${own.label} comes from an earlier stage`);
    if (isRead(record, stageKey, symbol))
      return refused(msg`${own.label} is read already: take its readings back first`);
    const before = record.choices ?? [];
    const others = before.filter((c) => c.stageKey !== stageKey || c.input.symbol !== symbol);
    const choices = input ? [...others, { stageKey, input }] : others;
    if (JSON.stringify(choices) === JSON.stringify(before)) return success(null);
    if (!context.holdsTogether(withChoices(record.method, choices)))
      return refused(msg`The method’s relations do not work with ${own.label} obtained this way`);
    return success({
      record: { ...record, choices },
      inverse: { do: "inputs", choices: before },
      entry: {
        description: msg`way of measuring ${uncapitalized(own.label)}: ${input ? (wayOf(input) ?? input.label) : msg`as the method`}`,
      },
    });
  },
};
