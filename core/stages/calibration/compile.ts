import { type CalibrationStage, inputOf, type Method, perOf, unitOfInput } from "../../method";
import { describeDimension, isUnit, sameDimension, unitOf } from "../../quantity";
import { checkRelations } from "../../relation";
import { type Result, success } from "../../result";
import type { CompiledLine, CompiledStage } from "../compiled";
import { faulty, type MethodProblem, problemOf } from "../problem";
import { assayProblem, type Checked, type Fitted, missingStoichiometry, parseLines } from "../shared/compile";

export interface CompiledCalibration extends CompiledStage<CalibrationStage> {
  /** Lines that lead to the amount in each standard. */
  readonly axis: readonly CompiledLine[];
}

/** The amount in each standard: its lines, checked for dimensions. */
function compileAxis(stage: CalibrationStage, method: Method): Result<CompiledLine[], MethodProblem> {
  const { symbol, unit, relations } = stage.axis;
  const lines = parseLines(relations, "axis", "relations");
  if (!lines.ok) return lines;
  const inputs = stage.inputs.map(
    (input) => [input.symbol, unitOf(unitOfInput(input, method)).dimension] as const,
  );
  const dimensions = checkRelations(lines.value, new Map(inputs));
  if (!dimensions.ok)
    return faulty("relations-disagree", { detail: dimensions.problem }, "axis", "relations");
  const dimension = dimensions.value.get(symbol);
  if (!dimension) return faulty("axis-not-computed", { symbol }, "axis", "symbol");
  if (!isUnit(unit) || !sameDimension(dimension, unitOf(unit).dimension))
    return faulty(
      "not-in-unit",
      { source: null, symbol, dimension: describeDimension(dimension), unit },
      ...["axis", "unit"],
    );
  return lines;
}

export function calibrationProblem(stage: CalibrationStage, method: Method): MethodProblem | null {
  const read = assayProblem(stage, "absorbance");
  if (read) return read;
  const { symbol, values } = stage.series;
  const taken = inputOf(stage, symbol);
  if (taken === undefined || perOf(taken) === "run")
    return problemOf("series-once", { symbol }, "series", "symbol");
  const at = values.findIndex((v) => !/^\d+(\.\d+)?$/.test(v));
  const value = values[at];
  if (value !== undefined) return problemOf("series-no-number", { value }, "series", "values", at);
  const axis = compileAxis(stage, method);
  return axis.ok ? null : axis.problem;
}

/** Unit of one over a quantity: L/mg for mg/L, 1/mL for mL. */
export function inverseUnit(unit: string): string {
  if (unit === "1" || (unit.startsWith("%") && unit !== "% w/v")) return "1";
  if (unit === "% w/v") return "L/g";
  const [over = "", under, ...more] = unit.split("/");
  if (more.length > 0 || /[\s()·*^-]/.test(unit)) return `1/(${unit})`;
  return under === undefined ? `1/${over}` : `${under}/${over}`;
}

/** What the line yields: its intercept, its slope, and where it meets the axis. */
export const lineSymbols = ({ line: { intercept, slope, cut }, axis }: CalibrationStage): Fitted[] => [
  { symbol: intercept, unit: "1" },
  { symbol: slope, unit: inverseUnit(axis.unit) },
  ...(cut === undefined ? [] : [{ symbol: cut, unit: axis.unit }]),
];

export function compileCalibration(
  stage: CalibrationStage,
  { lines, stoichiometry }: Checked,
  method: Method,
): Result<CompiledCalibration, MethodProblem> {
  const axis = compileAxis(stage, method);
  if (!axis.ok) return axis;
  for (const [i, { expression, source }] of axis.value.entries()) {
    const missing = missingStoichiometry(expression, stoichiometry);
    if (missing) return faulty("ratio-missing", { source, detail: missing }, "axis", "relations", i);
  }
  return success({ definition: stage, lines, axis: axis.value });
}
