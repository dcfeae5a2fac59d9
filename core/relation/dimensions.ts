import { molarMass } from "../chemistry";
import {
  describeDimension,
  type Dimension,
  dimensionless,
  divideDimensions,
  multiplyDimensions,
  raiseDimension,
  sameDimension,
  unitOf,
} from "../quantity";
import { failure, type Result, success } from "../result";
import { constantOf, type Expression, positionOf } from "./expression";
import type { Relation } from "./parse";
import { msg } from "../text";

/** An expression as it would be typed again, for messages and plain working. */
export function expressionText(expression: Expression): string {
  switch (expression.type) {
    case "number":
      return expression.unit === undefined ? expression.text : `${expression.text} [${expression.unit}]`;
    case "symbol":
      return expression.name;
    case "molar-mass":
      return `M(${expression.formula})`;
    case "ratio":
      return `ratio(${expression.of}, ${expression.per})`;
    case "equivalents":
      return `equivalents(${expression.of})`;
    case "negate":
      return expression.argument.type === "binary"
        ? `-(${expressionText(expression.argument)})`
        : `-${expressionText(expression.argument)}`;
    case "call":
      return `${expression.name}(${expression.arguments.map(expressionText).join(", ")})`;
    case "binary": {
      const wrap = (e: Expression, closest: boolean) =>
        (e.type === "binary" && closest) || e.type === "negate"
          ? `(${expressionText(e)})`
          : expressionText(e);
      const { operator } = expression;
      const tight = operator !== "+" && operator !== "-";
      const looser = (e: Expression) =>
        e.type === "binary" && (operator === "^" || e.operator === "+" || e.operator === "-");
      const left = wrap(expression.left, tight && looser(expression.left));
      const right = wrap(expression.right, tight || operator === "-");
      return `${left} ${operator} ${right}`;
    }
  }
}

/** What was meant by a symbol that is not known: the same letters in another case, or without their subscript's line. */
function nearest(name: string, known: readonly string[]): string | undefined {
  const bare = (text: string) => text.toLowerCase().replaceAll("_", "");
  return known.find((other) => bare(other) === bare(name));
}

type Of<T extends Expression["type"]> = Extract<Expression, { type: T }>;
type Symbols = ReadonlyMap<string, Dimension>;

function dimensionOfSymbol({ name, at }: Of<"symbol">, symbols: Symbols): Result<Dimension> {
  const dimension = symbols.get(name);
  if (dimension) return success(dimension);
  const known = [...symbols.keys()];
  const close = nearest(name, known);
  return failure(
    msg`"${name}" has no value before this line. Available: ${known.join(", ")}`,
    at,
    close === undefined ? undefined : msg`Is ${close} meant?`,
  );
}

/** Of a power: a plain number above anything, or anything plain above a base without unit. */
function dimensionOfPower(power: Expression, base: Dimension, exponent: Dimension): Result<Dimension> {
  const constant = constantOf(power);
  if (constant !== null) return success(raiseDimension(base, constant));
  if (sameDimension(base, dimensionless) && sameDimension(exponent, dimensionless)) return success(base);
  return failure(
    msg`A power must be a plain number, as in x ^ 2; or base and power both without unit`,
    positionOf(power),
    msg`Divide by the unit first, as in ${expressionText(power)} / ${"1 [mL]"}`,
  );
}

function dimensionOfBinary({ operator, left, right }: Of<"binary">, symbols: Symbols): Result<Dimension> {
  const first = dimensionOf(left, symbols);
  const second = dimensionOf(right, symbols);
  if (!first.ok) return first;
  if (!second.ok) return second;
  if (operator === "*") return success(multiplyDimensions(first.value, second.value));
  if (operator === "/") return success(divideDimensions(first.value, second.value));
  if (operator === "^") return dimensionOfPower(right, first.value, second.value);
  if (sameDimension(first.value, second.value)) return first;
  const [a, b] = [expressionText(left), expressionText(right)];
  const [da, db] = [describeDimension(first.value), describeDimension(second.value)];
  const cannot = operator === "+" ? msg`they cannot be added` : msg`one cannot be taken from the other`;
  return failure(msg`${a} is ${da} and ${b} is ${db}: ${cannot}`, positionOf(left));
}

/** Second reader: the dimension of an expression, or why it has none, with where and how to mend it. */
export function dimensionOf(expression: Expression, symbols: Symbols): Result<Dimension> {
  switch (expression.type) {
    case "ratio":
    case "equivalents":
      return success(dimensionless);
    case "number":
      return success(expression.unit === undefined ? dimensionless : unitOf(expression.unit).dimension);
    case "molar-mass":
      return success(molarMass(expression.formula).dimension);
    case "symbol":
      return dimensionOfSymbol(expression, symbols);
    case "negate":
      return dimensionOf(expression.argument, symbols);
    case "call":
      return dimensionOfCall(expression, symbols);
    case "binary":
      return dimensionOfBinary(expression, symbols);
  }
}

function dimensionOfCall(
  { name, arguments: args }: Extract<Expression, { type: "call" }>,
  symbols: ReadonlyMap<string, Dimension>,
): Result<Dimension> {
  const found: Dimension[] = [];
  for (const argument of args) {
    const dimension = dimensionOf(argument, symbols);
    if (!dimension.ok) return dimension;
    found.push(dimension.value);
  }
  const [first = dimensionless] = found;
  switch (name) {
    case "sqrt":
      return success(raiseDimension(first, 0.5));
    case "abs":
      return success(first);
    case "mean":
    case "min":
    case "max": {
      const odd = found.findIndex((dimension) => !sameDimension(dimension, first));
      const [a, b] = [args[0], args[odd]];
      if (odd < 0 || !a || !b) return success(first);
      return failure(
        msg`${name} needs quantities of one kind, but ${expressionText(a)} is ${describeDimension(first)} and ${expressionText(b)} is ${describeDimension(found[odd] ?? first)}`,
        positionOf(b),
      );
    }
    default: {
      const [argument] = args;
      if (!argument || sameDimension(first, dimensionless)) return success(dimensionless);
      return failure(
        msg`${name} takes a plain number, but ${expressionText(argument)} is ${describeDimension(first)}: divide it by its unit first`,
        positionOf(argument),
        msg`As in ${name}(${expressionText(argument)} / ${"1 [mL]"})`,
      );
    }
  }
}

/**
 * Checks a chain of relations line by line and returns the dimensions of all symbols, those read and those computed.
 * The problem names the relation it was found in.
 */
export function checkRelations(
  relations: readonly Relation[],
  inputs: ReadonlyMap<string, Dimension>,
): Result<Map<string, Dimension>> {
  const symbols = new Map(inputs);
  for (const { symbol, expression, source } of relations) {
    const dimension = dimensionOf(expression, symbols);
    if (!dimension.ok) {
      const { message, position, hint } = dimension.problem;
      return failure(msg`In "${source}": ${message}`, position, hint);
    }
    if (symbols.has(symbol)) return failure(msg`In "${source}": ${symbol} is already defined`, 0);
    symbols.set(symbol, dimension.value);
  }
  return success(symbols);
}
