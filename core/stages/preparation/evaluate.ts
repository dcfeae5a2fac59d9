import type { PreparationStage } from "../../method";
import type { CompiledStage, CompiledMethod } from "../compiled";
import type { StageRecord } from "../../record";
import { aimOf } from "./aim";
import { judgeOnce } from "../shared/accept";
import { type Earlier, type StageReading, stageFieldStates, stageInputs, compute } from "../shared/trial";
import { type PreparationEvaluation, unjudged } from "../shared/evaluation";
import { cautionsOfInput } from "../../inputs";
import { type StageContext, furtherResults, shareGroups } from "../shared/stage";
import { showQuantity } from "../shared/show";
import { sharesOfVariance } from "../../judgement";

/** Something made once: what follows from what was read. */
export function evaluateMade(
  stage: CompiledStage<PreparationStage>,
  record: StageRecord,
  context: StageContext,
): PreparationEvaluation {
  const { method, rules, earlier } = context;
  const { definition } = stage;
  const made = evaluatePreparation(stage, record, earlier, method, context);
  const { quantity, symbols, significance } = made;
  const figures = (symbol: string) => significance.get(symbol);
  return {
    ...made,
    kind: "preparation",
    aim: aimOf(stage, record, made.symbols, method, rules),
    ...unjudged,
    acceptance: judgeOnce(definition, quantity, symbols, rules),
    key: definition.key,
    definition,
    shown: quantity
      ? showQuantity(quantity, definition.result, rules, figures(definition.result.symbol))
      : null,
    also: furtherResults(
      definition.also,
      (symbol) => {
        const q = symbols.get(symbol);
        return q && quantity ? [q, figures(symbol)] : null;
      },
      rules,
    ),
    shares: quantity ? sharesOfVariance(quantity, shareGroups(method.method, stage, earlier)) : [],
  };
}

/** What was read and follows for something made once. */
export function evaluatePreparation(
  stage: CompiledStage,
  record: StageRecord,
  earlier: Earlier,
  compiled: CompiledMethod,
  reading: StageReading,
): Pick<
  PreparationEvaluation,
  "done" | "stageFields" | "missing" | "symbols" | "significance" | "quantity" | "problem" | "cautions"
> {
  const { definition } = stage;
  const { rules } = reading;
  const stageFieldsNow = stageFieldStates(definition, record, rules);
  const known = stageInputs(stage, record, earlier, { ...reading, method: compiled.method });
  const asked = known.unconfirmed ?? [];
  const missing =
    stageFieldsNow.find(
      ({ present, field }) =>
        !present &&
        (!field.optional ||
          (field.kind === "volume.taken" && asked.some(({ symbol }) => symbol === field.symbol))),
    )?.field ?? null;
  const { quantities, significance, problem } = compute(stage, known, compiled);
  const quantity = quantities.get(definition.result.symbol) ?? null;
  const cautions = definition.inputs.flatMap((input) => {
    const q = known.quantities.get(input.symbol);
    return q ? cautionsOfInput(input, q, rules) : [];
  });
  return {
    done: missing === null && quantity !== null,
    stageFields: stageFieldsNow,
    missing,
    symbols: quantities,
    significance,
    quantity,
    problem,
    cautions,
  };
}
