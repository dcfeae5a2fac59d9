import { inputOf, type CurveStage } from "../../method";
import { type MethodProblem, problemOf } from "../problem";
import type { Fitted } from "../shared/compile";

/** Symbols that a curve yields for the relations: volumes of its ends, constants, protons. */
export const curveSymbols = ({ curve: { ends, constants = [], protons } }: CurveStage): Fitted[] => [
  ...ends.map(({ symbol }) => ({ symbol, unit: "mL" })),
  ...constants.map((symbol) => ({ symbol, unit: "1" })),
  ...(protons === undefined ? [] : [{ symbol: protons, unit: "1" }]),
];

/** A stage with a curve reads one, titrates nothing else, and knows its titrant where it says so. */
export function curveProblem(stage: CurveStage): MethodProblem | null {
  if (stage.inputs.some(({ is }) => is === "titer")) return problemOf("nothing-titrated", {}, "inputs");
  const curves = stage.inputs.filter(({ is }) => is === "curve");
  if (curves.length !== 1) return problemOf("curve-missing", {}, "inputs");
  const { symbol } = stage.curve.titrant;
  if (symbol !== undefined && !inputOf(stage, symbol))
    return problemOf("curve-titrant-unread", { symbol }, "curve", "titrant");
  const [jumps] = curves.map(
    (input) => input.is === "curve" && (input.reads === "pH" || input.reads === "mV"),
  );
  return jumps && stage.curve.until === undefined ? problemOf("curve-endless", {}, "curve") : null;
}
