/**
 * Standard atomic weights in g/mol, abridged to five significant digits. Source: IUPAC / CIAAW, abridged standard atomic
 * weights 2021, and the standard intervals of the same table (typed from memory, checked against the molar masses in
 * the tests). Where the standard value is an interval, since the element's isotopes vary from source to source, its
 * conventional value stands here with that interval; else the value with its ±.
 * Elements without a standard atomic weight (technetium, promethium, polonium and beyond, bar Th, Pa and U) are left out.
 */
// prettier-ignore
const table: Readonly<Record<string, readonly [weight: number, within: number | readonly [number, number]]>> = {
  H: [1.008, [1.00784, 1.00811]], He: [4.0026, 0.0001], Li: [6.94, [6.938, 6.997]], Be: [9.0122, 0.0001],
  B: [10.81, [10.806, 10.821]], C: [12.011, [12.0096, 12.0116]], N: [14.007, [14.00643, 14.00728]],
  O: [15.999, [15.99903, 15.99977]], F: [18.998, 0.001], Ne: [20.18, 0.001], Na: [22.99, 0.001],
  Mg: [24.305, [24.304, 24.307]], Al: [26.982, 0.001], Si: [28.085, [28.084, 28.086]], P: [30.974, 0.001],
  S: [32.06, [32.059, 32.076]], Cl: [35.45, [35.446, 35.457]], Ar: [39.95, [39.792, 39.963]],
  K: [39.098, 0.001], Ca: [40.078, 0.004], Sc: [44.956, 0.001], Ti: [47.867, 0.001], V: [50.942, 0.001],
  Cr: [51.996, 0.001], Mn: [54.938, 0.001], Fe: [55.845, 0.002], Co: [58.933, 0.001], Ni: [58.693, 0.001],
  Cu: [63.546, 0.003], Zn: [65.38, 0.02], Ga: [69.723, 0.001], Ge: [72.63, 0.008], As: [74.922, 0.001],
  Se: [78.971, 0.008], Br: [79.904, [79.901, 79.907]], Kr: [83.798, 0.002], Rb: [85.468, 0.001],
  Sr: [87.62, 0.01], Y: [88.906, 0.001], Zr: [91.224, 0.002], Nb: [92.906, 0.001], Mo: [95.95, 0.01],
  Ru: [101.07, 0.02], Rh: [102.91, 0.01], Pd: [106.42, 0.01], Ag: [107.87, 0.01], Cd: [112.41, 0.01],
  In: [114.82, 0.01], Sn: [118.71, 0.01], Sb: [121.76, 0.01], Te: [127.6, 0.03], I: [126.9, 0.01],
  Xe: [131.29, 0.01], Cs: [132.91, 0.01], Ba: [137.33, 0.01], La: [138.91, 0.01], Ce: [140.12, 0.01],
  Pr: [140.91, 0.01], Nd: [144.24, 0.01], Sm: [150.36, 0.02], Eu: [151.96, 0.01], Gd: [157.25, 0.03],
  Tb: [158.93, 0.01], Dy: [162.5, 0.01], Ho: [164.93, 0.01], Er: [167.26, 0.01], Tm: [168.93, 0.01],
  Yb: [173.05, 0.02], Lu: [174.97, 0.01], Hf: [178.49, 0.01], Ta: [180.95, 0.01], W: [183.84, 0.01],
  Re: [186.21, 0.01], Os: [190.23, 0.03], Ir: [192.22, 0.01], Pt: [195.08, 0.02], Au: [196.97, 0.01],
  Hg: [200.59, 0.01], Tl: [204.38, [204.382, 204.385]], Pb: [207.2, [206.14, 207.94]], Bi: [208.98, 0.01],
  Th: [232.04, 0.01], Pa: [231.04, 0.01], U: [238.03, 0.01],
};

export interface AtomicWeight {
  /** Standard or, for an interval, conventional value. */
  readonly weight: number;
  /** Half the width of what the value may be. */
  readonly plusMinus: number;
  /** The standard interval, for the elements that have one. */
  readonly interval?: readonly [number, number];
}

export const standardAtomicWeights: Readonly<Record<string, AtomicWeight>> = Object.fromEntries(
  Object.entries(table).map(([element, [weight, within]]) => [
    element,
    typeof within === "number"
      ? { weight, plusMinus: within }
      : { weight, plusMinus: Number(((within[1] - within[0]) / 2).toPrecision(6)), interval: within },
  ]),
);
