import { type CalibrationStage, inputOf, type Method, perOf, unitOfInput } from "../../method";
import { describeDimension, isUnit, sameDimension, unitOf } from "../../quantity";
import { checkRelations } from "../../relation";
import { failure, type Problem, type Result, success } from "../../result";
import type { CompiledLine, CompiledStage } from "../compiled";
import { assayProblem, type Checked, type Fitted, missingStoichiometry, parseLines } from "../shared/compile";

export interface CompiledCalibration extends CompiledStage<CalibrationStage> {
  /** Lines that lead to the amount in each standard. */
  readonly axis: readonly CompiledLine[];
}

/** The amount in each standard: its lines, checked for dimensions. */
function compileAxis(stage: CalibrationStage, method: Method): Result<CompiledLine[]> {
  const { symbol, unit, relations } = stage.axis;
  const lines = parseLines(relations);
  if (!lines.ok) return lines;
  const inputs = stage.inputs.map(
    (input) => [input.symbol, unitOf(unitOfInput(input, method)).dimension] as const,
  );
  const dimensions = checkRelations(lines.value, new Map(inputs));
  if (!dimensions.ok) return dimensions;
  const dimension = dimensions.value.get(symbol);
  if (!dimension) return failure(`${symbol}, the amount in a standard, is never computed`);
  if (!isUnit(unit) || !sameDimension(dimension, unitOf(unit).dimension))
    return failure(`${symbol} is ${describeDimension(dimension)} and cannot be shown in ${unit}`);
  return lines;
}

export function calibrationProblem(stage: CalibrationStage, method: Method): Problem | null {
  const read = assayProblem(stage, "absorbance");
  if (read) return read;
  const { symbol, values } = stage.series;
  const taken = inputOf(stage, symbol);
  if (taken === undefined || perOf(taken) === "run")
    return { message: `${symbol}, which makes the series, is not read for each flask` };
  const wrong = values.find((v) => !/^\d+(\.\d+)?$/.test(v));
  if (wrong !== undefined) return { message: `"${wrong}" in the series is no number` };
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
): Result<CompiledCalibration> {
  const axis = compileAxis(stage, method);
  if (!axis.ok) return axis;
  for (const { expression, source } of axis.value) {
    const missing = missingStoichiometry(expression, stoichiometry);
    if (missing) return failure(`In "${source}": ${missing.message}`, missing.position);
  }
  return success({ definition: stage, lines, axis: axis.value });
}
