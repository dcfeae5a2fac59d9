import {
  type Equation,
  type Formula,
  parseEquation,
  parseFormula,
  prettyFormula,
  schemeEquivalents,
  speciesKey,
} from "../chemistry";
import { significantFromText, figuresOf } from "../quantity";
import { withPoint, msg, type Phrase } from "../text";
import type { ComputedStage, Method } from "./schema";

/* A concentration that is typed as a normality, in a method whose equations say the equivalents. */

/** Elements of the ions that go along with the one that reacts: sodium, potassium, ammonium, sulfate, chloride, nitrate, water. */
const bystanders = new Set(["Na", "K", "Li", "N", "H", "O", "S", "Cl"]);

/** Too small to say what a solution is of. */
const commonplace = new Set(["H+", "H3O+", "OH-", "e-", "H2O"]);

const keyOf = (text: string): string => {
  const formula = parseFormula(text);
  return formula.ok ? speciesKey(formula.value) : text;
};

/** How often an ion is in a substance, with nothing but bystanders beside it; zero where it is not. */
function timesIn(substance: Formula, ion: Formula): number {
  const times = Math.min(
    ...[...ion.atoms].map(([element, n]) => Math.floor((substance.atoms.get(element) ?? 0) / n)),
  );
  if (!(times >= 1)) return 0;
  const nothingElse = [...substance.atoms].every(
    ([element, n]) => bystanders.has(element) || n === times * (ion.atoms.get(element) ?? 0),
  );
  const telling = [...ion.atoms.keys()].some((element) => !bystanders.has(element));
  return !nothingElse ? 0 : telling ? times : 1;
}

/** True where a species meets another one of its own element, as iodate meets iodide: by schools it counts for 5 or for 6. */
function sharesElement({ left }: Equation, species: Formula): boolean {
  const key = speciesKey(species);
  const there = left.some(({ formula }) => speciesKey(formula) === key);
  const telling = [...species.atoms.keys()].filter((element) => !bystanders.has(element));
  return (
    there &&
    left.some(
      ({ formula }) => speciesKey(formula) !== key && telling.some((element) => formula.atoms.has(element)),
    )
  );
}

/** A species of an equation, as it is written there, and how many of it a mole of a substance brings. */
export interface Reacting {
  readonly equation: Equation;
  readonly species: Formula;
  readonly times: number;
}

/** What reacts of a substance by equations: itself, or the ion that it brings (MnO4- of KMnO4); null where it is in none of them. */
export function reactingOf(equations: readonly Equation[], of: string): Reacting | null {
  const substance = parseFormula(of);
  if (!substance.ok) return null;
  const key = speciesKey(substance.value);
  const terms = equations.flatMap((equation) =>
    equation.left.map(({ formula }) => ({ equation, species: formula })),
  );
  const itself = terms.find(({ species }) => speciesKey(species) === key);
  if (itself) return { ...itself, times: 1 };
  for (const { equation, species } of terms) {
    if (species.charge === 0 || commonplace.has(species.source)) continue;
    const times = timesIn(substance.value, species);
    if (times > 0) return { equation, species, times };
  }
  return null;
}

/** The equations of a method, those that can be read. */
export const equationsOf = (equations: readonly { readonly equation: string }[]): readonly Equation[] =>
  equations.flatMap(({ equation }) => {
    const parsed = parseEquation(equation);
    return parsed.ok ? [parsed.value] : [];
  });

/**
 * Equivalents in one mole of a substance by a method: as a stage states them with its result, by the equations that hold it, or by
 * those of the ion that it brings (5 for KMnO4 where MnO4- takes five electrons). Null where the method does not tell.
 */
export function equivalentsIn(method: Method, of: string): number | null {
  const same = keyOf(of);
  for (const { result } of method.stages)
    if (result.assigns && result.equivalents && keyOf(result.assigns) === same) return result.equivalents;
  const equations = equationsOf(method.equations);
  const reacting = reactingOf(equations, of);
  if (!reacting || equations.some((one) => sharesElement(one, reacting.species))) return null;
  const each = schemeEquivalents(equations, reacting.species.source);
  return each.ok ? each.value * reacting.times : null;
}

/** Equivalents in a mole of what the result of a stage is a concentration of; null where the method does not tell. */
export function equivalentsOfResult(method: Method, { result }: ComputedStage): number | null {
  if (result.unit !== "mol/L") return null;
  return result.equivalents ?? (result.assigns === undefined ? null : equivalentsIn(method, result.assigns));
}

/** The number of a text like "0.1 N", with a point; null for what is no normality. */
export function typedNormality(typed: string): string | null {
  const text = /^\s*([\d.,]+)\s*[Nn]\s*$/.exec(typed)?.[1];
  const plain = text === undefined ? null : withPoint(text);
  return plain !== null && Number(plain) > 0 ? plain : null;
}

/** Equivalents are a whole number, known exactly: nothing of what was typed is lost beyond this part of it. */
const closeEnough = 5e-4;

/** A normality in mol/L, with the figures that were typed, and with more where that many would be another concentration. */
export function molPerL(normality: string, equivalents: number): string {
  const exact = Number(normality) / equivalents;
  for (let figures = figuresOf(significantFromText(normality)); figures < 15; figures++) {
    const text = exact.toPrecision(figures);
    if (Math.abs(Number(text) - exact) <= closeEnough * exact) return text;
  }
  return String(exact);
}

/** What a text like "0.1 N" is in mol/L, with the figures that were typed; null for what is no normality. */
export function fromNormality(
  typed: string,
  of: string,
  method: Method,
): { readonly message: Phrase; readonly proposal?: string } | null {
  const plain = typedNormality(typed);
  if (plain === null) return null;
  const equivalents = equivalentsIn(method, of);
  if (equivalents === null)
    return {
      message: msg`This method does not say the equivalents of ${prettyFormula(of)}: type it in mol/L`,
    };
  const proposal = molPerL(plain, equivalents);
  const each = msg`${plain} N is ${proposal} mol/L`;
  return equivalents === 1
    ? { message: msg`${each}: one equivalent in a mole of ${prettyFormula(of)}`, proposal }
    : { message: msg`${each}: ${equivalents} equivalents in a mole of ${prettyFormula(of)}`, proposal };
}
