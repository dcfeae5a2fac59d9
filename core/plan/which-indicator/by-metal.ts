import { bare, conditionalLogK, deprotonated, room, type Surroundings, unbound } from "../../equilibria";
import { type Phrase, msg } from "../../text";
import { firstOf } from "./first-of";
import type { Known, KnownMetal, MetalIndicator } from "./known";
import type { PlannedTitration } from "./planned-titration";
import type { Changing, EndTheory } from "./theory";

/** What is free in a flask after an addition, mL: of each metal, mol/L, bound neither to the ligand nor to anything else. */
type FreeMetals = (addedMl: number) => ReadonlyMap<string, number>;

/**
 * A metal and a ligand at a fixed pH, whichever of them is in the burette. Magnesium that was put in with its ligand takes part: the metal
 * drives it out, and the indicator shows the magnesium.
 */
export function byMetal(planned: PlannedTitration, known: Known): EndTheory | null {
  const { stage, analyte, titrant, names, molPerL, flaskMl, equivalenceMl } = planned;
  const { medium } = stage;
  if (!medium) return null;
  const titrantLigand = firstOf(names, known.ligand);
  const metal = titrantLigand ? known.metal(analyte) : firstOf(names, known.metal);
  const ligand = titrantLigand ?? known.ligand(analyte);
  const magnesium = known.metal("Mg^2+");
  if (!metal || !ligand || !magnesium) return null;
  const around: Surroundings = { pH: medium.pH, ammonia: medium.ammonia ?? 0, setting: room };
  const helped = medium.magnesium ?? 0;
  const metals = helped > 0 && metal.symbol !== magnesium.symbol ? [metal, magnesium] : [metal];
  const freeAt: FreeMetals = (ml) => {
    const whole = flaskMl + ml;
    const [inFlask, fromBurette] = [(molPerL * equivalenceMl) / whole, (molPerL * ml) / whole];
    const complexed = (helped * flaskMl) / whole;
    const [ofMetal, ofLigand] = titrantLigand ? [inFlask, fromBurette] : [fromBurette, inFlask];
    const amounts = [ofMetal, complexed];
    const left = unbound(
      metals.map((one, i) => ({
        logK: conditionalLogK(one, ligand, around),
        concentration: amounts[i] ?? 0,
      })),
      ofLigand + (metals.length > 1 ? complexed : 0),
    );
    return new Map(metals.map((one, i) => [one.symbol, (left[i] ?? 0) * bare(one, around)]));
  };
  const at = (ml: number) => -Math.log10(Math.max(freeAt(ml).get(metal.symbol) ?? 0, 1e-30));
  return {
    ...{ titrant, analyte, flaskMl, equivalenceMl, at },
    endMl: 1.5 * equivalenceMl,
    scale: { is: "pM", metal: metal.symbol },
    changing: known.indicators.metal.flatMap((one) => changing(one, metals, freeAt, around)),
    assumed: assumedOf(medium.pH, around.ammonia, metals.length > 1),
  };
}

/** Where an indicator that metals bind changes: ten times as much bound as free, as much, a tenth. Nothing where it binds none of them, or cannot be told at the pH. */
function changing(
  indicator: MetalIndicator,
  metals: readonly KnownMetal[],
  freeAt: FreeMetals,
  around: Surroundings,
): Changing[] {
  const { acid, logK, usable } = indicator;
  const bound = metals.flatMap(({ symbol }) => {
    const constant = logK[symbol];
    return constant === undefined ? [] : [{ symbol, constant }];
  });
  const { pH } = around;
  if (bound.length === 0 || pH < usable[0] || pH > usable[1]) return [];
  const part = deprotonated(acid, around.pH, around.setting);
  const change = (ml: number) => {
    const free = freeAt(ml);
    const sum = bound.reduce(
      (all, { symbol, constant }) => all + 10 ** constant * part * (free.get(symbol) ?? 0),
      0,
    );
    return -Math.log10(Math.max(sum, 1e-30));
  };
  return [{ indicator, change }];
}

function assumedOf(pH: number, ammonia: number, helped: boolean): Phrase {
  const theory =
    ammonia > 0
      ? msg`By theory at pH ${pH}, with ${ammonia} mol/L of free ammonia, without activity coefficients`
      : msg`By theory at pH ${pH}, without activity coefficients`;
  return helped
    ? msg`${theory}. The magnesium that was put in with its ligand is what the indicator shows`
    : theory;
}
