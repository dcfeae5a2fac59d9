import { problemOfInput, takenIn, takenOver } from "../inputs";
import { describeImbalances, type Equation, imbalances, parseEquation } from "../chemistry";
import { describeDimension, type Dimension, isUnit, sameDimension, unitOf } from "../quantity";
import { checkRelations } from "../relation";
import { mustHold, type Result, success } from "../result";
import { type ComputedStage, concluding, type Method, resultsOf, unitOfInput } from "../method";
import type { CompiledMethod, CompiledStage } from "./compiled";
import {
  type Checked,
  checkedStoichiometry,
  limitedStoichiometry,
  type LooseStoichiometry,
  missingStoichiometry,
  parseLines,
  judgementProblem,
} from "./shared/compile";
import { faulty, inStageAt, type MethodProblem, problemOf } from "./problem";
import { compileKind, fittedSymbols, problemOfStage } from "./table";

/** Names that every object of the language has: looked up by them, something would always be found. */
const isReserved = (name: string): boolean => name in Object.prototype;

/** What is wrong with what is read in a stage, whatever its kind. */
function inputProblem(stage: ComputedStage, method: Method): MethodProblem | null {
  const seen = new Set<string>();
  for (const [i, input] of stage.inputs.entries()) {
    const { symbol } = input;
    const at = ["inputs", i] as const;
    if (isReserved(symbol)) return problemOf("symbol-reserved", { symbol }, ...at, "symbol");
    if (seen.has(symbol)) return problemOf("symbol-twice", { symbol }, ...at, "symbol");
    seen.add(symbol);
    const unit = unitOfInput(input, method);
    if (!isUnit(unit)) return problemOf("unit-unknown", { symbol, unit }, ...at);
    if (input.is === "curve" && stage.kind !== "curve")
      return problemOf("curve-misplaced", { symbol }, ...at);
    const wrong = problemOfInput(input);
    if (wrong !== null) return problemOf("input-wrong", { detail: wrong }, ...at);
    const taken = takenOver(input);
    const earlier = method.stages.find((s) => s.key === taken?.stage);
    if (!earlier || taken?.result === undefined) continue;
    const known = resultsOf(earlier).map((r) => r.symbol);
    if (!known.includes(taken.result))
      return problemOf(
        "earlier-result-unknown",
        { symbol: taken.result, title: earlier.title, known },
        ...at,
        "result",
      );
  }
  return null;
}

/** Dimensions of what relations may use: what is read, and what a fit yields. */
function knownDimensions(
  method: Method,
  stage: ComputedStage,
): Result<Map<string, Dimension>, MethodProblem> {
  const known = new Map<string, Dimension>();
  for (const input of stage.inputs) known.set(input.symbol, unitOf(unitOfInput(input, method)).dimension);
  for (const { symbol, unit } of fittedSymbols(stage)) {
    if (!isUnit(unit)) return faulty("unit-unknown", { symbol, unit });
    known.set(symbol, unitOf(unit).dimension);
  }
  return success(known);
}

/** Every result is computed, and can be shown in its unit. */
function shownProblem(stage: ComputedStage, { lines, dimensions }: Checked): MethodProblem | null {
  const [main, ...also] = resultsOf(stage);
  const shown = [
    ...lines.map((line, i) => ({ ...line, at: ["relations", i] })),
    ...(main ? [{ ...main, source: main.name, at: ["result"] }] : []),
    ...also.map((further, i) => ({ ...further, source: further.name, at: ["also", i] })),
  ];
  for (const { symbol, unit, source, at } of shown) {
    const dimension = dimensions.get(symbol);
    if (!dimension) return problemOf("result-not-computed", { symbol }, ...at);
    if (!isUnit(unit)) return problemOf("relation-unit-unknown", { source, unit }, ...at, "unit");
    if (!sameDimension(dimension, unitOf(unit).dimension))
      return problemOf(
        "not-in-unit",
        { source, symbol, dimension: describeDimension(dimension), unit },
        ...at,
        "unit",
      );
  }
  return null;
}

