import type { CompiledStage } from "../compiled";
import type { StageWorking } from "../tools";
import { toSignificant, withUnit } from "../../quantity";
import { orderWord } from "../../kinetics";
import { withPlusMinus, step, type WorkingStep } from "../shared/board";
import { symbolTex, numberTex } from "../../relation";
import type { HouseRules } from "../../rules";
import type { CourseEvaluation, RateEvaluation } from "../shared/evaluation";
import { msg, capitalized } from "../../text";

/** How the rate constant of a course was calculated. */
function rateSteps(
  trial: CourseEvaluation,
  { order, definition, endFitted }: RateEvaluation,
  rules: HouseRules,
): WorkingStep[] {
  const { comparison } = trial;
  const fit = comparison?.fits[order];
  const q = trial.symbols.get(definition.rate.symbol);
  if (!comparison || !fit || !q) return [];
  const count = fit.residuals.length;
  const what =
    comparison.each > 1
      ? msg`${count} means of ${comparison.each} absorbances each`
      : msg`${count} absorbances`;
  const k = symbolTex(definition.rate.symbol);
  const withEnd = endFitted && order !== 0;
  const above = withEnd ? "A - A_\\infty" : "A";
  const law = [
    `A = A_0 - ${k} t`,
    `${above} = A_0\\, e^{-${k} t}`,
    `\\dfrac{1}{${above}} = \\dfrac{1}{A_0} + ${k} t`,
  ][order];
  // Of another order than the first the constant itself is the result, in its own unit.
  const unit = order === 1 ? "1/s" : definition.result.unit;
  const value = withPlusMinus(q, unit, rules);
  return [
    step({
      id: definition.rate.symbol,
      title: msg`${capitalized(orderWord(order))} order, by least squares on ${what}`,
      formula: ["A = A0 - k t", "A = A0 exp(-k t)", "1/A = 1/A0 + k t"][order] ?? "",
      names: law ?? "",
      numbers: `A_0 = ${toSignificant(fit.initial, 4)}${withEnd ? `,\\; A_\\infty = ${toSignificant(fit.end, 3)}` : ""}`,
      value: `${k} = ${numberTex(value, unit)}`,
      valueText: withUnit(value.replace("\\pm", "±"), unit),
    }),
  ];
}

export const rateWorking: StageWorking<CompiledStage, RateEvaluation> = {
  fitted: ({ record }, _compiled, stage, trialId) => {
    const course = stage.trials.find(({ id }) => id === trialId);
    return course ? rateSteps(course, stage, record.houseRules) : [];
  },
};
