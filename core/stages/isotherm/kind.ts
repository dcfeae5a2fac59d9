import { perOf, type IsothermStage } from "../../method";
import { success } from "../../result";
import { msg } from "../../text";
import type { CompiledStage } from "../compiled";
import type { StageKind } from "../kind";
import { engineOf } from "../late";
import { type MethodProblem, problemOf } from "../problem";
import { heldReasons } from "../shared/allows";
import type { Fitted } from "../shared/compile";
import type { IsothermEvaluation } from "../shared/evaluation";

/** Units of K, 1/n, the capacity and b: K is the uptake at 1 mol/L. */
const fitted = ({ isotherm: { freundlich, langmuir, predicted } }: IsothermStage): Fitted[] => [
  { symbol: freundlich[0], unit: "mmol/g" },
  { symbol: freundlich[1], unit: "1" },
  { symbol: langmuir[0], unit: "mmol/g" },
  { symbol: langmuir[1], unit: "L/mol" },
  { symbol: predicted, unit: "mmol/g" },
];

/** An isotherm has no trials, and each of its bottles is known by what comes before or by a relation. */
function problem({ inputs, relations, isotherm }: IsothermStage): MethodProblem | null {
  const at = inputs.findIndex((input) => perOf(input) === "trial");
  const odd = inputs[at];
  if (odd) return problemOf("trial-in-preparation", { symbol: odd.symbol }, "inputs", at);
  const known = new Set([
    ...inputs.map(({ symbol }) => symbol),
    ...relations.map(({ relation }) => relation.split("=")[0]!.trim()),
  ]);
  for (const [i, { concentration, uptake }] of isotherm.bottles.entries()) {
    const unread = [concentration, uptake].find((symbol) => !known.has(symbol));
    if (unread !== undefined)
      return problemOf("isotherm-unread", { symbol: unread }, "isotherm", "bottles", i);
  }
  return known.has(isotherm.at)
    ? null
    : problemOf("isotherm-unread", { symbol: isotherm.at }, "isotherm", "at");
}

export const isotherm: StageKind<IsothermStage, CompiledStage<IsothermStage>, IsothermEvaluation> = {
  problem,
  fitted,
  compile: (definition, { lines }) => success({ definition, lines }),
  allows: () => ({ trials: false, trace: () => false, holds: true, expects: false, choices: {} }),
  evaluate: (stage, record, context) => engineOf("isotherm")(stage, record, context),
  begun: ({ bottles }) => bottles.length > 0,
  fact: ({ bottles, definition }) => msg`${bottles.length} of ${definition.isotherm.bottles.length} bottles`,
  reasons: (stage) => [stage.finding, ...heldReasons(stage)],
  unfinished: ({ next }) => next,
  next: ({ next }) => next,
};