/** Steps and reagents tell amounts of what is read. */
function workProblem({ inputs, steps, reagents = [] }: ComputedStage): MethodProblem | null {
  const isRead = (symbol: string) => inputs.some((input) => input.symbol === symbol);
  for (const [i, step] of steps.entries()) {
    const symbol = takenIn(step);
    if (symbol !== null && !isRead(symbol)) return problemOf("step-takes-unread", { symbol }, "steps", i);
  }
  for (const [i, { measured }] of reagents.entries()) {
    if (measured !== undefined && !isRead(measured))
      return problemOf("step-takes-unread", { symbol: measured }, "reagents", i);
  }
  return null;
}

/** Ratios and equivalents that the relations ask for and the equations do not tell. */
function ratioProblem({ lines, stoichiometry }: Checked): MethodProblem | null {
  for (const [i, { expression, source }] of lines.entries()) {
    const missing = missingStoichiometry(expression, stoichiometry);
    if (missing) return problemOf("ratio-missing", { source, detail: missing }, "relations", i);
  }
  return null;
}

function compileStage(
  method: Method,
  stage: ComputedStage,
  stoichiometry: LooseStoichiometry,
): Result<CompiledStage, MethodProblem> {
  const wrong = inputProblem(stage, method) ?? workProblem(stage) ?? problemOfStage(stage, method);
  if (wrong) return { ok: false, problem: wrong };
  const parsed = parseLines(stage.relations, "relations");
  if (!parsed.ok) return parsed;
  const known = knownDimensions(method, stage);
  if (!known.ok) return known;
  const dimensions = checkRelations(parsed.value, known.value);
  if (!dimensions.ok) return faulty("relations-disagree", { detail: dimensions.problem }, "relations");
  const checked: Checked = { lines: parsed.value, dimensions: dimensions.value, stoichiometry };
  const odd =
    shownProblem(stage, checked) ?? judgementProblem(method, stage, checked) ?? ratioProblem(checked);
  return odd ? { ok: false, problem: odd } : compileKind(stage, checked, method);
}

/** The equations of a method, each for atoms and charge. */
function readEquations({ equations }: Method): Result<Equation[], MethodProblem> {
  const read: Equation[] = [];
  for (const [i, { equation: source }] of equations.entries()) {
    const equation = parseEquation(source);
    const at = ["equations", i, "equation"] as const;
    if (!equation.ok) return faulty("equation-unreadable", { source, detail: equation.problem }, ...at);
    const wrong = imbalances(equation.value);
    if (wrong.length > 0)
      return faulty("equation-unbalanced", { source, imbalances: describeImbalances(wrong) }, ...at);
    read.push(equation.value);
  }
  return success(read);
}

/** What is wrong with the place of a stage among those before it. */
function placeProblem(
  { key, inputs }: ComputedStage,
  before: ReadonlyMap<string, unknown>,
): MethodProblem | null {
  if (before.has(key)) return problemOf("stage-key-twice", { key }, "key");
  if (key === concluding.key) return problemOf("stage-key-reserved", { key }, "key");
  const later = inputs.findIndex((input) => {
    const taken = takenOver(input);
    return taken !== null && !before.has(taken.stage);
  });
  return later === -1 ? null : problemOf("stage-before-its-source", {}, "inputs", later);
}

/**
 * Parses and checks a method: equations for atoms and charge, relations for dimensions, ratios for their species, units,
 * and that every stage it builds on comes before. The first thing wrong is reported, by its code and where it is.
 */
export function compileMethod(method: Method): Result<CompiledMethod, MethodProblem> {
  const equations = readEquations(method);
  if (!equations.ok) return equations;
  const stoichiometry = limitedStoichiometry(equations.value);
  const stages = new Map<string, CompiledStage>();
  for (const [i, stage] of method.stages.entries()) {
    const misplaced = placeProblem(stage, stages);
    const compiled = misplaced
      ? { ok: false as const, problem: misplaced }
      : compileStage(method, stage, stoichiometry);
    if (!compiled.ok) return { ok: false, problem: inStageAt(i, stage.title, compiled.problem) };
    stages.set(stage.key, compiled.value);
  }
  return success({ method, stages, stoichiometry: checkedStoichiometry(stoichiometry) });
}

const compiled = new WeakMap<Method, CompiledMethod>();

/** A method that was checked before, compiled once per object. Throws when it does not pass the check. */
export function compiledMethod(method: Method): CompiledMethod {
  const known = compiled.get(method);
  if (known) return known;
  const fresh = mustHold(compileMethod(method));
  compiled.set(method, fresh);
  return fresh;
}
