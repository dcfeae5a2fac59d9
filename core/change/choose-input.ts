import { Type } from "@sinclair/typebox";
import { InputSchema, takenOver, wayOf } from "../inputs";
import { checkField, stageFields, trialFields } from "../method";
import { stands } from "../record";
import { success } from "../result";
import { methodOf, type RunRecord, withChoices } from "../run";
import { type ChangeKind, malformed, missing, refused } from "./change";
import { Closed, InputSymbol, Key, type Made } from "./parts";
import { withUnit } from "../quantity";
import { msg, type Phrase, uncapitalized, unitText } from "../text";

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

/** What stands of an input in a stage, with what it stands beside. */
function standingOf({ stages }: RunRecord, stageKey: string, symbol: string) {
  const { observations = [], trials = [] } = stages.find(({ key }) => key === stageKey) ?? {};
  return [observations, ...trials.map((t) => t.observations)].flatMap((all) =>
    all.filter((o) => o.symbol === symbol && stands(all, o.id) && o.value !== null).map((o) => ({ o, all })),
  );
}

/**
 * What becomes of the readings of an input once it is read another way: so many are kept and do not count, since nothing reads them
 * then; a problem where one would be read in the new way and cannot be.
 */
export function readingsUnder(
  record: RunRecord,
  stageKey: string,
  symbol: string,
): { readonly kept: number; readonly problem: Phrase | null } {
  const stage = methodOf(record).stages.find(({ key }) => key === stageKey);
  if (!stage) return { kept: 0, problem: null };
  const { houseRules } = record;
  const fields = [...stageFields(stage, houseRules), ...trialFields(stage, houseRules)];
  let kept = 0;
  for (const { o, all } of standingOf(record, stageKey, symbol)) {
    const field = fields.find((f) => f.symbol === symbol && f.kind === o.kind);
    if (!field) {
      kept++;
      continue;
    }
    if (field.unit !== o.unit && (field.unit !== "" || o.unit !== "1"))
      return { kept, problem: msg`${withUnit(o.text, o.unit)} was read, not in ${unitText(field.unit)}` };
    const checked = checkField(field, o.text, { stage, houseRules, holder: { observations: [...all] } });
    if (!checked.ok) return { kept, problem: msg`${o.text} was read: ${checked.problem.message}` };
  }
  return { kept, problem: null };
}

/**
 * Another way to read one input in this run: other glass, another weighing, stated or taken from the shelf. The method with it must
 * compile. What was read of it is kept: it counts where it can be read in the new way, and counts again once it is read as before.
 */
export const chooseInput: ChangeKind<Made<typeof chooseInputSchema>> = {
  apply(record, { stageKey, symbol, input }, context) {
    const written = record.method.stages.find(({ key }) => key === stageKey);
    if (!written) return missing(msg`This run has no such stage`);
    const own = written.inputs.find((i) => i.symbol === symbol);
    if (!own || (input && input.symbol !== symbol)) return malformed(msg`This stage has no such reading`);
    if (takenOver(own)) return refused(msg`${own.label} comes from an earlier stage`);
    const before = record.choices ?? [];
    const others = before.filter(
      (c) => c.stageKey !== stageKey || !("input" in c) || c.input.symbol !== symbol,
    );
    const choices = input ? [...others, { stageKey, input }] : others;
    if (JSON.stringify(choices) === JSON.stringify(before)) return success(null);
    if (!context.holdsTogether(withChoices(record.method, choices)))
      return refused(msg`The method’s relations do not work with ${own.label} obtained this way`);
    const after = { ...record, choices };
    const { kept, problem } = readingsUnder(after, stageKey, symbol);
    if (problem !== null) return refused(problem);
    const way = msg`way of measuring ${uncapitalized(own.label)}: ${input ? (wayOf(input) ?? input.label) : msg`as the method`}`;
    return success({
      record: after,
      inverse: { do: "inputs", choices: before },
      entry: {
        description:
          kept === 0 ? way : msg`${way}; readings taken the other way are kept and do not count: ${kept}`,
      },
    });
  },
};
