import { problemOfInput, takenOver } from "../inputs";
import { describeImbalances, type Equation, imbalances, parseEquation } from "../chemistry";
import { describeDimension, type Dimension, isUnit, sameDimension, unitOf } from "../quantity";
import { checkRelations } from "../relation";
import { failure, mustHold, type Problem, type Result, success } from "../result";
import { type ComputedStage, concluding, type Method, resultsOf, unitOfInput } from "../method";
import type { CompiledMethod, CompiledStage } from "./compiled";
import {
  type Checked,
  checkedStoichiometry,
  limitedStoichiometry,
  type LooseStoichiometry,
  missingStoichiometry,
  parseLines,
  plausibilityProblem,
} from "./shared/compile";
import { compileKind, fittedSymbols, problemOfStage } from "./table";

/** Names that every object of the language has: looked up by them, something would always be found. */
const isReserved = (name: string): boolean => name in Object.prototype;

function inputProblem(stage: ComputedStage, method: Method): Problem | null {
  const seen = new Set<string>();
  for (const input of stage.inputs) {
    const { symbol } = input;
    if (isReserved(symbol)) return { message: `${symbol} cannot be a symbol` };
    if (seen.has(symbol)) return { message: `${symbol} is read twice` };
    seen.add(symbol);
    const unit = unitOfInput(input, method);
    if (!isUnit(unit)) return { message: `"${unit}", the unit of ${symbol}, is not known` };
    const wrong = problemOfInput(input);
    if (wrong !== null) return { message: wrong };
    const taken = takenOver(input);
    const earlier = method.stages.find((s) => s.key === taken?.stage);
    if (earlier && taken?.result !== undefined) {
      const known = resultsOf(earlier).map((r) => r.symbol);
      if (!known.includes(taken.result))
        return { message: `Stage "${earlier.title}" yields ${known.join(", ")}, not ${taken.result}` };
    }
  }
  return null;
}

/** Dimensions of what relations may use: what is read, and what a fit yields. */
function knownDimensions(method: Method, stage: ComputedStage): Result<Map<string, Dimension>> {
  const known = new Map<string, Dimension>();
  for (const input of stage.inputs) known.set(input.symbol, unitOf(unitOfInput(input, method)).dimension);
  for (const { symbol, unit } of fittedSymbols(stage)) {
    if (!isUnit(unit)) return failure(`"${unit}", the unit of ${symbol}, is not known`);
    known.set(symbol, unitOf(unit).dimension);
  }
  return success(known);
}

/** Every result is computed, and can be shown in its unit. */
function shownProblem(stage: ComputedStage, { lines, dimensions }: Checked): Problem | null {
  for (const { symbol, unit, ...rest } of [...lines, ...resultsOf(stage)]) {
    const source = "source" in rest ? rest.source : rest.name;
    const dimension = dimensions.get(symbol);
    if (!dimension) return { message: `The result ${symbol} is never computed` };
    if (!isUnit(unit)) return { message: `In "${source}": "${unit}" is no unit known here` };
    if (!sameDimension(dimension, unitOf(unit).dimension)) {
      return {
        message: `In "${source}": ${symbol} is ${describeDimension(dimension)} and cannot be shown in ${unit}`,
      };
    }
  }
  return null;
}

/** Ratios and equivalents that the relations ask for and the equations do not tell. */
function ratioProblem({ lines, stoichiometry }: Pick<Checked, "lines" | "stoichiometry">): Problem | null {
  for (const { expression, source } of lines) {
    const missing = missingStoichiometry(expression, stoichiometry);
    if (missing) return { ...missing, message: `In "${source}": ${missing.message}` };
  }
  return null;
}

function compileStage(
  method: Method,
  stage: ComputedStage,
  stoichiometry: LooseStoichiometry,
): Result<CompiledStage> {
  const wrong = inputProblem(stage, method) ?? problemOfStage(stage, method);
  if (wrong) return { ok: false, problem: wrong };
  const parsed = parseLines(stage.relations);
  if (!parsed.ok) return parsed;
  const known = knownDimensions(method, stage);
  if (!known.ok) return known;
  const dimensions = checkRelations(parsed.value, known.value);
  if (!dimensions.ok) return dimensions;
  const checked: Checked = { lines: parsed.value, dimensions: dimensions.value, stoichiometry };
  const odd =
    shownProblem(stage, checked) ??
    plausibilityProblem(method, stage, dimensions.value, stoichiometry) ??
    ratioProblem(checked);
  return odd ? { ok: false, problem: odd } : compileKind(stage, checked, method);
}

/**
 * Parses and checks a method: equations for atoms and charge, relations for dimensions, ratios for their species, units,
 * and that every stage it builds on comes before. The first thing wrong is reported in words.
 */
export function compileMethod(method: Method): Result<CompiledMethod> {
  const equations: Equation[] = [];
  for (const { equation: source } of method.equations) {
    const equation = parseEquation(source);
    if (!equation.ok)
      return failure(`Equation "${source}": ${equation.problem.message}`, equation.problem.position);
    const wrong = imbalances(equation.value);
    if (wrong.length > 0) return failure(`"${source}" does not balance: ${describeImbalances(wrong)}`);
    equations.push(equation.value);
  }
  const told = limitedStoichiometry(equations);
  const stages = new Map<string, CompiledStage>();
  for (const stage of method.stages) {
    if (stages.has(stage.key)) return failure(`Two stages have the key "${stage.key}"`);
    if (stage.key === concluding.key)
      return failure(`Stage "${stage.title}" needs another key: "${stage.key}" is the end of every run`);
    const later = stage.inputs.find(
      (input) => takenOver(input) !== null && !stages.has(takenOver(input)?.stage ?? ""),
    );
    if (later) return failure(`Stage "${stage.title}" builds on a stage that does not come before it`);
    const compiled = compileStage(method, stage, told);
    if (!compiled.ok) {
      const { message, position, hint } = compiled.problem;
      return failure(`Stage "${stage.title}": ${message}`, position, hint);
    }
    stages.set(stage.key, compiled.value);
  }
  return success({ method, stages, stoichiometry: checkedStoichiometry(told) });
}

const compiled = new WeakMap<Method, CompiledMethod>();

/** A method that was checked before, compiled once per object. Throws when it does not hold together. */
export function compiledMethod(method: Method): CompiledMethod {
  const known = compiled.get(method);
  if (known) return known;
  const fresh = mustHold(compileMethod(method));
  compiled.set(method, fresh);
  return fresh;
}
