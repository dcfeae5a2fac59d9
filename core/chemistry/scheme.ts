import { failure, type Result, success } from "../result";
import { type Equation, stoichiometricRatio, type Term } from "./equation";
import { parseFormula, prettyFormula, speciesKey } from "./formula";
import { equivalentsPerMole } from "./oxidation";
import { greatestCommonDivisor } from "./rational";
import { msg } from "../text";

/** Species that stand in many reactions without linking them. */
const commonplace = new Set(
  ["H2O", "H+", "H3O+", "OH-", "e-"].flatMap((f) => {
    const formula = parseFormula(f);
    return formula.ok ? [speciesKey(formula.value)] : [];
  }),
);

/** A species in an equation, with its moles for one mole of what the search began with. */
interface Reached {
  readonly species: string;
  readonly ratio: readonly [number, number];
}

function lowest(over: number, under: number): [number, number] {
  const divisor = Number(greatestCommonDivisor(BigInt(over), BigInt(under)));
  return [over / divisor, under / divisor];
}

const same = ([a, b]: readonly [number, number], [c, d]: readonly [number, number]) => a * d === c * b;

const coefficientsOf = (terms: readonly Term[]): Map<string, number> =>
  new Map([...terms].reverse().map(({ formula, coefficient }) => [speciesKey(formula), coefficient]));

/**
 * Ratios of `target` to `start` along intermediates: from an equation that holds `start`, by a product that a later equation
 * uses up, on to one that holds `target`. Each equation is visited once, in their order. Of a species that is reached in an
 * equation by more than two ratios two are followed: that they disagree is all that anybody asks of them.
 */
function alongIntermediates(
  equations: readonly Equation[],
  start: string,
  target: string,
): [number, number][] {
  const found: [number, number][] = [];
  const sides = equations.map(({ left, right }) => {
    const [l, r] = [coefficientsOf(left), coefficientsOf(right)];
    return { left: l, right: r, all: new Map([...r, ...l]) };
  });
  const reached = equations.map((): Reached[] => []);
  const reach = (i: number, one: Reached) => {
    const known = reached[i]?.filter((r) => r.species === one.species) ?? [];
    if (known.length < 2 && !known.some((r) => same(r.ratio, one.ratio))) reached[i]?.push(one);
  };
  sides.forEach(({ all }, i) => {
    if (all.has(start)) reach(i, { species: start, ratio: [1, 1] });
  });
  sides.forEach(({ all, right }, i) => {
    for (const { species, ratio } of reached[i] ?? []) {
      const per = all.get(species) ?? 1;
      for (const [product, coefficient] of right) {
        if (commonplace.has(product)) continue;
        const made = lowest(ratio[0] * coefficient, ratio[1] * per);
        sides.forEach((later, j) => {
          const used = j > i ? later.left.get(product) : undefined;
          if (used === undefined) return;
          const end = later.all.get(target);
          if (end === undefined) reach(j, { species: product, ratio: made });
          else found.push(lowest(made[0] * end, made[1] * used));
        });
      }
    }
  });
  return found;
}

/**
 * ν(of) / ν(per) over a whole scheme of equations in the order in which they happen: by an equation that holds both,
 * else along intermediates that one makes and a later one uses up (iodine that is released, then titrated). Says so when
 * no way leads from one to the other, or when two ways disagree.
 */
export function schemeRatio(
  equations: readonly Equation[],
  of: string,
  per: string,
): Result<[number, number]> {
  const [target, start] = [parseFormula(of), parseFormula(per)];
  if (!target.ok) return target;
  if (!start.ok) return start;
  const [targetKey, startKey] = [speciesKey(target.value), speciesKey(start.value)];
  const direct = equations.flatMap((equation) => {
    const ratio = stoichiometricRatio(equation, of, per);
    return ratio.ok ? [ratio.value] : [];
  });
  const found =
    direct.length > 0
      ? direct
      : [
          ...alongIntermediates(equations, startKey, targetKey),
          ...alongIntermediates(equations, targetKey, startKey).map(([a, b]): [number, number] => [b, a]),
        ];
  const [first] = found;
  const both = msg`${prettyFormula(of)} and ${prettyFormula(per)}`;
  if (!first) return failure(msg`No equation of this method holds both ${both}, and none links them`);
  if (found.some(([a, b]) => a * first[1] !== b * first[0])) {
    return failure(msg`The equations of this method disagree about the ratio of ${both}`);
  }
  return success(lowest(...first));
}

/** Equivalents per mole by the equations that hold the species; those that tell must not disagree. */
export function schemeEquivalents(equations: readonly Equation[], of: string): Result<number> {
  const stated = equations
    .filter((equation) => stoichiometricRatio(equation, of, of).ok)
    .map((equation) => equivalentsPerMole(equation, of));
  const [first] = stated;
  if (!first) return failure(msg`${prettyFormula(of)} appears in no equation of this method`);
  const values = stated.flatMap((result) => (result.ok ? [result.value] : []));
  const [value] = values;
  if (value === undefined) return first;
  if (values.some((other) => Math.abs(other - value) > 1e-9)) {
    return failure(msg`The equations of this method disagree about the equivalents of ${prettyFormula(of)}`);
  }
  return success(value);
}
