import type { CurveStage } from "../../method";
import { evaluateNumber, findRoot, type Stoichiometry } from "../../relation";
import { unitOf } from "../../quantity";
import type { CompiledStage } from "../compiled";

const milliliter = unitOf("mL").factor;

/** Protons by theory: as many as there are constants, one where there are none. */
export const protonsByTheory = ({ theory }: CurveStage["curve"]): number =>
  "pKas" in theory ? Math.max(1, theory.pKas.length) : 1;

export interface EndsAsked {
  /** Symbols that are read or taken over, base units. */
  readonly known: ReadonlyMap<string, number>;
  /** The main result, base units. */
  readonly target: number;
  readonly stoichiometry: Stoichiometry;
  readonly molarMassOf?: (formula: string) => number;
  /** Part of the last end that each of them is; as the method has it where nothing is said. */
  readonly parts?: readonly number[];
}

/** Looked for up to here, mL. */
const mostMl = 200;

/** Equivalence points, mL, in the order of the method, that give a result; null where none do. */
export function endsFor(
  { definition: { curve, result }, lines }: CompiledStage<CurveStage>,
  { known, target, stoichiometry, molarMassOf, parts = curve.ends.map(({ part }) => part) }: EndsAsked,
): readonly number[] | null {
  const resultAt = (lastMl: number): number => {
    const numbers = new Map(known);
    curve.ends.forEach(({ symbol }, i) => numbers.set(symbol, lastMl * (parts[i] ?? NaN) * milliliter));
    if (curve.protons !== undefined) numbers.set(curve.protons, protonsByTheory(curve));
    const scope = { numbers, stoichiometry, ...(molarMassOf ? { molarMassOf } : {}) };
    for (const { symbol, expression } of lines) numbers.set(symbol, evaluateNumber(expression, scope));
    return numbers.get(result.symbol) ?? NaN;
  };
  const root = findRoot((ml) => resultAt(ml) - target, 0.05, mostMl, 1e-9);
  return root.ok ? parts.map((part) => part * root.value) : null;
}
