import { failure, type Result, success } from "../result";
import { type Equation, stoichiometricRatio, type Term } from "./equation";
import { type Formula, parseFormula, prettyFormula, speciesKey } from "./formula";
import { electronsTaken } from "./half-reaction";

export interface OxidationNumber {
  readonly element: string;
  readonly count: number;
  /** The mean over these atoms where the formula does not tell them apart: 2.5 for sulfur in S4O6^2-. */
  readonly number: number;
}

const alkali = ["Li", "Na", "K", "Rb", "Cs"];
const alkaline = ["Be", "Mg", "Ca", "Sr", "Ba"];
/** Elements that keep one oxidation number in all compounds that a teaching bench meets (common practice, no source). */
const fixed = new Map<string, number>([
  ["F", -1],
  ...alkali.map((e) => [e, 1] as const),
  ...alkaline.map((e) => [e, 2] as const),
  ["Al", 3],
  ["Zn", 2],
  ["Ag", 1],
  ["Cd", 2],
]);
/** Elements that hydrogen gives electrons to, or shares them with on even terms; beside all others alone it is a hydride. */
const notHydrides = new Set("H C N O F P S Cl As Se Br Te I At He Ne Ar Kr Xe Rn".split(" "));
/** The highest number that an element reaches; eight where nothing is said (common practice, no source). */
const highest: Readonly<Record<string, number>> = {
  ...{
    H: 1,
    B: 3,
    C: 4,
    N: 5,
    O: 2,
    Si: 4,
    P: 5,
    S: 6,
    Cl: 7,
    Ga: 3,
    Ge: 4,
    As: 5,
    Se: 6,
    Br: 7,
    In: 3,
    Sn: 4,
    Sb: 5,
  },
  ...{
    Te: 6,
    I: 7,
    Tl: 3,
    Pb: 4,
    Bi: 5,
    Sc: 3,
    Ti: 4,
    V: 5,
    Cr: 6,
    Mn: 7,
    Fe: 6,
    Co: 4,
    Ni: 4,
    Cu: 3,
    Y: 3,
    Zr: 4,
    Nb: 5,
  },
  ...{
    Mo: 6,
    Tc: 7,
    Rh: 6,
    Pd: 4,
    La: 3,
    Hf: 4,
    Ta: 5,
    W: 6,
    Re: 7,
    Ir: 6,
    Pt: 6,
    Au: 5,
    Hg: 2,
    Th: 4,
    U: 6,
  },
};
/** The lowest that an element reaches beside others. */
const lowest: Readonly<Record<string, number>> = {
  ...{
    H: -1,
    F: -1,
    B: -3,
    C: -4,
    N: -3,
    O: -2,
    Si: -4,
    P: -3,
    S: -2,
    Cl: -1,
    As: -3,
    Se: -2,
    Br: -1,
    Sb: -3,
    Te: -2,
    I: -1,
    Au: -1,
    Pt: -2,
  },
};
/** Metals in whose compounds two sulfurs (or nitrogens) for one metal stand paired: what they take with single ones. */
const withSingleSulfur: Readonly<Record<string, readonly number[]>> = {
  ...{ Mn: [2], Fe: [2, 3], Co: [2, 3], Ni: [2], Cu: [1, 2], Ru: [3], Os: [3], Pb: [2], Hg: [2], Rh: [3] },
};
/** Those that take their negative number beside a metal, the most electronegative first. */
const negative: readonly (readonly [string, number])[] = [
  ["Cl", -1],
  ["Br", -1],
  ["I", -1],
  ["N", -3],
  ["S", -2],
];
/** Ions in which an element's number is not told by the rules alone: atoms of one ion, its charge, and the numbers. */
const ions: readonly {
  readonly text: RegExp;
  readonly atoms: Readonly<Record<string, readonly [count: number, number: number]>>;
}[] = [
  { text: /\(NH4\)(\d*)|NH4/g, atoms: { N: [1, -3], H: [4, 1] } },
  { text: /\((?:SCN|NCS|CNS)\)(\d*)|SCN|NCS|CNS/g, atoms: { S: [1, -2], C: [1, 4], N: [1, -3] } },
  { text: /\(CN\)(\d*)|CN/g, atoms: { C: [1, 2], N: [1, -3] } },
];
/** Oxoanions that tell a metal's number when it stands with them: central element, its atoms, oxygens, charge. */
const oxoanions: readonly (readonly [string, number, number, number])[] = [
  ["S", 1, 4, -2],
  ["N", 1, 3, -1],
  ["C", 1, 3, -2],
  ["P", 1, 4, -3],
  ["Cl", 1, 4, -1],
  ["S", 2, 3, -2],
  ["C", 2, 4, -2],
  ["Cr", 1, 4, -2],
  ["I", 1, 3, -1],
  ["S", 1, 3, -2],
];

