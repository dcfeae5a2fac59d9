import { type AcidSystem, constantsOf, fractions, type Setting } from "./acid";
import { free, placeOf, type Taker } from "./uptake";
import { pKwAt } from "./water";

/* A metal and a ligand that bind one to one, at a fixed pH: conditional constants and what is free along a titration. */

/** A metal: what else than the ligand binds it. */
export interface Metal {
  /** log10 of the constant with the wholly deprotonated ligand. */
  readonly logK: number;
  /** log10 of the overall constants with ammonia, one NH3, two, …. */
  readonly ammonia?: readonly number[];
  /** log10 of the overall constants with hydroxide, one OH-, two, …. */
  readonly hydroxide?: readonly number[];
}

/** What surrounds them. */
export interface Surroundings {
  readonly pH: number;
  /** Free ammonia, NH3 alone, mol/L. */
  readonly ammonia: number;
  readonly setting: Setting;
}

/** Part of a ligand without its metal that has lost all its protons. */
export const deprotonated = (ligand: AcidSystem, pH: number, setting: Setting): number =>
  fractions(constantsOf(ligand, 0, setting), 10 ** -pH).at(-1) ?? NaN;

const boundBy = (logs: readonly number[] = [], concentration: number): number =>
  logs.reduce((sum, log, i) => sum + 10 ** log * concentration ** (i + 1), 0);

/** Part of a metal without its ligand that is bound to nothing else either. */
export function bare(metal: Metal, { pH, ammonia, setting }: Surroundings): number {
  const hydroxide = 10 ** (pH - (setting.pKw ?? pKwAt(setting.celsius)));
  return 1 / (1 + boundBy(metal.ammonia, ammonia) + boundBy(metal.hydroxide, hydroxide));
}

/** log10 of the conditional constant: of all of the metal and all of the ligand that are not bound to each other. */
export const conditionalLogK = (metal: Metal, ligand: AcidSystem, around: Surroundings): number =>
  metal.logK + Math.log10(bare(metal, around)) + Math.log10(deprotonated(ligand, around.pH, around.setting));

/** A metal in a flask, by its conditional constant, mol/L. */
export interface MetalInFlask {
  readonly logK: number;
  readonly concentration: number;
}

/** What is not bound to the ligand, mol/L, of each metal. */
export function unbound(metals: readonly MetalInFlask[], ligand: number): number[] {
  const takers = metals.map(
    ({ logK, concentration }): Taker =>
      (place) =>
        concentration / (1 + 10 ** -(logK + place)),
  );
  const place = placeOf([...takers, free], ligand, [-40, 2]);
  return metals.map(({ logK, concentration }) => concentration / (1 + 10 ** (logK + place)));
}
