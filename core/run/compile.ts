import {
  describeImbalances,
  imbalances,
  parseEquation,
  prettyFormula,
  stoichiometricRatio,
} from "../chemistry";
import {
  describeDimension,
  type Dimension,
  dimensionless,
  multiplyDimensions,
  sameDimension,
  unitOf,
} from "../quantity";
import {
  checkRelations,
  dimensionOf,
  type Expression,
  parseExpression,
  parseRelation,
  type RatioLookup,
  type Relation,
} from "../relation";
import { failure, mustHold, type Problem, type Result, success } from "../result";
import type { Input, Method, TitrationStage } from "./method";

export interface CompiledLine extends Relation {
  readonly title: string;
  readonly unit: string;
}

/** A titration stage with its relations parsed: what the evaluation works on. */
export interface CompiledStage {
  readonly definition: TitrationStage;
  readonly lines: readonly CompiledLine[];
  readonly agreeOn: Expression;
  /** Symbol of the input that is the titer. */
  readonly titer: string;
}

export interface CompiledMethod {
  readonly method: Method;
  readonly stages: ReadonlyMap<string, CompiledStage>;
  readonly ratio: RatioLookup;
}

/** ratio(of, per) by the equations of a method that hold both; those that do must not disagree. */
export function methodRatio(method: Method, of: string, per: string): Result<[number, number]> {
  const found = Object.values(method.equations).flatMap((source) => {
    const equation = parseEquation(source);
    const ratio = equation.ok ? stoichiometricRatio(equation.value, of, per) : equation;
    return ratio.ok ? [ratio.value] : [];
  });
  const [first] = found;
  const both = `both ${prettyFormula(of)} and ${prettyFormula(per)}`;
  if (!first) return failure(`No equation of this method holds ${both}`);
  if (found.some(([a, b]) => a * first[1] !== b * first[0])) {
    return failure(`The equations of this method that hold ${both} disagree about their ratio`);
  }
  return success(first);
}

const volume = unitOf("mL").dimension;

function inputDimension(input: Input, method: Method): Dimension {
  switch (input.is) {
    case "mass":
      return unitOf("g").dimension;
    case "titer":
    case "pipette":
      return volume;
    case "purity":
      return dimensionless;
    case "result": {
      const stage = method.stages.find((s) => s.key === input.stage);
      return stage?.kind === "titration" ? unitOf(stage.result.unit).dimension : dimensionless;
    }
  }
}

function compileStage(method: Method, stage: TitrationStage): Result<CompiledStage> {
  const titer = stage.inputs.find((input) => input.is === "titer")?.symbol;
  if (!titer) return failure("A titration stage needs an input that is the titer");
  const lines: CompiledLine[] = [];
  for (const { relation, title, unit } of stage.relations) {
    const parsed = parseRelation(relation);
    if (!parsed.ok) return failure(`In "${relation}": ${parsed.problem.message}`, parsed.problem.position);
    lines.push({ ...parsed.value, title, unit });
  }
  const inputs = new Map(stage.inputs.map((input) => [input.symbol, inputDimension(input, method)] as const));
  const dimensions = checkRelations(lines, inputs);
  if (!dimensions.ok) return dimensions;

  for (const { symbol, unit, source } of [...lines, { ...stage.result, source: stage.result.name }]) {
    const dimension = dimensions.value.get(symbol);
    if (!dimension) return failure(`The result ${symbol} is never computed`);
    if (!sameDimension(dimension, unitOf(unit).dimension)) {
      return failure(
        `In "${source}": ${symbol} is ${describeDimension(dimension)} and cannot be shown in ${unit}`,
      );
    }
  }
  const agreeOn = parseExpression(stage.agree.on);
  if (!agreeOn.ok) return agreeOn;
  const agreeing = dimensionOf(agreeOn.value, dimensions.value);
  if (!agreeing.ok) return agreeing;
  const per = stage.agree.per === undefined ? dimensionless : inputs.get(stage.agree.per);
  if (!per) return failure(`"${stage.agree.per}" is not read in this stage`);
  if (!sameDimension(multiplyDimensions(agreeing.value, per), volume)) {
    return failure(
      `What must agree, ${stage.agree.on}, is no titer and no titer per ${stage.agree.per ?? "amount"}`,
    );
  }
  for (const { expression } of lines) {
    const missing = missingRatio(expression, method);
    if (missing) return { ok: false, problem: missing };
  }
  return success({ definition: stage, lines, agreeOn: agreeOn.value, titer });
}

function missingRatio(expression: Expression, method: Method): Problem | null {
  switch (expression.type) {
    case "ratio": {
      const found = methodRatio(method, expression.of, expression.per);
      return found.ok ? null : found.problem;
    }
    case "binary":
      return missingRatio(expression.left, method) ?? missingRatio(expression.right, method);
    case "negate":
    case "call":
      return missingRatio(expression.argument, method);
    default:
      return null;
  }
}

/**
 * Parses and checks a method: equations for atoms and charge, relations for dimensions, ratios for their species,
 * and that every stage it builds on comes before. The first thing wrong is reported in words.
 */
export function compileMethod(method: Method): Result<CompiledMethod> {
  for (const source of Object.values(method.equations)) {
    const equation = parseEquation(source);
    if (!equation.ok)
      return failure(`Equation "${source}": ${equation.problem.message}`, equation.problem.position);
    const wrong = imbalances(equation.value);
    if (wrong.length > 0) return failure(`"${source}" does not balance: ${describeImbalances(wrong)}`);
  }
  const stages = new Map<string, CompiledStage>();
  for (const stage of method.stages) {
    if (stage.kind === "conclude") {
      if (!stages.has(stage.of)) return failure(`Stage "${stage.title}" concludes a stage that is not there`);
      continue;
    }
    const later = stage.inputs.find((input) => input.is === "result" && !stages.has(input.stage));
    if (later) return failure(`Stage "${stage.title}" builds on a stage that does not come before it`);
    const compiled = compileStage(method, stage);
    if (!compiled.ok) return failure(`Stage "${stage.title}": ${compiled.problem.message}`);
    stages.set(stage.key, compiled.value);
  }
  return success({ method, stages, ratio: rememberedRatio(method) });
}

/** Ratios are asked for at every key press, equations read once. */
function rememberedRatio(method: Method): RatioLookup {
  const known = new Map<string, [number, number]>();
  return (of, per) => {
    const key = `${of}/${per}`;
    const ratio = known.get(key) ?? mustHold(methodRatio(method, of, per));
    known.set(key, ratio);
    return ratio;
  };
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