/** Where the rules would give a number that no such atom has, as with bonds between like atoms, no number is given. */
const unclear = ({ source }: Formula): Result<OxidationNumber[]> =>
  failure(
    `The oxidation numbers in ${prettyFormula(source)} are not unambiguous by the rules: atoms of one element may be bound to each other`,
  );

/** The numbers of one formula unit without its water of hydration. */
function ofPart(text: string, whole: Formula): Result<OxidationNumber[]> {
  const found: OxidationNumber[] = [];
  const left = new Map(whole.atoms);
  let charge = whole.charge;
  const settle = (element: string, count: number, number: number) => {
    found.push({ element, count, number });
    const rest = (left.get(element) ?? 0) - count;
    if (rest === 0) left.delete(element);
    else left.set(element, rest);
    charge -= count * number;
  };
  let body = text;
  for (const { text: pattern, atoms } of ions) {
    for (const match of body.matchAll(pattern)) {
      const times = Number(match[1] || 1);
      for (const [element, [count, number]] of Object.entries(atoms)) settle(element, count * times, number);
    }
    body = body.replace(pattern, "");
  }
  if (left.size === 1 && found.length === 0) {
    const [[element, count] = ["", 1]] = left;
    return success([{ element, count, number: whole.charge / count }]);
  }
  for (const [element, number] of fixed)
    if (left.has(element)) settle(element, left.get(element) ?? 0, number);
  const hydrogens = left.get("H");
  if (hydrogens) {
    const others = [...left.keys()].filter((e) => e !== "H");
    // Beside metals, boron or silicon alone, hydrogen is the negative one.
    const hydride =
      others.length > 0
        ? others.every((e) => !notHydrides.has(e))
        : found.some(({ number }) => number > 0) && found.every(({ number }) => number > 0);
    settle("H", hydrogens, hydride ? -1 : 1);
  }

  const oxygens = left.get("O");
  // Beside hydrogen and light metals alone, oxygen takes what is left: a peroxide's -1, a superoxide's -1/2.
  if (oxygens && left.size === 1) settle("O", oxygens, charge / oxygens);
  else if (oxygens) {
    const [centers, metals] = [left, [...left.keys()].filter((e) => e !== "O")];
    const ion =
      metals.length === 2
        ? oxoanions.find(([center, n, o]) => {
            const here = centers.get(center);
            return here !== undefined && here % n === 0 && (here / n) * o === oxygens;
          })
        : undefined;
    const [center] = metals;
    const most = metals.length === 1 && center !== undefined ? highest[center] : undefined;
    const atoms = left.get(center ?? "") ?? 0;
    // More oxygen than the highest number of the center can hold: the rest stand in pairs, as peroxide.
    const paired = most === undefined ? 0 : charge - most * atoms + 2 * oxygens;
    if (paired > 1e-9 && most !== undefined && center !== undefined) {
      if (paired % 2 !== 0 || paired > oxygens) return unclear(whole);
      settle("O", oxygens - paired, -2);
      settle("O", paired, -1);
      settle(center, atoms, most);
      return success(found.filter(({ count }) => count > 0));
    }
    settle("O", oxygens, -2);
    if (ion) {
      const [center, n, o, q] = ion;
      settle(center, left.get(center) ?? 0, (q + 2 * o) / n);
    }
  }
  for (const [element, number] of negative) {
    if (left.size > 1 && left.has(element)) settle(element, left.get(element) ?? 0, number);
  }
  if (left.size > 1) {
    return failure(
      `The rules leave ${[...left.keys()].join(" and ")} open in ${prettyFormula(whole.source)}: more than one element is unknown`,
    );
  }
  for (const [element, count] of left) settle(element, count, charge / count);
  if (Math.abs(charge) > 1e-9) {
    return failure(`No oxidation numbers by the rules fit the charge of ${prettyFormula(whole.source)}`);
  }
  const beyond = found.some(
    ({ element, number }) =>
      number > (highest[element] ?? 8) + 1e-9 || number < (lowest[element] ?? 0) - 1e-9,
  );
  const pairs = found.some(
    ({ element, number }) =>
      withSingleSulfur[element] !== undefined &&
      !withSingleSulfur[element].includes(number) &&
      found.some((f) => (f.element === "S" && f.number === -2) || (f.element === "N" && f.number === -3)) &&
      found.length === 2,
  );
  return beyond || pairs ? unclear(whole) : success(found);
}

