export type BinaryOperator = "+" | "-" | "*" | "/" | "^";

/** The functions that a relation knows, with how many arguments each takes. */
export const functions = {
  sqrt: "one",
  ln: "one",
  log10: "one",
  exp: "one",
  abs: "one",
  mean: "several",
  min: "several",
  max: "several",
} as const;
export type FunctionName = keyof typeof functions;

/** `at` is where the leaf stands in what was typed. */
interface Placed {
  readonly at?: number;
}

/** The tree that all readers of a relation share. */
export type Expression =
  | (Placed & {
      readonly type: "number";
      readonly value: number;
      readonly text: string;
      /** The unit in square brackets behind it; a plain number has none. */
      readonly unit?: string;
    })
  | (Placed & { readonly type: "symbol"; readonly name: string })
  /** M(formula): a molar mass. */
  | (Placed & { readonly type: "molar-mass"; readonly formula: string })
  /** ratio(of, per): moles of the first for one mole of the second, by the method's equations. */
  | (Placed & { readonly type: "ratio"; readonly of: string; readonly per: string })
  /** equivalents(of): equivalents in one mole, by the method's equations. */
  | (Placed & { readonly type: "equivalents"; readonly of: string })
  | { readonly type: "negate"; readonly argument: Expression }
  | { readonly type: "call"; readonly name: FunctionName; readonly arguments: readonly Expression[] }
  | {
      readonly type: "binary";
      readonly operator: BinaryOperator;
      readonly left: Expression;
      readonly right: Expression;
    };

export type LeafExpression = Exclude<Expression, { type: "negate" | "call" | "binary" }>;

/** What a reader makes of each kind of node: values, numbers, cells, draws. */
export interface Algebra<T> {
  readonly leaf: (leaf: LeafExpression) => T;
  readonly negate: (a: T) => T;
  readonly call: (name: FunctionName, args: readonly T[]) => T;
  readonly binary: (operator: BinaryOperator, a: T, b: T) => T;
}

/** Reads a tree from its leaves up. */
export function fold<T>(expression: Expression, algebra: Algebra<T>): T {
  switch (expression.type) {
    case "negate":
      return algebra.negate(fold(expression.argument, algebra));
    case "call":
      return algebra.call(
        expression.name,
        expression.arguments.map((argument) => fold(argument, algebra)),
      );
    case "binary":
      return algebra.binary(
        expression.operator,
        fold(expression.left, algebra),
        fold(expression.right, algebra),
      );
    default:
      return algebra.leaf(expression);
  }
}

/** All leaves of an expression, from left to right. */
export function leavesOf(expression: Expression): LeafExpression[] {
  switch (expression.type) {
    case "negate":
      return leavesOf(expression.argument);
    case "call":
      return expression.arguments.flatMap(leavesOf);
    case "binary":
      return [...leavesOf(expression.left), ...leavesOf(expression.right)];
    default:
      return [expression];
  }
}

/** The symbols that an expression reads, in order of appearance. */
export const symbolsIn = (expression: Expression): string[] => [
  ...new Set(leavesOf(expression).flatMap((leaf) => (leaf.type === "symbol" ? [leaf.name] : []))),
];

/** Where an expression begins in what was typed. */
export const positionOf = (expression: Expression): number | undefined => leavesOf(expression)[0]?.at;

/** The number that an expression is when it holds plain numbers alone, as an exponent does; null otherwise. */
export function constantOf(expression: Expression): number | null {
  if (expression.type === "number") return expression.unit === undefined ? expression.value : null;
  if (expression.type !== "negate") return null;
  const inner = constantOf(expression.argument);
  return inner === null ? null : -inner;
}
