import { type EndByWay, uncertaintyOfEnd } from "../../curves";
import { resultsOf } from "../../method";
import { inUnit, toDecimals, toSignificant, withUnit } from "../../quantity";
import { numberTex, symbolTex } from "../../relation";
import { msg, type Phrase } from "../../text";
import type { CompiledStage } from "../compiled";
import { causes, guarded, step, type WorkingStep } from "../shared/board";
import type { CurveEvaluation, CurveStageEvaluation } from "../shared/evaluation";
import type { StageWorking } from "../tools";
import { wayWords } from "./ways";

/** How an equivalence point was found, in names and in numbers. */
function formulaOf({ way }: EndByWay, symbol: string): string {
  const v = symbolTex(symbol);
  return {
    fit: `\\chi^2 = \\sum \\left(\\dfrac{\\mathrm{pH} - \\mathrm{pH}(V)}{u}\\right)^2 \\to \\min`,
    "gran before": `V \\cdot 10^{-\\mathrm{pH}} = K\\,(${v} - V)`,
    "gran beyond": `(V_0 + V)\\,10^{\\mathrm{pH} - \\mathrm{p}K_w} = c\\,(V - ${v})`,
    branches: `a_1 + b_1 ${v} = a_2 + b_2 ${v}`,
    "second derivative": `\\dfrac{\\mathrm{d}^2 y}{\\mathrm{d}V^2}(${v}) = 0`,
    steepest: `\\dfrac{\\mathrm{d}y}{\\mathrm{d}V}(${v}) \\text{ largest}`,
  }[way];
}

/** What a method calls a constant that it asks for; its letter where it has no name for it. */
const nameOf = ({ definition }: CurveStageEvaluation, symbol: string): string =>
  resultsOf(definition).find((one) => one.symbol === symbol)?.name ?? symbol;

function curveSteps(trial: CurveEvaluation, stage: CurveStageEvaluation): WorkingStep[] {
  const readings = {
    key: "curve",
    label: msg`the points of the curve`,
    origin: { kind: "readings" as const, fields: trial.fields, causes: [] },
  };
  const ends = trial.ends.flatMap(({ symbol, name, taken, ways }): WorkingStep[] => {
    const q = trial.symbols.get(symbol);
    if (!q || !taken) return [];
    const value = guarded(q, "mL");
    const others: Phrase = ways.length > 1 ? msg`, one of ${ways.length} ways` : "";
    return [
      step({
        id: symbol,
        title: msg`${name}, ${wayWords[taken.way]}${others}, from ${trial.points.length} points`,
        formula: "",
        names: formulaOf(taken, symbol),
        numbers: `u(${symbolTex(symbol)}) = ${numberTex(toSignificant(uncertaintyOfEnd(taken, trial.setting.uMl), 2), "mL")}`,
        value: `${symbolTex(symbol)} = ${numberTex(value, "mL")}`,
        valueText: withUnit(value, "mL"),
        inputs: [{ ...readings, origin: { ...readings.origin, causes: causes(q, "mL") } }],
      }),
    ];
  });
  const constants = (stage.definition.curve.constants ?? []).flatMap((symbol): WorkingStep[] => {
    const q = trial.symbols.get(symbol);
    if (!q) return [];
    const value = toDecimals(inUnit(q, "1"), 3);
    const byFit = trial.ends.some(({ ways }) => ways.some(({ way }) => way === "fit"));
    return [
      step({
        id: symbol,
        title: byFit
          ? msg`${nameOf(stage, symbol)}, by the fit of the whole curve`
          : msg`${nameOf(stage, symbol)}, half way to the equivalence point`,
        formula: "",
        names: byFit ? symbolTex(symbol) : `${symbolTex(symbol)} = \\mathrm{pH} - \\lg \\dfrac{V'}{V_e - V'}`,
        numbers: "",
        value: `${symbolTex(symbol)} = ${numberTex(value, "1")}`,
        valueText: value,
      }),
    ];
  });
  return [...ends, ...constants];
}

export const curveWorking: StageWorking<CompiledStage, CurveStageEvaluation> = {
  fitted: (_board, _compiled, stage, trialId) => {
    const trial = stage.trials.find(({ id }) => id === trialId);
    return trial ? curveSteps(trial, stage) : [];
  },
  members: msg`curves`,
};
