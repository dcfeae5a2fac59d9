import type { Setting } from "./acid";
import { type DissolvedAcid, type DissolvedIon, type Mixture, type SolvedPH, solvePH } from "./solution";

/** Two solutions poured together, each diluted by the other; what the air holds stays as it is. */
export function poured(flask: Mixture, flaskMl: number, titrant: Mixture, addedMl: number): Mixture {
  const whole = flaskMl + addedMl;
  const acidsOf = ({ acids }: Mixture, ml: number): DissolvedAcid[] =>
    acids.map((one) => (one.open ? one : { ...one, concentration: (one.concentration * ml) / whole }));
  const ionsOf = ({ ions }: Mixture, ml: number): DissolvedIon[] =>
    ions.map((one) => ({ ...one, concentration: (one.concentration * ml) / whole }));
  return {
    acids: [...acidsOf(flask, flaskMl), ...acidsOf(titrant, addedMl)],
    ions: [...ionsOf(flask, flaskMl), ...ionsOf(titrant, addedMl)],
  };
}

/** A flask that is titrated. */
export interface Titrated {
  readonly flask: Mixture;
  readonly flaskMl: number;
  readonly titrant: Mixture;
}

/** The pH after each addition of titrant, mL. */
export function titrationCurve(
  { flask, flaskMl, titrant }: Titrated,
  addedMl: readonly number[],
  setting: Setting,
): SolvedPH[] {
  const solved: SolvedPH[] = [];
  for (const ml of addedMl) solved.push(solvePH(poured(flask, flaskMl, titrant, ml), setting, solved.at(-1)));
  return solved;
}
