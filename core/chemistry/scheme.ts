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
 * ν(of) / ν(per) over a whole scheme of equations: within one equation the ratio of the coefficients, else along
 * intermediates that one equation makes and another uses up (iodine that is released, then titrated). Each equation is
 * taken once. Says so when no way leads from one to the other, or when two ways disagree.
 */
export function schemeRatio(
  equations: readonly Equation[],
  of: string,
  per: string,
): Result<[number, number]> {
  const [target, start] = [parseFormula(of), parseFormula(per)];
  if (!target.ok) return target;
  if (!start.ok) return start;
  const found: [number, number][] = [];

  const follow = (
    species: string,
    at: string,
    [over, under]: [number, number],
    used: readonly Equation[],
  ) => {
    for (const equation of equations) {
      if (used.includes(equation)) continue;
      const direct = stoichiometricRatio(equation, of, species);
      if (direct.ok) {
        found.push(lowest(over * direct.value[0], under * direct.value[1]));
        continue;
      }
      const [left, right] = [keys(equation.left), keys(equation.right)];
      if (!left.has(at) && !right.has(at)) continue;
      for (const link of [...equation.left, ...equation.right]) {
        const key = speciesKey(link.formula);
        if (key === at || commonplace.has(key)) continue;
        const elsewhere = equations.some(
          (other) =>
            other !== equation &&
            !used.includes(other) &&
            (left.has(key) ? keys(other.right) : keys(other.left)).has(key),
        );
        if (!elsewhere) continue;
        const step = stoichiometricRatio(equation, link.formula.source, species);
        if (!step.ok) continue;
        follow(link.formula.source, key, [over * step.value[0], under * step.value[1]], [...used, equation]);
      }
    }
  };
  follow(per, speciesKey(start.value), [1, 1], []);

  const [first] = found;
  const both = `${prettyFormula(of)} and ${prettyFormula(per)}`;
  if (!first) return failure(`No equation of this method holds both ${both}, and none links them`);
  if (found.some(([a, b]) => a * first[1] !== b * first[0])) {
    return failure(`The equations of this method disagree about the ratio of ${both}`);
  }
  return success(first);
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
