/* Titration curves by formulas solved for the volume: written another way than the engine, which solves for the pH. */

/** A point: titrant added, mL, and what is shown there. */
export type Pair = readonly [ml: number, shown: number];

/** Points as a typed run has them: "12.345678=4.56 …", the burette from zero. */
export const pairTexts = (pairs: readonly Pair[], decimals: number): string =>
  pairs.map(([ml, shown]) => `${ml.toFixed(8)}=${shown.toFixed(decimals)}`).join(" ");

/** From one value to another in equal steps. */
export const steps = (from: number, to: number, count: number): number[] =>
  Array.from({ length: count + 1 }, (_, i) => from + ((to - from) * i) / count);

/** Mean number of protons that an acid has lost at a concentration of H+. */
function lost(pKas: readonly number[], h: number): number {
  const terms = pKas.reduce<number[]>((all, pKa) => [...all, (all.at(-1)! * 10 ** -pKa) / h], [1]);
  const sum = terms.reduce((a, b) => a + b, 0);
  return terms.reduce((all, term, i) => all + i * term, 0) / sum;
}

interface Beaker {
  readonly ml: number;
  /** Titrant, mol/L. */
  readonly titrant: number;
  readonly pKw: number;
}

const rising = (pairs: readonly Pair[]): Pair[] =>
  pairs.filter(([ml]) => ml >= 0).toSorted((a, b) => a[0] - b[0]);

/** An acid, mol/L, with its constants by a strong base: V = V₀ (c n̄ - Δ) / (c_b + Δ), with Δ = [H+] - [OH-]. `strong` is acid beside it, mol/L. */
export const acidByBase = (
  { ml, titrant, pKw }: Beaker,
  { molPerL, pKas, strong = 0 }: { molPerL: number; pKas: readonly number[]; strong?: number },
  pHs: readonly number[],
): Pair[] =>
  rising(
    pHs.map((pH) => {
      const h = 10 ** -pH;
      const free = h - 10 ** -pKw / h;
      return [(ml * (molPerL * lost(pKas, h) + strong - free)) / (titrant + free), pH];
    }),
  );

/** A base by a strong acid: what takes up protons, less what its salt brings, in the same form; `sodium` is the charge that balances it, mol/L. */
export const baseByAcid = (
  { ml, titrant, pKw }: Beaker,
  { molPerL, pKas, sodium }: { molPerL: number; pKas: readonly number[]; sodium: number },
  charge: number,
  pHs: readonly number[],
): Pair[] =>
  rising(
    pHs.map((pH) => {
      const h = 10 ** -pH;
      const free = h - 10 ** -pKw / h;
      // Charges in the beaker at the start: sodium, the forms of the acid, and what is free.
      return [(ml * (sodium + molPerL * (charge - lost(pKas, h)) + free)) / (titrant - free), pH];
    }),
  );

/** A strong acid, mmol in all, by a base that holds carbonate: hydroxide and carbonate of the base in mol/L. */
export const acidByCarbonatedBase = (
  { ml, titrant, pKw }: Beaker,
  mmol: number,
  carbonate: number,
  pHs: readonly number[],
): Pair[] =>
  rising(
    pHs.map((pH) => {
      const h = 10 ** -pH;
      const free = h - 10 ** -pKw / h;
      return [
        (mmol - ml * free) / (titrant + 2 * carbonate - carbonate * lost([6.352, 10.329], h) + free),
        pH,
      ];
    }),
  );

/** Chloride, mmol in all, by silver; potentials in mV of a silver electrode, `zero` at 1 mol/L of silver, `slope` mV for a power of ten. */
export const chlorideBySilverCurve = (
  { ml, titrant }: Pick<Beaker, "ml" | "titrant">,
  mmol: number,
  { pKs, zero, slope }: { pKs: number; zero: number; slope: number },
  mVs: readonly number[],
): Pair[] =>
  rising(
    mVs.map((mV) => {
      const silver = 10 ** ((mV - zero) / slope);
      const free = silver - 10 ** -pKs / silver;
      return [(mmol + ml * free) / (titrant - free), mV];
    }),
  );

/** Iron(II), mmol in all, by permanganate: each potential, mV, oxidizes so much of the one and reduces so much of the other. */
export const ironByPermanganateCurve = (
  titrant: number,
  mmol: number,
  { iron, permanganate, pH, slope }: { iron: number; permanganate: number; pH: number; slope: number },
  mVs: readonly number[],
): Pair[] =>
  rising(
    mVs.map((mV) => {
      const oxidized = 1 / (1 + 10 ** ((iron - mV) / slope));
      const reduced = 1 / (1 + 10 ** ((5 * (mV - permanganate)) / slope + 8 * pH));
      return [(mmol * oxidized) / (5 * titrant * reduced), mV];
    }),
  );

/** Two straight branches that cross, as they are read in a beaker that the titrant dilutes. */
export const branchPairs = (
  ml: number,
  cross: number,
  [start, end, slope]: readonly [start: number, end: number, slope: number],
  volumes: readonly number[],
): Pair[] =>
  volumes.map((v) => {
    const value = v <= cross ? start + ((end - start) * v) / cross : end + slope * (v - cross);
    return [v, (value * ml) / (ml + v)];
  });
