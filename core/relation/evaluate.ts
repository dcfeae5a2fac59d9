import { molarMass } from "../chemistry";
import { add, applied, divide, exact, multiply, type Quantity, raise, subtract } from "../quantity";
import type { Expression, FunctionName } from "./parse";

/** ratio(of, per) as numerator and denominator, by the equations of a method. */
export type RatioLookup = (of: string, per: string) => readonly [number, number];

export interface Scope {
  readonly symbols: ReadonlyMap<string, Quantity>;
  readonly ratio: RatioLookup;
}

const calculus: Record<FunctionName, { f: (x: number) => number; derivative: (x: number) => number }> = {
  sqrt: { f: Math.sqrt, derivative: (x) => 0.5 / Math.sqrt(x) },
  ln: { f: Math.log, derivative: (x) => 1 / x },
  log10: { f: Math.log10, derivative: (x) => 1 / (x * Math.LN10) },
  exp: { f: Math.exp, derivative: Math.exp },
};

/**
 * The value alone in base units, without dimensions or sensitivities: what a solver asks for many times over.
 * A symbol that `numbers` lacks gives NaN.
 */
export function evaluateNumber(
  expression: Expression,
  numbers: ReadonlyMap<string, number>,
  ratio: RatioLookup,
): number {
  switch (expression.type) {
    case "number":
      return expression.value;
    case "symbol":
      return numbers.get(expression.name) ?? NaN;
    case "molar-mass":
      return molarMass(expression.formula).value;
    case "ratio": {
      const [of, per] = ratio(expression.of, expression.per);
      return of / per;
    }
    case "negate":
      return -evaluateNumber(expression.argument, numbers, ratio);
    case "call":
      return calculus[expression.name].f(evaluateNumber(expression.argument, numbers, ratio));
    case "binary": {
      const left = evaluateNumber(expression.left, numbers, ratio);
      const right = evaluateNumber(expression.right, numbers, ratio);
      switch (expression.operator) {
        case "+":
          return left + right;
        case "-":
          return left - right;
        case "*":
          return left * right;
        case "/":
          return left / right;
        case "^":
          return left ** right;
      }
    }
  }
}

/**
 * First reader: the value with its sensitivities to every leaf, by forward differentiation.
 * Throws on a symbol that the scope lacks: `checkRelations` refuses such relations beforehand.
 */
export function evaluate(expression: Expression, scope: Scope): Quantity {
  switch (expression.type) {
    case "number":
      return exact(expression.value);
    case "symbol": {
      const quantity = scope.symbols.get(expression.name);
      if (!quantity) throw new Error(`Symbol ${expression.name} has no value`);
      return quantity;
    }
    case "molar-mass":
      return molarMass(expression.formula);
    case "ratio": {
      const [of, per] = scope.ratio(expression.of, expression.per);
      return exact(of / per);
    }
    case "negate":
      return multiply(exact(-1), evaluate(expression.argument, scope));
    case "call": {
      const argument = evaluate(expression.argument, scope);
      const { f, derivative } = calculus[expression.name];
      const halved = argument.dimension.map((power) => power / 2) as unknown as Quantity["dimension"];
      return applied(
        argument,
        f(argument.value),
        derivative(argument.value),
        expression.name === "sqrt" ? halved : argument.dimension,
      );
    }
    case "binary": {
      const left = evaluate(expression.left, scope);
      const right = evaluate(expression.right, scope);
      switch (expression.operator) {
        case "+":
          return add(left, right);
        case "-":
          return subtract(left, right);
        case "*":
          return multiply(left, right);
        case "/":
          return divide(left, right);
        case "^":
          return raise(left, right.value);
      }
    }
  }
}
