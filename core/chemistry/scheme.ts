import { failure, type Result, success } from "../result";
import { type Equation, stoichiometricRatio, type Term } from "./equation";
import { parseFormula, prettyFormula, speciesKey } from "./formula";
import { equivalentsPerMole } from "./oxidation";
import { greatestCommonDivisor } from "./rational";

/** Species that stand in many reactions without linking them. */
const commonplace = new Set(
  ["H2O", "H+", "H3O+", "OH-", "e-"].flatMap((f) => {
    const formula = parseFormula(f);
    return formula.ok ? [speciesKey(formula.value)] : [];
  }),
);

const keys = (terms: readonly Term[]) => new Set(terms.map(({ formula }) => speciesKey(formula)));

function lowest(over: number, under: number): [number, number] {
  const divisor = Number(greatestCommonDivisor(BigInt(over), BigInt(under)));
  return [over / divisor, under / divisor];
}

/**
 * All ratios of `target` to `start` along intermediates: from an equation that holds `start`, by a product that a later
 * equation uses up, on to one that holds `target`.
 */
function alongIntermediates(
  equations: readonly Equation[],
  start: string,
  target: string,
): [number, number][] {
  const found: [number, number][] = [];
  const follow = (species: string, from: number, [over, under]: readonly [number, number]) => {
    const equation = equations[from];
    if (!equation) return;
    for (const { formula } of equation.right) {
      if (commonplace.has(speciesKey(formula))) continue;
      const step = stoichiometricRatio(equation, formula.source, species);
      if (!step.ok) continue;
      const soFar = [over * step.value[0], under * step.value[1]] as const;
      equations.forEach((later, i) => {
        if (i <= from || !keys(later.left).has(speciesKey(formula))) return;
        const end = stoichiometricRatio(later, target, formula.source);
        if (end.ok) found.push(lowest(soFar[0] * end.value[0], soFar[1] * end.value[1]));
        else follow(formula.source, i, soFar);
      });
    }
  };
  equations.forEach((equation, i) => {
    if (stoichiometricRatio(equation, start, start).ok) follow(start, i, [1, 1]);
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
  for (const species of [of, per]) {
    const formula = parseFormula(species);
    if (!formula.ok) return formula;
  }
  const direct = equations.flatMap((equation) => {
    const ratio = stoichiometricRatio(equation, of, per);
    return ratio.ok ? [ratio.value] : [];
  });
  const found =
    direct.length > 0
      ? direct
      : [
          ...alongIntermediates(equations, per, of),
          ...alongIntermediates(equations, of, per).map(([a, b]): [number, number] => [b, a]),
        ];
  const [first] = found;
  const both = `${prettyFormula(of)} and ${prettyFormula(per)}`;
  if (!first) return failure(`No equation of this method holds both ${both}, and none links them`);
  if (found.some(([a, b]) => a * first[1] !== b * first[0])) {
    return failure(`The equations of this method disagree about the ratio of ${both}`);
  }
  return success(lowest(...first));
}

/** Equivalents per mole by the equations that hold the species; those that tell must not disagree. */
export function schemeEquivalents(equations: readonly Equation[], of: string): Result<number> {
  const told = equations
    .filter((equation) => stoichiometricRatio(equation, of, of).ok)
    .map((equation) => equivalentsPerMole(equation, of));
  const [first] = told;
  if (!first) return failure(`${prettyFormula(of)} stands in no equation of this method`);
  const values = told.flatMap((result) => (result.ok ? [result.value] : []));
  const [value] = values;
  if (value === undefined) return first;
  if (values.some((other) => Math.abs(other - value) > 1e-9)) {
    return failure(`The equations of this method disagree about the equivalents of ${prettyFormula(of)}`);
  }
  return success(value);
}
