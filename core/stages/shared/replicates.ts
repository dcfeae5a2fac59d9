import { type CombinedResult, sharesOfVariance } from "../../judgement";
import type { TrialEvaluation } from "./evaluation";
import type { CompiledStage } from "../compiled";
import { type StageContext, combineResult, furtherResults, shareGroups } from "./stage";
import { showQuantity } from "./show";
import type { StageRecord } from "../../record";
import { stageFieldStates } from "./trial";
import { msg, type Phrase } from "../../text";

interface Combined {
  readonly combined: CombinedResult | null;
  readonly members: readonly TrialEvaluation[];
}

export function combine(
  stage: CompiledStage,
  members: readonly TrialEvaluation[],
  context: StageContext,
): Combined {
  const { key, result } = stage.definition;
  return { members, combined: combineResult(members, result.symbol, key, context.rules) };
}

/** What every stage that averages over flasks or cuvettes shows of its result. */
export function resultViews(stage: CompiledStage, { combined, members }: Combined, context: StageContext) {
  const { definition } = stage;
  const { method, rules, earlier } = context;
  return {
    combined,
    shown: combined ? showQuantity(combined.quantity, definition.result, rules) : null,
    also: furtherResults(
      definition.also,
      (symbol) => {
        const further = combineResult(members, symbol, definition.key, rules);
        return further && [further.quantity, undefined];
      },
      rules,
    ),
    shares: combined ? sharesOfVariance(combined.quantity, shareGroups(method.method, stage, earlier)) : [],
  };
}

/** What is read once and was not typed yet, in words: nothing follows without it. */
export function stillWanting(
  stage: CompiledStage,
  record: StageRecord,
  { rules }: StageContext,
): Phrase | null {
  const { field } =
    stageFieldStates(stage.definition, record, rules).find((f) => !f.present && !f.field.optional) ?? {};
  return field ? msg`${field.label} is still to be typed` : null;
}
