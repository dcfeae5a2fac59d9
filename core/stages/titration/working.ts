import type { CompiledStage } from "../compiled";
import type { StageWorking } from "../tools";
import { listed, msg } from "../../text";
import { guarded, type WorkingStep } from "../shared/board";
import { symbolTex, numberTex } from "../../relation";
import { toDecimals, withUnit } from "../../quantity";
import { membersOf, type TitrationEvaluation } from "../shared/evaluation";
import { buretteDecimals, type HouseRules } from "../../rules";

/** Where the house averages titers: their mean, and the result that follows from it. */
function titersStep(stage: TitrationEvaluation, houseRules: HouseRules): WorkingStep | null {
  const { combined, definition, meanTiterMl } = stage;
  if (!combined || meanTiterMl === null) return null;
  const { unit, symbol } = definition.result;
  const decimals = buretteDecimals(houseRules);
  const members = membersOf(stage);
  const titers = members.map((t) => toDecimals(t.titerMl ?? 0, decimals));
  const titer = symbolTex(definition.inputs.find((input) => input.is === "titer")?.symbol ?? "V");
  const mean = toDecimals(meanTiterMl, decimals + 1);
  const value = guarded(combined.quantity, unit);
  return {
    id: "mean",
    title: msg`Mean titer of trials ${listed(members.map((t) => t.name))}, and the result calculated from it`,
    formula: msg`mean of ${titers.join(", ")} mL = ${mean} mL`,
    names: `\\bar{${titer}} = \\dfrac{1}{n} \\sum_i ${titer}`,
    numbers: `= \\dfrac{${titers.join(" + ")}}{${titers.length}} = ${numberTex(mean, "mL")}`,
    value: `\\Rightarrow ${symbolTex(symbol)} = ${numberTex(value, unit)}`,
    valueText: withUnit(value, unit),
    inputs: [],
  };
}

export const titrationWorking: StageWorking<CompiledStage, TitrationEvaluation> = {
  fitted: () => [],
  members: msg`the concordant trials`,
  mean: titersStep,
};
