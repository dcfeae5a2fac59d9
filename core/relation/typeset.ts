import { formulaTex } from "../chemistry";
import { printedUnit } from "../quantity";
import type { Expression } from "./expression";

/** How a symbol is shown: its name (`V_a`) or, in the second line of a working, its number with unit. */
export type Leaves = (
  expression: Extract<Expression, { type: "symbol" | "molar-mass" | "ratio" | "equivalents" }>,
) => string;

const precedence = (e: Expression): number => {
  if (e.type === "negate") return 1;
  if (e.type === "number" && e.unit !== undefined) return 3;
  if (e.type !== "binary") return 4;
  return { "+": 1, "-": 1, "*": 2, "/": 2, "^": 3 }[e.operator];
};

/** Third reader: TeX of an expression, with `leaves` deciding what stands for each symbol. */
export function typeset(expression: Expression, leaves: Leaves): string {
  const inner = (e: Expression, needed: number) =>
    precedence(e) < needed ? `\\left(${typeset(e, leaves)}\\right)` : typeset(e, leaves);
  switch (expression.type) {
    case "number":
      return numberTex(
        expression.text.replace(/[eE]([+-]?)(\d+)$/, "\\cdot 10^{$1$2}"),
        expression.unit ?? "",
      );
    case "symbol":
    case "molar-mass":
    case "ratio":
    case "equivalents":
      return leaves(expression);
    case "negate":
      return `-${inner(expression.argument, 2)}`;
    case "call": {
      const { name } = expression;
      const argument = expression.arguments.map((a) => typeset(a, leaves)).join(",\\, ");
      switch (name) {
        case "sqrt":
          return `\\sqrt{${argument}}`;
        case "exp":
          return `\\mathrm{e}^{${argument}}`;
        case "abs":
          return `\\left|${argument}\\right|`;
        case "mean":
          return `\\mathrm{mean}\\left(${argument}\\right)`;
        default:
          return `${{ ln: "\\ln", log10: "\\log_{10}", min: "\\min", max: "\\max" }[name]}\\left(${argument}\\right)`;
      }
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

const greek = Object.fromEntries(
  [..."αβγδεζηθικλμνξπρστυφχψωΓΔΘΛΞΠΣΦΨΩ"].map((letter, i) => [
    letter,
    "alpha beta gamma delta varepsilon zeta eta theta iota kappa lambda mu nu xi pi rho sigma tau upsilon varphi chi psi omega Gamma Delta Theta Lambda Xi Pi Sigma Phi Psi Omega".split(
      " ",
    )[i] ?? "",
  ]),
);

/** Greek letters as TeX commands. */
const letters = (text: string) =>
  [...text]
    .map((c) => (greek[c] ? `\\${greek[c]} ` : c))
    .join("")
    .trimEnd();

/** A symbol in TeX: `V_a` as V with a subscript, upright when it is longer than one letter; `ε_max` with its letter. */
export function symbolTex(name: string): string {
  const [first = "", ...rest] = name.split("_");
  const base = letters([...first].length > 1 && !/[α-ωΑ-Ω]/.test(first) ? `\\mathit{${first}}` : first);
  const subscript = rest.join(", ");
  if (subscript === "") return base;
  return `${base}_{${subscript.length > 1 ? `\\mathrm{${letters(subscript)}}` : letters(subscript)}}`;
}

/** Names of symbols, molar masses and ratios in TeX, as the first line of a working shows them. */
export const namesTex: Leaves = (e) => {
  if (e.type === "symbol") return symbolTex(e.name);
  if (e.type === "molar-mass") return `M(${formulaTex(e.formula)})`;
  if (e.type === "equivalents") return `z(${formulaTex(e.of)})`;
  return `\\dfrac{\\nu(${formulaTex(e.of)})}{\\nu(${formulaTex(e.per)})}`;
};

/** A unit behind what it belongs to, with the space between; nothing for a plain number. */
export const unitTex = (unit: string): string => {
  const printed = unit === "" ? "" : printedUnit(unit);
  return printed === "" ? "" : `~\\text{${escapeTex(printed)}}`;
};

/** A number with its unit in TeX: `0.5103~\text{g}`. */
export const numberTex = (value: string, unit: string): string => value + unitTex(unit);
