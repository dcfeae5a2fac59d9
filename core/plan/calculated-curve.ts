import { jumpsOf } from "../curves";
import {
  acidTaken,
  baseTaken,
  type Mixture,
  poured,
  type Setting,
  solvePH,
  type Titrated,
  titrationCurve,
} from "../equilibria";

/** An equivalence point of a titration by theory. */
export interface TheoreticalEnd {
  /** So many protons of each molecule have been given up or taken there. */
  readonly protons: number;
  readonly ml: number;
  readonly pH: number;
  /** Whether the curve has a jump there that can be seen. */
  readonly jumps: boolean;
}

export interface TheoreticalCurve {
  readonly titrated: Titrated;
  readonly startPH: number;
  /** In the order in which they are reached; none where the titrant takes nothing from what is in the flask. */
  readonly ends: readonly TheoreticalEnd[];
  /** Largest ionic strength during the titration, mol/L. */
  readonly ionicStrength: number;
}

/** Within so much of the titrant of one proton on either side of its end, the pH changes by so much where a jump is seen. Common practice, no source. */
const [near, leastRise] = [0.01, 0.3];

/** A curve is computed so far beyond its last end. */
export const beyondLastEnd = 1.35;

/**
 * The curve of a substance titrated with a strong base or acid, and its equivalence points: one for each proton of a molecule.
 *
 * @param flask What is in the flask at the start, with the concentration of the substance in it, mol/L.
 */
export function theoreticalCurve(
  flask: { readonly mixture: Mixture; readonly molPerL: number; readonly ml: number },
  titrant: { readonly mixture: Mixture; readonly molPerL: number },
  setting: Setting,
): TheoreticalCurve {
  const { mixture, molPerL, ml: flaskMl } = flask;
  const titrated = { flask: mixture, flaskMl, titrant: titrant.mixture };
  const isBase = acidTaken(titrant.mixture) > baseTaken(titrant.mixture);
  const taken = isBase ? baseTaken(mixture) : acidTaken(mixture);
  const protons = Math.max(0, Math.round(taken / molPerL));
  const each = (molPerL * flaskMl) / titrant.molPerL;
  const last = Math.max(1, protons) * each;
  const volumes = Array.from({ length: 401 }, (_, i) => (beyondLastEnd * last * i) / 400);
  const solved = titrationCurve(titrated, volumes, setting);
  const pHAt = (ml: number) => solvePH(poured(mixture, flaskMl, titrant.mixture, ml), setting).pH;
  const jumps = jumpsOf(volumes.map((volume, i) => ({ volume, value: solved[i]!.pH })));
  const ends = Array.from({ length: protons }, (_, i): TheoreticalEnd => {
    const ml = (i + 1) * each;
    const isSteepest = jumps.some(({ volume }) => Math.abs(volume - ml) < 0.04 * each);
    const rise = Math.abs(pHAt(ml + near * each) - pHAt(ml - near * each));
    return { protons: i + 1, ml, pH: pHAt(ml), jumps: isSteepest && rise >= leastRise };
  });
  return {
    titrated,
    startPH: solved[0]?.pH ?? NaN,
    ends,
    ionicStrength: Math.max(...solved.map(({ ionicStrength }) => ionicStrength)),
  };
}
