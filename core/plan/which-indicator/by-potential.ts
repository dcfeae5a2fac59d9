import { electronsEach, nernstSlope, room, solvePotential, type SolvedPotential } from "../../equilibria";
import { msg } from "../../text";
import { firstOf } from "./first-of";
import type { Known, KnownCouple, RedoxIndicator } from "./known";
import type { PlannedTitration } from "./planned-titration";
import type { Changing, EndTheory } from "./theory";

/** There is always a trace of the other form: without it no potential would be had at either end. */
const trace = 1e-6;

/** A couple as it is put in, all of it counted as its reduced form, mol/L. */
const putIn = (couple: KnownCouple, concentration: number) => {
  const total = concentration * couple.moles * couple.reduced;
  const reduced = couple.put === "reduced" ? (1 - trace) * total : trace * total;
  return { couple, total: total + couple.beside, putReduced: reduced + couple.beside };
};

/** An oxidant and a reductant, whichever of them is in the burette: the potential, and the indicators on it. */
export function byPotential(planned: PlannedTitration, known: Known): EndTheory | null {
  const { stage, titrant, names, molPerL, flaskMl, equivalenceMl } = planned;
  const analyte = known.setFreeFor(titrant) ?? planned.analyte;
  const [inFlask, added] = [known.couple(analyte), firstOf(names, known.couple)];
  if (!inFlask || !added || inFlask.put === added.put) return null;
  const pH = stage.medium?.pH ?? added.usualPH;
  const electrons = ({ moles, reduced, ...couple }: KnownCouple) =>
    moles * reduced * electronsEach({ ...couple, reduced });
  const start = (molPerL * equivalenceMl * electrons(added)) / electrons(inFlask) / flaskMl;
  const solved = (ml: number) => {
    const whole = flaskMl + ml;
    const couples = [
      putIn(inFlask, (start * flaskMl) / whole),
      putIn(added, (molPerL * Math.max(ml, 1e-9)) / whole),
    ];
    return { couples, ...solvePotential(couples, pH, room.celsius) };
  };
  const at = (ml: number) => solved(ml).volts;
  return {
    ...{ titrant, analyte, flaskMl, equivalenceMl, at },
    endMl: 1.5 * equivalenceMl,
    scale: { is: "V" },
    changing: known.indicators.redox.flatMap((one) => changing(one, [inFlask, added], solved)),
    assumed: msg`By theory in acid of pH ${pH}, against the standard hydrogen electrode; slow reactions look otherwise on a meter`,
  };
}

type Solved = (
  addedMl: number,
) => SolvedPotential & { readonly couples: readonly { readonly total: number }[] };

/** A dye changes about its own potential, from a tenth to ten times as much oxidized as reduced; the color of an oxidant by what is free of it. */
function changing(indicator: RedoxIndicator, couples: readonly KnownCouple[], solved: Solved): Changing[] {
  if ("volts" in indicator) {
    const { volts, electrons } = indicator;
    const half = nernstSlope(room.celsius) / electrons;
    const change = (ml: number) => (solved(ml).volts - volts) / half;
    return [{ indicator, change, range: [volts - half, volts + half] }];
  }
  const { colorOf, from, to } = indicator;
  const place = couples.findIndex(({ key }) => key === colorOf);
  const own = couples[place];
  if (!own) return [];
  const [middle, half] = [Math.log10(from * to) / 2, Math.log10(to / from) / 2];
  const change = (ml: number) => {
    const { couples: there, reduced } = solved(ml);
    const oxidized = ((there[place]?.total ?? 0) - (reduced[place] ?? 0)) / own.reduced;
    return (Math.log10(Math.max(oxidized, 1e-30)) - middle) / half;
  };
  return [{ indicator, change }];
}
