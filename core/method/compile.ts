import { problemOfInput, takenOver, isPhotometric } from "../inputs";
import {
  describeImbalances,
  type Equation,
  imbalances,
  parseEquation,
  schemeEquivalents,
  schemeRatio,
} from "../chemistry";
import {
  describeDimension,
  type Dimension,
  dimensionless,
  divideDimensions,
  isUnit,
  multiplyDimensions,
  sameDimension,
  unitOf,
} from "../quantity";
import {
  checkRelations,
  dimensionOf,
  type Expression,
  leavesOf,
  parseExpression,
  parseRelation,
  type Relation,
  type Stoichiometry,
} from "../relation";
import { failure, mustHold, type Problem, type Result, success } from "../result";
import type { AssayStage, CalibrationStage, ComputedStage, Method, TitrationStage } from "./schema";
import { concluding, unitOfInput, inputOf, perOf, resultsOf } from "./method";

export interface CompiledLine extends Relation {
  readonly title: string;
  readonly unit: string;
}

/** A stage with its relations parsed: what the evaluation works on. */
export interface CompiledStage {
  readonly definition: ComputedStage;
  readonly lines: readonly CompiledLine[];
}

export interface CompiledTitration extends CompiledStage {
  readonly definition: TitrationStage;
  readonly agreeOn: Expression;
  /** Whether a titer, a titer per amount or the result itself is compared. */
  readonly compares: "titer" | "titer per amount" | "result";
  /** Symbol of the input that is the titer. */
  readonly titer: string;
}

/** A stage that is read on a photometer; `axis` leads to the amount in each standard, and is empty elsewhere. */
export interface CompiledAssay extends CompiledStage {
  readonly definition: AssayStage;
  readonly axis: readonly CompiledLine[];
}

export interface CompiledMethod {
  readonly method: Method;
  readonly titrations: ReadonlyMap<string, CompiledTitration>;
  readonly preparations: ReadonlyMap<string, CompiledStage>;
  readonly assays: ReadonlyMap<string, CompiledAssay>;
  readonly stoichiometry: Stoichiometry;
}

/** Names that every object of the language has: looked up by them, something would always be found. */
const isReserved = (name: string): boolean => name in Object.prototype;

const volume = unitOf("mL").dimension;

