import type { IsothermStage } from "../../method";
import { numberTex, symbolTex } from "../../relation";
import { inUnit, toSignificant, unitOf, withUnit } from "../../quantity";
import { success } from "../../result";
import { msg } from "../../text";
import { follow } from "../bench/bench";
import type { CompiledStage } from "../compiled";
import { step, withPlusMinus, type WorkingStep } from "../shared/board";
import type { IsothermEvaluation } from "../shared/evaluation";
import type { StageTools } from "../tools";
import { lawWords } from "./laws";

const formulas = {
  freundlich: (k: string, n: string) => `q = ${k}\\, c^{${n}}`,
  langmuir: (m: string, b: string) => `q = \\dfrac{${m}\\, ${b}\\, c}{1 + ${b}\\, c}`,
} as const;

/** How both laws were fitted, and which is taken. */
function lawSteps(
  board: Parameters<StageTools<CompiledStage, IsothermEvaluation>["working"]["fitted"]>[0],
  stage: IsothermEvaluation,
): WorkingStep[] {
  const { rules } = { rules: board.record.houseRules };
  const { isotherm } = stage.definition;
  const steps = stage.fits.map(({ law, chiSquare, degreesOfFreedom }) => {
    const [first, second] = isotherm[law];
    const [a, b] = [stage.symbols.get(first), stage.symbols.get(second)];
    const unit = law === "langmuir" ? "L/mol" : "1";
    return step({
      id: first,
      title: msg`${lawWords[law]}, fitted to the titers of ${stage.bottles.length} bottles`,
      names: formulas[law](symbolTex(first), symbolTex(second)),
      numbers: `\\chi^2 = ${toSignificant(chiSquare, 3)},\\; \\nu = ${degreesOfFreedom}`,
      value:
        a && b
          ? `${symbolTex(first)} = ${numberTex(withPlusMinus(a, "mmol/g", rules), "mmol/g")},\\; ${symbolTex(second)} = ${numberTex(withPlusMinus(b, unit, rules), unit)}`
          : "",
      valueText: a ? withUnit(toSignificant(inUnit(a, "mmol/g"), 4), "mmol/g") : "",
    });
  });
  const predicted = stage.symbols.get(isotherm.predicted);
  if (!predicted || !stage.better) return steps;
  const value = withPlusMinus(predicted, "mmol/g", rules);
  return [
    ...steps,
    step({
      id: isotherm.predicted,
      title: msg`Taken up by ${lawWords[stage.better]}, which describes the titers better`,
      names: `${symbolTex(isotherm.predicted)} = q(${symbolTex(isotherm.at)})`,
      value: `${symbolTex(isotherm.predicted)} = ${numberTex(value, "mmol/g")}`,
      valueText: withUnit(value.replace("\\pm", "±"), "mmol/g"),
    }),
  ];
}

export const isothermTools: StageTools<CompiledStage<IsothermStage>, IsothermEvaluation> = {
  planning: {
    plan: ({ definition }) => ({
      value: definition.presumed,
      message: msg`From the bottles before: nothing is read here`,
    }),
    flasks: () => 0,
    reagentFlasks: () => 0,
  },
  simulate: (stage, _record, shared, bench) => {
    const { presumed, result, isotherm, key } = stage.definition;
    const value = presumed * unitOf(result.unit).factor;
    const known = new Map([...shared, [isotherm.predicted, value]]);
    for (const symbol of [...isotherm.freundlich, ...isotherm.langmuir]) known.set(symbol, NaN);
    bench.earlier.set(key, follow(stage, known, bench));
    return success(value);
  },
  working: { fitted: (board, _compiled, stage) => lawSteps(board, stage) },
};
