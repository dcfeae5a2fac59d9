import { risingRoot } from "./root";

/**
 * Something that takes up what is titrated in: a metal that binds a ligand, an oxidant that takes electrons, a halide that silver takes out of
 * the solution. At a place of the titrated species (log10 of its free concentration, or of the activity of electrons), mol/L that are taken.
 */
export type Taker = (place: number) => number;

/**
 * The place at which what was put in is all taken up or free: the one balance by which titrations with a ligand, with electrons and with a
 * precipitant are computed. Each taker takes the more the further up, so that there is one place.
 *
 * @param amount What was put in, mol/L.
 * @param range Between these places, log10.
 */
export function placeOf(takers: readonly Taker[], amount: number, range: readonly [number, number]): number {
  const surplus = (place: number) => takers.reduce((sum, taker) => sum + taker(place), -amount);
  return risingRoot(surplus, ...range);
}

/** What is free takes part too, where the species can be free: 10 to its place. */
export const free: Taker = (place) => 10 ** place;