function inputProblem(stage: ComputedStage, method: Method): Problem | null {
  const seen = new Set<string>();
  for (const input of stage.inputs) {
    const { symbol } = input;
    if (isReserved(symbol)) return { message: `${symbol} cannot be a symbol` };
    if (seen.has(symbol)) return { message: `${symbol} is read twice` };
    seen.add(symbol);
    const unit = unitOfInput(input, method);
    if (!isUnit(unit)) return { message: `"${unit}", the unit of ${symbol}, is not known` };
    if (stage.kind === "preparation" && perOf(input) === "trial") {
      return { message: `${symbol} is read for each trial, but a preparation has none` };
    }
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

/** The compiled form of any stage that computes something. */
export const compiledStage = (method: CompiledMethod, key: string): CompiledStage | undefined =>
  method.titrations.get(key) ?? method.preparations.get(key) ?? method.assays.get(key);

/** What is wrong with the readings of a photometer's stage, in words. */
function assayProblem(stage: ComputedStage, method: Method): Problem | null {
  const kinds = stage.inputs.map((input) => input.is);
  const count = (is: (typeof kinds)[number]) => kinds.filter((kind) => kind === is).length;
  const assay = stage.kind === "calibration" || stage.kind === "unknown" || stage.kind === "rate";
  const odd = stage.inputs.find(isPhotometric);
  if (!assay)
    return odd ? { message: `${odd.symbol} is read on a photometer, which this stage has not` } : null;
  if (kinds.includes("titer")) return { message: "Nothing is titrated in this stage" };
  if (stage.kind === "rate")
    return count("trace") === 1 ? null : { message: "A rate needs one course of absorbance" };
  if (count("absorbance") !== 1) return { message: "Each flask needs one absorbance to be read" };
  if (stage.kind === "calibration") {
    const { symbol, values } = stage.series;
    if (inputOf(stage, symbol) === undefined || perOf(inputOf(stage, symbol)!) === "run")
      return { message: `${symbol}, which makes the series, is not read for each flask` };
    const wrong = values.find((v) => !/^\d+(\.\d+)?$/.test(v));
    return wrong === undefined ? null : { message: `"${wrong}" in the series is no number` };
  }
  for (const input of stage.inputs) {
    if (input.is !== "read-off") continue;
    const line = method.stages.find((s) => s.key === input.stage);
    if (line?.kind !== "calibration")
      return { message: `${input.symbol} is to be read off a line, but "${input.stage}" makes none` };
    if (inputOf(stage, input.reading)?.is !== "absorbance")
      return { message: `${input.reading}, by which ${input.symbol} is read off, is no absorbance` };
  }
  return kinds.includes("read-off")
    ? null
    : { message: "An unknown needs an amount that is read off a line" };
}

/** Relations parsed one by one, each with a unit that is known. */
function parseLines(source: ComputedStage["relations"]): Result<CompiledLine[]> {
  const lines: CompiledLine[] = [];
  for (const { relation, title, unit } of source) {
    const parsed = parseRelation(relation);
    if (!parsed.ok) {
      const { message, position, hint } = parsed.problem;
      return failure(`In "${relation}": ${message}`, position, hint);
    }
    if (!isUnit(unit)) return failure(`In "${relation}": "${unit}" is no unit known here`);
    lines.push({ ...parsed.value, title, unit });
  }
  return success(lines);
}

/** The amount in each standard: its lines with their dimensions. */
function compileAxis(
  stage: CalibrationStage,
  inputs: ReadonlyMap<string, Dimension>,
): Result<{ lines: CompiledLine[]; dimension: Dimension }> {
  const { symbol, unit, relations } = stage.axis;
  const lines = parseLines(relations);
  if (!lines.ok) return lines;
  const dimensions = checkRelations(lines.value, inputs);
  if (!dimensions.ok) return dimensions;
  const dimension = dimensions.value.get(symbol);
  if (!dimension) return failure(`${symbol}, the amount in a standard, is never computed`);
  if (!isUnit(unit) || !sameDimension(dimension, unitOf(unit).dimension))
    return failure(`${symbol} is ${describeDimension(dimension)} and cannot be shown in ${unit}`);
  return success({ lines: lines.value, dimension });
}

interface Checked {
  readonly axis: readonly CompiledLine[];
  readonly lines: readonly CompiledLine[];
  readonly dimensions: ReadonlyMap<string, Dimension>;
}

function compileLines(
  method: Method,
  stage: ComputedStage,
  stoichiometry: LooseStoichiometry,
): Result<Checked> {
  if (stage.kind === "titration" && !stage.inputs.some((input) => input.is === "titer")) {
    return failure("A titration stage needs an input that is the titer");
  }
  const wrong = inputProblem(stage, method);
  if (wrong) return { ok: false, problem: wrong };
  const photometer = assayProblem(stage, method);
  if (photometer) return { ok: false, problem: photometer };
  const parsed = parseLines(stage.relations);
  if (!parsed.ok) return parsed;
  const lines = parsed.value;
  const inputs = new Map(
    stage.inputs.map((input) => [input.symbol, unitOf(unitOfInput(input, method)).dimension] as const),
  );
  let axis: readonly CompiledLine[] = [];
  if (stage.kind === "calibration") {
    const made = compileAxis(stage, inputs);
    if (!made.ok) return made;
    axis = made.value.lines;
    const { intercept, slope, cut } = stage.line;
    inputs.set(intercept, dimensionless);
    inputs.set(slope, divideDimensions(dimensionless, made.value.dimension));
    if (cut !== undefined) inputs.set(cut, made.value.dimension);
  }
  if (stage.kind === "rate")
    inputs.set(stage.rate.symbol, divideDimensions(dimensionless, unitOf("s").dimension));
  const dimensions = checkRelations(lines, inputs);
  if (!dimensions.ok) return dimensions;
  for (const { symbol, unit, ...rest } of [...lines, ...resultsOf(stage)]) {
    const source = "source" in rest ? rest.source : rest.name;
    const dimension = dimensions.value.get(symbol);
    if (!dimension) return failure(`The result ${symbol} is never computed`);
    if (!isUnit(unit)) return failure(`In "${source}": "${unit}" is no unit known here`);
    if (!sameDimension(dimension, unitOf(unit).dimension)) {
      return failure(
        `In "${source}": ${symbol} is ${describeDimension(dimension)} and cannot be shown in ${unit}`,
      );
    }
  }
  const implausible = plausibilityProblem(method, stage, dimensions.value, stoichiometry);
  if (implausible) return { ok: false, problem: implausible };
  for (const { expression, source } of [...axis, ...lines]) {
    const missing = missingStoichiometry(expression, stoichiometry);
    if (missing) return failure(`In "${source}": ${missing.message}`, missing.position);
  }
  return success({ axis, lines, dimensions: dimensions.value });
}

/** What keeps the plausibility of a stage's results from being judged, in words. */
function plausibilityProblem(
  method: Method,
  stage: ComputedStage,
  dimensions: ReadonlyMap<string, Dimension>,
  stoichiometry: LooseStoichiometry,
): Problem | null {
  for (const rule of stage.plausible ?? []) {
    const own = dimensions.get(rule.symbol);
    if (!own)
      return { message: `${rule.symbol}, whose plausibility is judged, is neither read nor computed` };
    if (rule.rule === "between") {
      if (!isUnit(rule.unit) || !sameDimension(unitOf(rule.unit).dimension, own))
        return {
          message: `${rule.symbol} is ${describeDimension(own)} and cannot be held against ${rule.unit}`,
        };
      if (rule.from === undefined && rule.to === undefined)
        return { message: `${rule.symbol} is to lie between two values, and neither is there` };
    }
    if (rule.rule === "at most all") {
      const all = parseExpression(rule.all ?? "1");
      if (!all.ok) return { message: `In "${rule.all ?? ""}": ${all.problem.message}` };
      const missing = missingStoichiometry(all.value, stoichiometry);
      if (missing) return missing;
      const most = dimensionOf(all.value, new Map());
      if (!most.ok) return { message: `In "${rule.all ?? ""}": ${most.problem.message}` };
      if (!sameDimension(most.value, own))
        return {
          message: `${rule.symbol} is ${describeDimension(own)}, but all of it ${describeDimension(most.value)}`,
        };
    }
    if (rule.rule === "not above" || rule.rule === "not below") {
      const there =
        rule.stage === undefined
          ? dimensions.has(rule.other)
          : method.stages.some(
              (s) => s.key === rule.stage && resultsOf(s).some(({ symbol }) => symbol === rule.other),
            );
      if (!there) return { message: `${rule.symbol} is part of ${rule.other}, which is not found` };
    }
  }
  const withheld = (stage.also ?? []).find(({ when }) => when && !inputOf(stage, when.symbol));
  return withheld
    ? {
        message: `${withheld.symbol} is told by ${withheld.when?.symbol ?? ""}, which is not read in this stage`,
      }
    : null;
}

function compileTitration(stage: TitrationStage, { lines, dimensions }: Checked): Result<CompiledTitration> {
  const titers = stage.inputs.filter((input) => input.is === "titer");
  const [titer] = titers;
  if (!titer) return failure("No titer");
  if (titers.length > 1)
    return failure("A titration stage has one titer; another burette's volume is a delivered one");
  const agreeOn = parseExpression(stage.agree.on);
  if (!agreeOn.ok)
    return failure(`In "${stage.agree.on}": ${agreeOn.problem.message}`, agreeOn.problem.position);
  const agreeing = dimensionOf(agreeOn.value, dimensions);
  if (!agreeing.ok) return agreeing;
  const base = { definition: stage, lines, agreeOn: agreeOn.value, titer: titer.symbol };
  const accepted = acceptanceProblem(stage, dimensions);
  if (accepted) return { ok: false, problem: accepted };
  if (stage.agree.on.trim() === stage.result.symbol) return success({ ...base, compares: "result" });

  const { per } = stage.agree;
  const amount = per === undefined ? dimensionless : inputOf(stage, per) ? dimensions.get(per) : undefined;
  if (!amount) return failure(`"${per}" is not read in this stage`);
  if (!sameDimension(multiplyDimensions(agreeing.value, amount), volume)) {
    return failure(`What must agree, ${stage.agree.on}, is no titer and no titer per ${per ?? "amount"}`);
  }
  return success({ ...base, compares: per === undefined ? "titer" : "titer per amount" });
}

function acceptanceProblem(
  stage: Pick<TitrationStage, "accept" | "result" | "inputs">,
  dimensions: ReadonlyMap<string, Dimension>,
): Problem | null {
  const { accept, result } = stage;
  if (!accept) return null;
  const [known, found] = [dimensions.get(accept.symbol), dimensions.get(result.symbol)];
  if (!known || !stage.inputs.some(({ symbol }) => symbol === accept.symbol)) {
    return { message: `The result is to be held against ${accept.symbol}, which is not read in this stage` };
  }
  if (found && !sameDimension(known, found)) {
    return {
      message: `${accept.symbol} is ${describeDimension(known)} and the result ${describeDimension(found)}`,
    };
  }
  return null;
}

/** Ratios and equivalents, or why there are none. */
interface LooseStoichiometry {
  readonly ratio: (of: string, per: string) => Result<[number, number]>;
  readonly equivalents: (of: string) => Result<number>;
}

function missingStoichiometry(expression: Expression, known: LooseStoichiometry): Problem | null {
  for (const leaf of leavesOf(expression)) {
    const told =
      leaf.type === "ratio"
        ? known.ratio(leaf.of, leaf.per)
        : leaf.type === "equivalents"
          ? known.equivalents(leaf.of)
          : null;
    if (told && !told.ok)
      return leaf.at === undefined ? told.problem : { ...told.problem, position: leaf.at };
  }
  return null;
}

/** More ratios than this no method asks for; each one is a search through its equations. */
const mostRatios = 400;

/** What the equations say, each question searched for once, and not endlessly many of them. */
function limitedStoichiometry(equations: readonly Equation[]): LooseStoichiometry {
  const ratios = new Map<string, Result<[number, number]>>();
  const equivalents = new Map<string, Result<number>>();
  const once = <T>(known: Map<string, Result<T>>, key: string, find: () => Result<T>): Result<T> => {
    const there = known.get(key);
    if (there) return there;
    if (known.size >= mostRatios) return failure(`The relations ask for more than ${mostRatios} ratios`);
    const fresh = find();
    known.set(key, fresh);
    return fresh;
  };
  return {
    ratio: (of, per) => once(ratios, `${of}/${per}`, () => schemeRatio(equations, of, per)),
    equivalents: (of) => once(equivalents, of, () => schemeEquivalents(equations, of)),
  };
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
  const titrations = new Map<string, CompiledTitration>();
  const preparations = new Map<string, CompiledStage>();
  const assays = new Map<string, CompiledAssay>();
  const before = new Set<string>();
  for (const stage of method.stages) {
    if (before.has(stage.key)) return failure(`Two stages have the key "${stage.key}"`);
    if (stage.key === concluding.key)
      return failure(`Stage "${stage.title}" needs another key: "${stage.key}" is the end of every run`);
    const later = stage.inputs.find(
      (input) => takenOver(input) !== null && !before.has(takenOver(input)?.stage ?? ""),
    );
    if (later) return failure(`Stage "${stage.title}" builds on a stage that does not come before it`);
    const checked = compileLines(method, stage, told);
    const placed = checked.ok ? place(stage, checked.value, { titrations, preparations, assays }) : checked;
    if (!placed.ok) {
      const { message, position, hint } = placed.problem;
      return failure(`Stage "${stage.title}": ${message}`, position, hint);
    }
    before.add(stage.key);
  }
  return success({ method, titrations, preparations, assays, stoichiometry: checkedStoichiometry(told) });
}

interface Places {
  readonly titrations: Map<string, CompiledTitration>;
  readonly preparations: Map<string, CompiledStage>;
  readonly assays: Map<string, CompiledAssay>;
}

/** Puts a checked stage where its kind belongs. */
function place(
  stage: ComputedStage,
  checked: Checked,
  { titrations, preparations, assays }: Places,
): Result<true> {
  const { lines, axis } = checked;
  switch (stage.kind) {
    case "titration": {
      const compiled = compileTitration(stage, checked);
      if (!compiled.ok) return compiled;
      titrations.set(stage.key, compiled.value);
      break;
    }
    case "preparation":
      preparations.set(stage.key, { definition: stage, lines });
      break;
    default: {
      const wrong = stage.kind === "unknown" ? acceptanceProblem(stage, checked.dimensions) : null;
      if (wrong) return { ok: false, problem: wrong };
      assays.set(stage.key, { definition: stage, lines, axis });
    }
  }
  return success(true);
}

/** The same for relations that were checked. Throws on a ratio that the check let not pass. */
const checkedStoichiometry = (told: LooseStoichiometry): Stoichiometry => ({
  ratio: (of, per) => mustHold(told.ratio(of, per)),
  equivalents: (of) => mustHold(told.equivalents(of)),
});

const compiled = new WeakMap<Method, CompiledMethod>();

/** A method that was checked before, compiled once per object. Throws when it does not hold together. */
export function compiledMethod(method: Method): CompiledMethod {
  const known = compiled.get(method);
  if (known) return known;
  const fresh = mustHold(compileMethod(method));
  compiled.set(method, fresh);
  return fresh;
}
