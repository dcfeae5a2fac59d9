import { formulaTex } from "../chemistry";
import type { Expression } from "./parse";

/** How a symbol is shown: its name (`V_a`) or, in the second line of a working, its number with unit. */
export type Leaves = (expression: Extract<Expression, { type: "symbol" | "molar-mass" | "ratio" }>) => string;

const precedence = (e: Expression): number => {
  if (e.type === "negate") return 1;
  if (e.type !== "binary") return 4;
  return { "+": 1, "-": 1, "*": 2, "/": 2, "^": 3 }[e.operator];
};

/** Third reader: TeX of an expression, with `leaves` deciding what stands for each symbol. */
export function typeset(expression: Expression, leaves: Leaves): string {
  const inner = (e: Expression, needed: number) =>
    precedence(e) < needed ? `\\left(${typeset(e, leaves)}\\right)` : typeset(e, leaves);
  switch (expression.type) {
    case "number":
      return expression.text;
    case "symbol":
    case "molar-mass":
    case "ratio":
      return leaves(expression);
    case "negate":
      return `-${inner(expression.argument, 2)}`;
    case "call": {
      const argument = typeset(expression.argument, leaves);
      if (expression.name === "sqrt") return `\\sqrt{${argument}}`;
      if (expression.name === "exp") return `\\mathrm{e}^{${argument}}`;
      return `${{ ln: "\\ln", log10: "\\log_{10}" }[expression.name]}\\left(${argument}\\right)`;
    }
    case "binary": {
      const { operator, left, right } = expression;
      switch (operator) {
        case "/":
          return `\\dfrac{${typeset(left, leaves)}}{${typeset(right, leaves)}}`;
        case "^":
          return `${inner(left, 4)}^{${typeset(right, leaves)}}`;
        case "*":
          return `${inner(left, 2)} \\cdot ${inner(right, 2)}`;
        case "+":
          return `${inner(left, 1)} + ${inner(right, 1)}`;
        case "-":
          return `${inner(left, 1)} - ${inner(right, 2)}`;
      }
    }
  }
}

const escapeTex = (text: string) => text.replace(/[%#&_$]/g, (c) => `\\${c}`);

/** A symbol in TeX: `V_a` as V with a subscript, upright when it is longer than one letter. */
export function symbolTex(name: string): string {
  const [base = "", ...rest] = name.split("_");
  const subscript = rest.join(", ");
  if (subscript === "") return base;
  return `${base}_{${subscript.length > 1 ? `\\mathrm{${subscript}}` : subscript}}`;
}

/** Names of symbols, molar masses and ratios in TeX, as the first line of a working shows them. */
export const namesTex: Leaves = (e) => {
  if (e.type === "symbol") return symbolTex(e.name);
  if (e.type === "molar-mass") return `M(${formulaTex(e.formula)})`;
  return `\\dfrac{\\nu(${formulaTex(e.of)})}{\\nu(${formulaTex(e.per)})}`;
};

/** A number with its unit in TeX: `0.5103~\mathrm{g}`. */
export function numberTex(value: string, unit: string): string {
  if (unit === "" || unit === "1") return value;
  return `${value}~\\text{${escapeTex(unit)}}`;
}
