import { Bug } from "../result";
import { molarMass } from "../chemistry";
import {
  add,
  applied,
  divide,
  exact,
  multiply,
  power,
  type Quantity,
  raise,
  raiseDimension,
  subtract,
} from "../quantity";
import { type Algebra, type BinaryOperator, type Expression, fold, type FunctionName } from "./expression";

/** What the equations of a method say of its species. */
export interface Stoichiometry {
  /** Moles of the first for one mole of the second, as numerator and denominator. */
  readonly ratio: (of: string, per: string) => readonly [number, number];
  /** Equivalents in one mole. */
  readonly equivalents: (of: string) => number;
}

export interface Scope {
  readonly symbols: ReadonlyMap<string, Quantity>;
  readonly stoichiometry: Stoichiometry;
}

type OneArgument = Exclude<FunctionName, "mean" | "min" | "max">;

const calculus: Record<OneArgument, { f: (x: number) => number; derivative: (x: number) => number }> = {
  sqrt: { f: Math.sqrt, derivative: (x) => 0.5 / Math.sqrt(x) },
  ln: { f: Math.log, derivative: (x) => 1 / x },
  log10: { f: Math.log10, derivative: (x) => 1 / (x * Math.LN10) },
  exp: { f: Math.exp, derivative: Math.exp },
  abs: { f: Math.abs, derivative: Math.sign },
};

/** The value of a function of numbers. */
export function applyFunction(name: FunctionName, args: readonly number[]): number {
  switch (name) {
    case "mean":
      return args.reduce((sum, x) => sum + x, 0) / args.length;
    case "min":
      return Math.min(...args);
    case "max":
      return Math.max(...args);
    default:
      return calculus[name].f(args[0] ?? NaN);
  }
}

export function applyOperator(operator: BinaryOperator, a: number, b: number): number {
  switch (operator) {
    case "+":
      return a + b;
    case "-":
      return a - b;
    case "*":
      return a * b;
    case "/":
      return a / b;
    case "^":
      return a ** b;
  }
}

/** Where plain numbers come from: symbols in base units, the method's equations, and molar masses in g/mol. */
export interface NumberScope {
  readonly numbers: ReadonlyMap<string, number>;
  readonly stoichiometry: Stoichiometry;
  /** Other molar masses than the standard ones, as a simulated truth has them. */
  readonly molarMassOf?: (formula: string) => number;
}

/**
 * The value alone in base units, without dimensions or sensitivities: what a solver asks for many times over.
 * A symbol that `numbers` lacks gives NaN.
 */
export function evaluateNumber(expression: Expression, scope: NumberScope): number {
  const { numbers, stoichiometry, molarMassOf = (formula) => molarMass(formula).value } = scope;
  return fold<number>(expression, {
    leaf: (leaf) => {
      switch (leaf.type) {
        case "number":
          return leaf.unit === undefined ? leaf.value : exact(leaf.value, leaf.unit).value;
        case "symbol":
          return numbers.get(leaf.name) ?? NaN;
        case "molar-mass":
          return molarMassOf(leaf.formula);
        case "ratio": {
          const [of, per] = stoichiometry.ratio(leaf.of, leaf.per);
          return of / per;
        }
        case "equivalents":
          return stoichiometry.equivalents(leaf.of);
      }
    },
    negate: (a) => -a,
    call: applyFunction,
    binary: applyOperator,
  });
}

function applyToQuantities(name: FunctionName, args: readonly Quantity[]): Quantity {
  const [first = exact(NaN), ...rest] = args;
  switch (name) {
    case "mean":
      return divide(rest.reduce(add, first), exact(args.length));
    case "min":
      return rest.reduce((least, q) => (q.value < least.value ? q : least), first);
    case "max":
      return rest.reduce((most, q) => (q.value > most.value ? q : most), first);
    default: {
      const { f, derivative } = calculus[name];
      const dimension = name === "sqrt" ? raiseDimension(first.dimension, 0.5) : first.dimension;
      return applied(first, f(first.value), derivative(first.value), dimension);
    }
  }
}

function combineQuantities(operator: BinaryOperator, a: Quantity, b: Quantity): Quantity {
  switch (operator) {
    case "+":
      return add(a, b);
    case "-":
      return subtract(a, b);
    case "*":
      return multiply(a, b);
    case "/":
      return divide(a, b);
    case "^":
      return b.sensitivities.size === 0 ? raise(a, b.value) : power(a, b);
  }
}

/**
 * First reader: the value with its sensitivities to every leaf, by forward differentiation. min and max take the
 * sensitivities of the argument that they choose.
 * Throws on a symbol that the scope lacks: `checkRelations` refuses such relations beforehand.
 */
export function evaluate(expression: Expression, { symbols, stoichiometry }: Scope): Quantity {
  const algebra: Algebra<Quantity> = {
    leaf: (leaf) => {
      switch (leaf.type) {
        case "number":
          return exact(leaf.value, leaf.unit ?? "1");
        case "symbol": {
          const quantity = symbols.get(leaf.name);
          if (!quantity) throw new Bug(`Symbol ${leaf.name} has no value`);
          return quantity;
        }
        case "molar-mass":
          return molarMass(leaf.formula);
        case "ratio": {
          const [of, per] = stoichiometry.ratio(leaf.of, leaf.per);
          return exact(of / per);
        }
        case "equivalents":
          return exact(stoichiometry.equivalents(leaf.of));
      }
    },
    negate: (a) => multiply(exact(-1), a),
    call: applyToQuantities,
    binary: combineQuantities,
  };
  return fold(expression, algebra);
}
