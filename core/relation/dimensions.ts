import { molarMass } from "../chemistry";
import {
  describeDimension,
  type Dimension,
  dimensionless,
  divideDimensions,
  multiplyDimensions,
  raiseDimension,
  sameDimension,
} from "../quantity";
import { failure, type Result, success } from "../result";
import type { Expression, Relation } from "./parse";

/** An expression as it would be typed again, for messages and plain working. */
export function expressionText(expression: Expression): string {
  switch (expression.type) {
    case "number":
      return expression.text;
    case "symbol":
      return expression.name;
    case "molar-mass":
      return `M(${expression.formula})`;
    case "ratio":
      return `ratio(${expression.of}, ${expression.per})`;
    case "negate":
      return expression.argument.type === "binary"
        ? `-(${expressionText(expression.argument)})`
        : `-${expressionText(expression.argument)}`;
    case "call":
      return `${expression.name}(${expressionText(expression.argument)})`;
    case "binary": {
      const wrap = (e: Expression, closest: boolean) =>
        e.type === "binary" && closest ? `(${expressionText(e)})` : expressionText(e);
      const tight = expression.operator !== "+" && expression.operator !== "-";
      const looser = (e: Expression) => e.type === "binary" && (e.operator === "+" || e.operator === "-");
      const left = wrap(expression.left, tight && looser(expression.left));
      const right = wrap(expression.right, tight || expression.operator === "-");
      return `${left} ${expression.operator} ${right}`;
    }
  }
}

/** Second reader: the dimension of an expression, or why it has none. */
export function dimensionOf(
  expression: Expression,
  symbols: ReadonlyMap<string, Dimension>,
): Result<Dimension> {
  switch (expression.type) {
    case "number":
    case "ratio":
      return success(dimensionless);
    case "molar-mass":
      return success(molarMass(expression.formula).dimension);
    case "symbol": {
      const dimension = symbols.get(expression.name);
      if (dimension) return success(dimension);
      const known = [...symbols.keys()].join(", ");
      return failure(
        `"${expression.name}" is neither read nor computed before this line. Known here: ${known}`,
      );
    }
    case "negate":
      return dimensionOf(expression.argument, symbols);
    case "call": {
      const argument = dimensionOf(expression.argument, symbols);
      if (!argument.ok) return argument;
      if (expression.name === "sqrt") return success(raiseDimension(argument.value, 0.5));
      if (sameDimension(argument.value, dimensionless)) return argument;
      return failure(
        `${expression.name} takes a plain number, but ${expressionText(expression.argument)} is ` +
          `${describeDimension(argument.value)}: divide it by its unit first`,
      );
    }
    case "binary": {
      const { operator } = expression;
      const left = dimensionOf(expression.left, symbols);
      const right = dimensionOf(expression.right, symbols);
      if (!left.ok) return left;
      if (!right.ok) return right;
      if (operator === "*") return success(multiplyDimensions(left.value, right.value));
      if (operator === "/") return success(divideDimensions(left.value, right.value));
      if (operator === "^") {
        if (expression.right.type !== "number") return failure("A power must be a plain number, as in x ^ 2");
        return success(raiseDimension(left.value, expression.right.value));
      }
      if (sameDimension(left.value, right.value)) return left;
      const [a, b] = [expressionText(expression.left), expressionText(expression.right)];
      const [da, db] = [describeDimension(left.value), describeDimension(right.value)];
      return failure(
        operator === "+"
          ? `${a} is ${da} and ${b} is ${db}: they cannot be added`
          : `${a} is ${da} and ${b} is ${db}: one cannot be taken from the other`,
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
    if (!dimension.ok) return failure(`In "${source}": ${dimension.problem.message}`);
    if (symbols.has(symbol)) return failure(`In "${source}": ${symbol} already has a meaning`);
    symbols.set(symbol, dimension.value);
  }
  return success(symbols);
}
