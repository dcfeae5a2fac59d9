import { failure, mustHold, type Result, success } from "../result";
import { type Formula, parseFormula, prettyFormula, speciesKey } from "./formula";
import { greatestCommonDivisor, nullSpace, rational } from "./rational";

export interface Term {
  readonly coefficient: number;
  readonly formula: Formula;
}

export interface Equation {
  readonly source: string;
  readonly left: readonly Term[];
  readonly right: readonly Term[];
}

/**
 * Reads an equation such as `2 MnO4- + 5 C2O4^2- + 16 H+ -> 2 Mn^2+ + 10 CO2 + 8 H2O`. Terms are joined by a plus
 * with space around it (so that it is not taken for a charge); the arrow is `->`, `→` or `=`.
 */
export function parseEquation(source: string): Result<Equation> {
  const arrow = /->|→|=/.exec(source);
  if (!arrow) return failure('An equation needs an arrow, as in "HCl + NaOH -> NaCl + H2O"', source.length);
  const side = (text: string, offset: number): Result<Term[]> => {
    const terms: Term[] = [];
    let at = 0;
    for (const part of text.split(/\s\+\s/)) {
      const start = offset + at + part.length - part.trimStart().length;
      at += part.length + 3;
      const match = /^(\d*)\s*(.*)$/.exec(part.trim());
      const formula = parseFormula(match?.[2] ?? "");
      const skipped = (match?.[0].length ?? 0) - (match?.[2]?.length ?? 0);
      if (!formula.ok) {
        return failure(formula.problem.message, start + skipped + (formula.problem.position ?? 0));
      }
      const coefficient = match?.[1] ? Number(match[1]) : 1;
      if (coefficient === 0) return failure("A coefficient cannot be zero", start);
      terms.push({ coefficient, formula: formula.value });
    }
    return success(terms);
  };
  const left = side(source.slice(0, arrow.index), 0);
  if (!left.ok) return left;
  const after = arrow.index + arrow[0].length;
  const right = side(source.slice(after), after);
  if (!right.ok) return right;
  return success({ source, left: left.value, right: right.value });
}

export interface Imbalance {
  /** An element's symbol, or "charge". */
  readonly what: string;
  readonly left: number;
  readonly right: number;
}

function totals(terms: readonly Term[]): Map<string, number> {
  const sums = new Map<string, number>();
  const put = (what: string, n: number) => sums.set(what, (sums.get(what) ?? 0) + n);
  for (const { coefficient, formula } of terms) {
    for (const [element, count] of formula.atoms) put(element, coefficient * count);
    put("charge", coefficient * formula.charge);
  }
  return sums;
}

/** What does not balance: each element, and the charge, whose totals differ left and right. Empty when all is well. */
export function imbalances({ left, right }: Equation): Imbalance[] {
  const [l, r] = [totals(left), totals(right)];
  return [...new Set([...l.keys(), ...r.keys()])]
    .map((what) => ({ what, left: l.get(what) ?? 0, right: r.get(what) ?? 0 }))
    .filter((found) => found.left !== found.right);
}

/** The imbalances in words, as an instructor would say them. */
export function describeImbalances(found: readonly Imbalance[]): string {
  return found
    .map(({ what, left, right }) => `${what}: ${left} on the left, ${right} on the right`)
    .join("; ");
}

/**
 * The equation with the smallest whole-number coefficients that conserve every element and the charge, found as the
 * null space of the composition matrix in exact arithmetic. Says so when none exists or when more than one does.
 */
export function balance({ source, left, right }: Equation): Result<Equation> {
  const terms = [...left, ...right];
  const kinds = [...new Set(terms.flatMap(({ formula }) => [...formula.atoms.keys()])), "charge"];
  const matrix = kinds.map((kind) =>
    terms.map(({ formula }, i) => {
      const count = kind === "charge" ? formula.charge : (formula.atoms.get(kind) ?? 0);
      return rational(i < left.length ? count : -count);
    }),
  );
  const basis = nullSpace(matrix, terms.length);
  if (basis.length === 0) return failure("No set of coefficients balances this equation");
  if (basis.length > 1) {
    return failure("More than one set of coefficients balances this: it holds two independent reactions");
  }
  const vector = basis[0] ?? [];
  const common = vector.reduce((m, { under }) => (m * under) / greatestCommonDivisor(m, under), 1n);
  const whole = vector.map(({ over, under }) => (over * common) / under);
  if (whole.every((n) => n <= 0n)) whole.forEach((n, i) => (whole[i] = -n));
  if (whole.some((n) => n <= 0n)) {
    return failure("It balances only with a species on the other side of the arrow, or left out");
  }
  const divisor = whole.reduce((d, n) => greatestCommonDivisor(d, n), 0n);
  const balanced = terms.map(({ formula }, i) => ({
    formula,
    coefficient: Number((whole[i] ?? 0n) / divisor),
  }));
  return success({ source, left: balanced.slice(0, left.length), right: balanced.slice(left.length) });
}

/** ν(of) / ν(per): moles of the first for one mole of the second. */
export function stoichiometricRatio(equation: Equation, of: string, per: string): Result<[number, number]> {
  const coefficient = (species: string): Result<number> => {
    const formula = parseFormula(species);
    if (!formula.ok) return formula;
    const key = speciesKey(formula.value);
    const term = [...equation.left, ...equation.right].find((t) => speciesKey(t.formula) === key);
    if (!term) return failure(`${prettyFormula(species)} does not stand in ${equation.source}`);
    return success(term.coefficient);
  };
  const [a, b] = [coefficient(of), coefficient(per)];
  if (!a.ok) return a;
  if (!b.ok) return b;
  return success([a.value, b.value]);
}

/** Plain Unicode form: `2 NaOH + H₂SO₄ → Na₂SO₄ + 2 H₂O`. */
export function prettyEquation(source: string): string {
  const { left, right } = mustHold(parseEquation(source));
  const side = (terms: readonly Term[]) =>
    terms
      .map(
        ({ coefficient, formula }) =>
          (coefficient === 1 ? "" : `${coefficient} `) + prettyFormula(formula.source),
      )
      .join(" + ");
  return `${side(left)} → ${side(right)}`;
}
