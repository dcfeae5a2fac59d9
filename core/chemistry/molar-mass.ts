import { leaf, measured, type Quantity } from "../quantity";
import { mustHold } from "../result";
import { standardAtomicWeights } from "./atomic-weights";
import { parseFormula } from "./formula";
import { msg } from "../text";

export interface ElementShare {
  readonly element: string;
  readonly count: number;
  readonly weight: number;
  readonly plusMinus: number;
}

/** The elements of a formula with their atomic weights, in the order in which the formula names them. */
export function elementShares(formula: string): ElementShare[] {
  return [...mustHold(parseFormula(formula)).atoms].map(([element, count]) => {
    const { weight, plusMinus } = standardAtomicWeights[element] ?? { weight: NaN, plusMinus: NaN };
    return { element, count, weight, plusMinus };
  });
}

const cache = new Map<string, Quantity>();

/**
 * Molar mass in g/mol: the sum of count times standard atomic weight. Each element's weight is one leaf, its ± (for an
 * element with a standard interval: half the interval) taken as the half width of a rectangular distribution (QUAM,
 * example A2, step 3; GUM 4.3.8 for a value that is not the middle of its interval). Throws on a formula that does not parse.
 */
export function molarMass(formula: string): Quantity {
  const known = cache.get(formula);
  if (known) return known;
  const shares = elementShares(formula);
  const value = shares.reduce((sum, { count, weight }) => sum + count * weight, 0);
  const quantity = measured(
    value,
    "g/mol",
    shares.map(({ element, count, plusMinus }) => ({
      leaf: leaf({
        id: `atomic-weight:${element}`,
        kind: "atomic-weight",
        label: msg`Atomic weight of ${element}`,
        group: msg`Molar masses`,
        u: plusMinus / Math.sqrt(3),
      }),
      by: count,
    })),
  );
  cache.set(formula, quantity);
  return quantity;
}