/**
 * Oxidation numbers of the elements in a formula, by the usual rules in order: free elements 0, ions of one atom their
 * charge, F -1, alkali metals +1, alkaline earths +2, H +1 (hydrides -1), O -2 (peroxides -1), known ions as a whole, then
 * the one element left from the charge (common practice, no source). Says so when the rules do not decide.
 */
export function oxidationNumbers(source: string): Result<OxidationNumber[]> {
  const formula = parseFormula(source);
  if (!formula.ok) return formula;
  const dot = /[·•∙*.]/.exec(source);
  if (!dot) return ofPart(source, formula.value);
  const first = parseFormula(source.slice(0, dot.index));
  if (!first.ok) return first;
  const own = ofPart(source.slice(0, dot.index), first.value);
  if (!own.ok) return own;
  const water = ["H", "O"].flatMap((element) => {
    const count = (formula.value.atoms.get(element) ?? 0) - (first.value.atoms.get(element) ?? 0);
    return count > 0 ? [{ element, count, number: element === "H" ? 1 : -2 }] : [];
  });
  return success([...own.value, ...water]);
}

/** Atoms of each element by oxidation number on one side of an equation, the number rising. */
function states(terms: readonly Term[]): Result<Map<string, [number: number, count: number][]>> {
  const sums = new Map<string, [number, number][]>();
  for (const { coefficient, formula } of terms) {
    if (formula.atoms.size === 0) continue;
    const numbers = oxidationNumbers(formula.source);
    if (!numbers.ok) return numbers;
    for (const { element, count, number } of numbers.value) {
      sums.set(element, [...(sums.get(element) ?? []), [number, coefficient * count]]);
    }
  }
  for (const list of sums.values()) list.sort((a, b) => a[0] - b[0]);
  return success(sums);
}

/**
 * Electrons that pass from the atoms that are oxidized to those that are reduced, for the equation as written: zero where
 * no oxidation number changes. Atoms of an element that stands in several states are matched in order, lowest with lowest.
 */
export function electronsTransferred(equation: Equation): Result<number> {
  const written = electronsTaken(equation);
  if (written !== 0) return success(Math.abs(written));
  const [before, after] = [states(equation.left), states(equation.right)];
  if (!before.ok) return before;
  if (!after.ok) return after;
  let given = 0;
  for (const [element, from] of before.value) {
    const to = (after.value.get(element) ?? []).map(([number, count]) => [number, count] as [number, number]);
    for (const [number, count] of from) {
      for (let rest = count; rest > 1e-9 && to.length > 0;) {
        const target = to[0] ?? [0, 0];
        const moved = Math.min(rest, target[1]);
        given += Math.max(0, target[0] - number) * moved;
        rest -= moved;
        target[1] -= moved;
        if (target[1] < 1e-9) to.shift();
      }
    }
  }
  return success(given);
}

/** Acids and bases that give or take one hydrogen ion, by which others are counted (common practice, no source). */
const oneProton = "H+ H3O+ HCl HBr HI HNO3 HClO4 OH- NaOH KOH NH3 CH3COOH HCO3- NaHCO3 KHCO3 KHC8H4O4".split(
  " ",
);
const twoProtons = "H2SO4 CO3^2- Na2CO3 K2CO3".split(" ");
const keysOf = (formulas: readonly string[]) =>
  formulas.flatMap((f) => {
    const formula = parseFormula(f);
    return formula.ok ? [speciesKey(formula.value)] : [];
  });
const protons: readonly (readonly [number, ReadonlySet<string>])[] = [
  [1, new Set(keysOf(oneProton))],
  [2, new Set(keysOf(twoProtons))],
];

/**
 * Equivalents in one mole of a reactant in a reaction: electrons given or taken in a redox reaction, hydrogen ions in
 * an acid-base one (counted by a partner that gives or takes a known number). Says so where neither can be told, as
 * for complexes.
 */
export function equivalentsPerMole(equation: Equation, species: string): Result<number> {
  const own = stoichiometricRatio(equation, species, species);
  if (!own.ok) return own;
  const coefficient = own.value[0];
  const electrons = electronsTransferred(equation);
  if (!electrons.ok) return electrons;
  if (electrons.value > 1e-9) return success(electrons.value / coefficient);
  for (const [each, keys] of protons) {
    const partner = equation.left.find(({ formula }) => keys.has(speciesKey(formula)));
    if (partner) return success((each * partner.coefficient) / coefficient);
  }
  return failure(
    `Equivalents of ${prettyFormula(species)} cannot be told from ${equation.source}: no electrons pass, and no acid or ` +
      "base of known equivalents stands in it",
  );
}
