import { elementShares } from "../chemistry";
import {
  exact,
  exactly,
  type Significant,
  significantLogarithm,
  significantPower,
  significantProduct,
  significantSum,
} from "../quantity";
import { applyFunction, applyOperator, type Stoichiometry } from "./evaluate";
import { type Expression, fold, type FunctionName } from "./expression";

/** A molar mass to the place to which its atomic weights are known. */
function molarMassFigures(formula: string): Significant {
  const shares = elementShares(formula);
  const value = shares.reduce((sum, { count, weight }) => sum + count * weight, 0);
  const places = shares.map(({ weight, plusMinus }) =>
    Math.max(Math.floor(Math.log10(weight)) - 4, Math.floor(Math.log10(2 * plusMinus))),
  );
  return { value, place: Math.max(...places) };
}

function call(name: FunctionName, args: readonly Significant[]): Significant {
  const value = applyFunction(
    name,
    args.map((a) => a.value),
  );
  const [first = exactly(NaN)] = args;
  switch (name) {
    case "ln":
    case "log10":
      return significantLogarithm(value, first);
    case "exp":
      return significantPower(value, first);
    case "mean":
      return { value, place: Math.max(...args.map((a) => a.place)) };
    case "min":
    case "max":
      return args.find((a) => a.value === value) ?? first;
    default:
      return significantProduct(value, first);
  }
}

/** Another reader: how many figures of a result are significant by the rules that are taught, all values in base units. */
export function significanceOf(
  expression: Expression,
  symbols: ReadonlyMap<string, Significant>,
  stoichiometry: Stoichiometry,
): Significant {
  return fold<Significant>(expression, {
    leaf: (leaf) => {
      switch (leaf.type) {
        case "number":
          return exactly(exact(leaf.value, leaf.unit ?? "1").value);
        case "symbol":
          return symbols.get(leaf.name) ?? exactly(NaN);
        case "molar-mass":
          return molarMassFigures(leaf.formula);
        case "ratio": {
          const [of, per] = stoichiometry.ratio(leaf.of, leaf.per);
          return exactly(of / per);
        }
        case "equivalents":
          return exactly(stoichiometry.equivalents(leaf.of));
      }
    },
    negate: ({ value, place }) => ({ value: -value, place }),
    call,
    binary: (operator, a, b) => {
      const value = applyOperator(operator, a.value, b.value);
      if (operator === "+" || operator === "-") return significantSum(a, b, operator === "+" ? 1 : -1);
      if (operator === "^" && Number.isFinite(b.place)) return significantPower(value, b);
      return operator === "^" ? significantProduct(value, a) : significantProduct(value, a, b);
    },
  });
}
