import { type Bottle, isotherms, type Law, type MovedBy } from "../adsorption";

/** A series of bottles: so much acid, made to 50 mL, a gram of charcoal, an aliquot titrated. */
export interface Series {
  readonly law: Law;
  readonly logarithms: readonly [number, number];
  /** Standard deviations of a titer (mL), of the start acid (mol/L) and of a weighing (g). */
  readonly u: readonly [titer: number, start: number, mass: number];
}

const [volume, base, aliquot] = [0.05, 0.1, 10];
const starts = [0.5, 0.4, 0.3, 0.2, 0.1];

/** The concentration at which what is left and what was taken up add up: by halving. */
function equilibrium(start: number, mass: number, { law, logarithms }: Series): number {
  let [low, high] = [0, start];
  for (let i = 0; i < 80; i++) {
    const c = (low + high) / 2;
    if (c * volume + (mass * isotherms[law].uptake(c, logarithms)) / 1000 > start * volume) high = c;
    else low = c;
  }
  return (low + high) / 2;
}

/** Bottles as they are titrated: with errors of titers, of the start acid, which all share, and of masses. */
export function bottlesOf(series: Series, draw: () => number): Bottle[] {
  const [uTiter, uStart, uMass] = series.u;
  const off = uStart * draw();
  return starts.map((part, i) => {
    const trueStart = part + (part / 0.5) * off;
    const trueMass = 1 + uMass * draw();
    const titer = (equilibrium(trueStart, trueMass, series) * aliquot) / base + uTiter * draw();
    const c = (titer * base) / aliquot;
    // What the instructor computes: the start as stated, the mass as read.
    const q = ((part - c) * volume * 1000) / 1;
    const byTiter: MovedBy = {
      concentration: (uTiter * base) / aliquot,
      uptake: (-uTiter * base * volume * 1000) / aliquot,
    };
    const causes = new Map<string, MovedBy>([
      [`titer ${i}`, byTiter],
      ["start", { concentration: 0, uptake: (uStart * part * volume * 1000) / 0.5 }],
      [`mass ${i}`, { concentration: 0, uptake: -q * uMass }],
    ]);
    return { concentration: c, uptake: q, causes };
  });
}

/** A series that follows a law, with what its titers, its start acid and its masses may be off. */
export const series = (law: Law): Series => ({
  law,
  logarithms: law === "freundlich" ? [Math.log(3), Math.log(0.4)] : [Math.log(3), Math.log(8)],
  u: [0.03, 0.0006, 0.0005],
});
