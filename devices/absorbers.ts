import { msg, type Phrase } from "~/core/text";

/** One absorption band: a Gaussian in wavelength. */
export interface Band {
  readonly nm: number;
  /** Standard deviation, nm. */
  readonly widthNm: number;
  /** Molar absorptivity at its top, L/(mol·cm). */
  readonly epsilon: number;
}

/** Something that colors a solution. Bands are invented, near where such colors lie. */
export interface Absorber {
  readonly id: string;
  readonly name: Phrase;
  readonly bands: readonly Band[];
}

export const absorbers: readonly Absorber[] = [
  {
    id: "blue-complex",
    name: msg`a copper-like blue complex`,
    bands: [
      { nm: 618, widthNm: 62, epsilon: 55 },
      { nm: 330, widthNm: 38, epsilon: 90 },
    ],
  },
  {
    id: "orange-complex",
    name: msg`an iron-like orange complex`,
    bands: [
      { nm: 510, widthNm: 30, epsilon: 11_000 },
      { nm: 468, widthNm: 34, epsilon: 7_600 },
    ],
  },
  {
    id: "blue-acid",
    name: msg`a molybdenum-like blue`,
    bands: [
      { nm: 882, widthNm: 95, epsilon: 21_500 },
      { nm: 712, widthNm: 60, epsilon: 14_000 },
    ],
  },
  { id: "azo-dye", name: msg`a red azo dye`, bands: [{ nm: 541, widthNm: 33, epsilon: 48_000 }] },
  {
    id: "green-ion",
    name: msg`a chromium-like green ion`,
    bands: [
      { nm: 596, widthNm: 45, epsilon: 16 },
      { nm: 425, widthNm: 36, epsilon: 19 },
    ],
  },
  {
    id: "violet-dye",
    name: msg`a violet dye`,
    bands: [
      { nm: 591, widthNm: 26, epsilon: 84_000 },
      { nm: 548, widthNm: 27, epsilon: 44_000 },
      { nm: 302, widthNm: 24, epsilon: 22_000 },
    ],
  },
];

/** Molar absorptivity at a wavelength, L/(mol·cm). */
export const epsilonAt = ({ bands }: Absorber, nm: number): number =>
  bands.reduce((sum, b) => sum + b.epsilon * Math.exp(-(((nm - b.nm) / b.widthNm) ** 2) / 2), 0);

/** The absorber whose first band lies nearest to a wavelength. */
export const absorberNear = (nm: number): Absorber =>
  absorbers.reduce((best, a) =>
    Math.abs((a.bands[0]?.nm ?? 0) - nm) < Math.abs((best.bands[0]?.nm ?? 0) - nm) ? a : best,
  );
