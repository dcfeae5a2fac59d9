import { failure, mustHold, type Result, success } from "../result";
import { type Formula, formulaMhchem, parseFormula, prettyFormula, speciesKey } from "./formula";
import { fraction, greatestCommonDivisor, nullSpace } from "./rational";
import { joined, msg, type Phrase } from "../text";

export interface Term {
  readonly coefficient: number;
  readonly formula: Formula;
}

export interface Equation {
  readonly source: string;
  readonly left: readonly Term[];
  readonly right: readonly Term[];
}

const longestEquation = 600;
const mostMoles = 10_000;

/**
 * Reads an equation such as `2 MnO4- + 5 C2O4^2- + 16 H+ -> 2 Mn^2+ + 10 CO2 + 8 H2O`. Terms are joined by a plus
 * with space around it (so that it is not taken for a charge); the arrow is `->`, `→` or `=`.
 */
export function parseEquation(source: string): Result<Equation> {
  if (source.length > longestEquation)
    return failure(msg`An equation has at most ${longestEquation} characters`, longestEquation);
  const arrow = /->|→|=/.exec(source);
  if (!arrow)
    return failure(msg`An equation needs an arrow, as in "HCl + NaOH -> NaCl + H2O"`, source.length);
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
      if (coefficient > mostMoles) return failure(msg`A coefficient is at most ${mostMoles}`, start);
      if (coefficient === 0) return failure(msg`A coefficient cannot be zero`, start);
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
    .filter((found) => Math.abs(found.left - found.right) > 1e-9);
}

/** The imbalances in words, as an instructor would say them. */
export function describeImbalances(found: readonly Imbalance[]): Phrase {
  return joined(
    found.map(
      ({ what, left, right }) =>
        msg`${what === "charge" ? msg`charge` : what}: ${left} on the left, ${right} on the right`,
    ),
    "; ",
  );
}

/**
 * Smallest whole numbers by which the species' atoms and charges sum to zero: the null space of the composition matrix in
 * exact arithmetic, one signed number a species. Says so when there is none, or more than one independent set.
 */
export function conservingNumbers(species: readonly Formula[]): Result<bigint[]> {
  const kinds = [...new Set(species.flatMap(({ atoms }) => [...atoms.keys()])), "charge"];
  const matrix = kinds.map((kind) =>
    species.map(({ atoms, charge }) => fraction(kind === "charge" ? charge : (atoms.get(kind) ?? 0))),
  );
  const basis = nullSpace(matrix, species.length);
  if (basis.length === 0) return failure(msg`No set of coefficients balances this equation`);
  if (basis.length > 1) {
    return failure(msg`More than one set of coefficients balances this: it holds two independent reactions`);
  }
  const vector = basis[0] ?? [];
  const common = vector.reduce((m, { under }) => (m * under) / greatestCommonDivisor(m, under), 1n);
  const whole = vector.map(({ over, under }) => (over * common) / under);
  const divisor = whole.reduce((d, n) => greatestCommonDivisor(d, n), 0n);
  return success(whole.map((n) => n / divisor));
}

/**
 * The equation with the smallest whole-number coefficients that conserve every element and the charge. Says so when none
 * exists, when more than one does, and when one would have to be zero or negative.
 */
export function balance({ source, left, right }: Equation): Result<Equation> {
  const terms = [...left, ...right];
  const twice = repeated(terms);
  if (twice) return failure(msg`${prettyFormula(twice)} appears twice`);
  const found = conservingNumbers(terms.map(({ formula }) => formula));
  if (!found.ok) return found;
  // Products count against reactants: signs are turned so that the reactants' are positive.
  const sign = (found.value[0] ?? 0n) < 0n ? -1n : 1n;
  const coefficients = found.value.map((n, i) => Number(n * sign) * (i < left.length ? 1 : -1));
  if (coefficients.some((n) => n <= 0)) {
    return failure(msg`It balances only if a species moves to the other side of the arrow, or is left out`);
  }
  const balanced = terms.map(({ formula }, i) => ({ formula, coefficient: coefficients[i] ?? NaN }));
  return success({ source, left: balanced.slice(0, left.length), right: balanced.slice(left.length) });
}

function repeated(terms: readonly Term[]): string | null {
  const keys = terms.map(({ formula }) => speciesKey(formula));
  const again = keys.findIndex((key, i) => keys.indexOf(key) < i);
  return terms[again]?.formula.source ?? null;
}

/** ν(of) / ν(per): moles of the first for one mole of the second. */
export function stoichiometricRatio(equation: Equation, of: string, per: string): Result<[number, number]> {
  const coefficient = (species: string): Result<number> => {
    const formula = parseFormula(species);
    if (!formula.ok) return formula;
    const key = speciesKey(formula.value);
    const term = [...equation.left, ...equation.right].find((t) => speciesKey(t.formula) === key);
    if (!term) return failure(msg`${prettyFormula(species)} does not appear in ${equation.source}`);
    return success(term.coefficient);
  };
  const [a, b] = [coefficient(of), coefficient(per)];
  if (!a.ok) return a;
  if (!b.ok) return b;
  return success([a.value, b.value]);
}

const side = (terms: readonly Term[], write: (source: string) => string) =>
  terms
    .map(
      ({ coefficient, formula }) =>
        (coefficient === 1 ? "" : `${coefficient} `) + write(formula.source.trim()),
    )
    .join(" + ");

/** An equation as it would be typed: `2 MnO4- + 5 C2O4^2- + 16 H+ -> 2 Mn^2+ + 10 CO2 + 8 H2O`. */
export const equationText = ({ left, right }: Pick<Equation, "left" | "right">): string =>
  `${side(left, (f) => f)} -> ${side(right, (f) => f)}`;

/** Plain Unicode form: `2 NaOH + H₂SO₄ → Na₂SO₄ + 2 H₂O`. Throws on a source that is no equation. */
export function prettyEquation(source: string): string {
  const { left, right } = mustHold(parseEquation(source));
  return `${side(left, prettyFormula)} → ${side(right, prettyFormula)}`;
}

/** Typeset form for mhchem: `\\ce{2 NaOH + H2SO4 -> Na2SO4 + 2 H2O}`. Throws on a source that is no equation. */
export function equationMhchem(source: string): string {
  const { left, right } = mustHold(parseEquation(source));
  return `\\ce{${side(left, formulaMhchem)} -> ${side(right, formulaMhchem)}}`;
}
