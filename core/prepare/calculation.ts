import { type Equation, molarMass, parseEquation, schemeRatio } from "../chemistry";
import { isUnit, unitOf, withUnit } from "../quantity";
import {
  evaluateNumber,
  type Leaves,
  namesTex,
  numberTex,
  parseRelation,
  symbolTex,
  typeset,
} from "../relation";
import { failure, mustHold, type Result, success } from "../result";
import { msg, type Phrase } from "../text";

export interface KnownNumber {
  readonly symbol: string;
  readonly value: number;
  readonly unit: string;
}

export interface CalculationLine {
  /** `symbol = expression`. */
  readonly relation: string;
  readonly title: string;
  readonly unit: string;
}

/** One line of a small calculation: names, numbers, value, in TeX; and the value as a number in its unit. */
export interface CalculatedStep {
  readonly title: string;
  readonly names: string;
  readonly numbers: string;
  readonly value: string;
  readonly text: Phrase;
  readonly number: number;
  readonly unit: string;
}

/** Five figures, or all that were typed: enough to follow by hand. */
export const fiveFigures = (x: number): string => {
  if (!Number.isFinite(x)) return "–";
  const rounded = Number(x.toPrecision(5));
  return Math.abs(rounded) >= 1e6 || (rounded !== 0 && Math.abs(rounded) < 1e-4)
    ? rounded.toExponential().replace("e", " × 10^").replace("^+", "^")
    : String(rounded);
};

const tex = (x: number): string =>
  fiveFigures(x).replace(/ × 10\^(-?\d+)/, (_, power: string) => ` \\cdot 10^{${power}}`);

/**
 * A small calculation from exact numbers, with its working: each relation with names, then with numbers, then its value.
 * Ratios are taken from the equations. Says so when a relation, a formula or an equation does not hold.
 */
export function calculate(
  known: readonly KnownNumber[],
  lines: readonly CalculationLine[],
  equations: readonly string[] = [],
): Result<CalculatedStep[]> {
  const parsed: Equation[] = [];
  for (const source of equations) {
    const equation = parseEquation(source);
    if (!equation.ok) return equation;
    parsed.push(equation.value);
  }
  const numbers = new Map(known.map(({ symbol, value, unit }) => [symbol, value * unitOf(unit).factor]));
  const shown = new Map(known.map(({ symbol, value, unit }) => [symbol, numberTex(String(value), unit)]));
  const stoichiometry = {
    ratio: (of: string, per: string) => mustHold(schemeRatio(parsed, of, per)),
    equivalents: () => 1,
  };
  const numbersTex: Leaves = (e) => {
    if (e.type === "symbol") return shown.get(e.name) ?? symbolTex(e.name);
    if (e.type === "molar-mass") return numberTex(tex(molarMass(e.formula).value), "g/mol");
    if (e.type === "ratio") return `\\dfrac{${stoichiometry.ratio(e.of, e.per).join("}{")}}`;
    return namesTex(e);
  };
  const steps: CalculatedStep[] = [];
  for (const { relation, title, unit } of lines) {
    const read = parseRelation(relation);
    if (!read.ok) return read;
    if (!isUnit(unit)) return failure(msg`"${unit}" is not a known unit`);
    const { symbol, expression } = read.value;
    const value = evaluateNumber(expression, { numbers, stoichiometry });
    const number = value / unitOf(unit).factor;
    if (!Number.isFinite(number)) return failure(msg`These numbers give no result: check for a zero`);
    numbers.set(symbol, value);
    shown.set(symbol, numberTex(tex(number), unit));
    steps.push({
      title,
      names: `${symbolTex(symbol)} = ${typeset(expression, namesTex)}`,
      numbers: `= ${typeset(expression, numbersTex)}`,
      value: `= ${numberTex(tex(number), unit)}`,
      text: withUnit(fiveFigures(number), unit),
      number,
      unit,
    });
  }
  return success(steps);
}
