import {
  type Couple,
  type Mixture,
  nernstSlope,
  poured,
  room,
  type Setting,
  solvePH,
  solvePotential,
  solveSilver,
} from "../equilibria";

/* What a meter would show along a titration whose equivalence points are known: for a simulated bench, and to lay over what was read. */

/** What happens in the beaker, as data. Potentials are against a reference electrode whose own is taken off, V. */
export type CurveTheory =
  /** An acid by a strong base; strong itself where it has no constants. */
  | { readonly is: "acid"; readonly pKas: readonly number[] }
  /** A base by a strong acid; constants are those of its acid, the protons taken up last first. */
  | { readonly is: "base"; readonly pKas: readonly number[] }
  /** Carbonate and hydrogen carbonate by a strong acid, to two ends. */
  | { readonly is: "carbonates" }
  /** A strong acid by a base that has taken up carbon dioxide: the two ends are where Gran's lines before and beyond meet the axis. */
  | { readonly is: "carbonated base" }
  /** A halide by silver, at a silver electrode. */
  | { readonly is: "silver"; readonly pKs: number; readonly referenceV: number }
  /** A reductant by an oxidant, at platinum, in acid of this pH. */
  | {
      readonly is: "redox";
      readonly reductant: Couple;
      readonly oxidant: Couple;
      readonly pH: number;
      readonly referenceV: number;
    }
  /** Two straight branches: what is shown at the start, at the end and at twice the end, as if nothing were diluted. */
  | { readonly is: "branches"; readonly start: number; readonly end: number; readonly twice: number };

/** A beaker that is titrated. */
export interface TheorySetting {
  /** Volume at the start, mL. */
  readonly flaskMl: number;
  /** Concentration of the titrant, mol/L. */
  readonly titrant: number;
  /** Its equivalence points, mL, in order. */
  readonly ends: readonly number[];
  readonly celsius: number;
}

type Shown = (addedMl: number) => number;
type Of<I extends CurveTheory["is"]> = Extract<CurveTheory, { is: I }>;

const carbonic = { charge: 0, steps: [{ pKa: 6.352 }, { pKa: 10.329 }] };

/** pH along a titration, at the ion product of water of the temperature. */
function alongPH(flask: Mixture, titrant: Mixture, { flaskMl, celsius }: TheorySetting): Shown {
  const setting: Setting = { ...room, celsius };
  return (ml) => solvePH(poured(flask, flaskMl, titrant, ml), setting).pH;
}

const ions = (charge: number, concentration: number): Mixture => ({
  acids: [],
  ions: [{ charge, concentration }],
});

const lastOf = ({ ends }: TheorySetting): number => ends.at(-1) ?? NaN;

/** mV of an electrode: 1000 (E - E_reference). */
const milliVolts = (volts: number, referenceV: number): number => 1000 * (volts - referenceV);

/** Titrant that a silver electrode has seen before the first drop, mL: what makes its film of the salt. */
const filmMl = 1e-3;

/** Standard potential of silver, V (from memory). */
const silverV = 0.7996;

const kinds: { readonly [I in CurveTheory["is"]]: (theory: Of<I>, setting: TheorySetting) => Shown } = {
  acid: ({ pKas }, setting) => {
    const { titrant, flaskMl } = setting;
    const protons = Math.max(1, pKas.length);
    const concentration = (titrant * lastOf(setting)) / protons / flaskMl;
    const flask =
      pKas.length === 0
        ? ions(-1, concentration)
        : { acids: [{ acid: { charge: 0, steps: pKas.map((pKa) => ({ pKa })) }, concentration }], ions: [] };
    return alongPH(flask, ions(1, titrant), setting);
  },
  base: ({ pKas }, setting) => {
    const { titrant, flaskMl } = setting;
    const protons = Math.max(1, pKas.length);
    const concentration = (titrant * lastOf(setting)) / protons / flaskMl;
    const steps = pKas.toSorted((a, b) => a - b).map((pKa) => ({ pKa }));
    const flask =
      pKas.length === 0
        ? ions(1, concentration)
        : { acids: [{ acid: { charge: steps.length, steps }, concentration }], ions: [] };
    return alongPH(flask, ions(-1, titrant), setting);
  },
  carbonates: (_theory, setting) => {
    const { titrant, flaskMl, ends } = setting;
    const [first = NaN, last = NaN] = ends;
    const perMl = titrant / flaskMl;
    // From the first end to the last, all that holds carbon takes one proton; sodium is what all protons make up for.
    const flask = {
      acids: [{ acid: carbonic, concentration: perMl * (last - first) }],
      ions: [{ charge: 1, concentration: perMl * last }],
    };
    return alongPH(flask, ions(-1, titrant), setting);
  },
  "carbonated base": (_theory, setting) => {
    const { titrant, flaskMl, ends } = setting;
    const [before = NaN, beyond = NaN] = ends;
    // Hydroxide alone counts beyond the end; before it, each carbonate takes two protons besides.
    const carbonate = (titrant * (beyond / before - 1)) / 2;
    const base = {
      acids: [{ acid: carbonic, concentration: carbonate }],
      ions: [{ charge: 1, concentration: titrant + 2 * carbonate }],
    };
    return alongPH(ions(-1, (titrant * beyond) / flaskMl), base, setting);
  },
  silver: ({ pKs, referenceV }, setting) => {
    const { titrant, flaskMl, celsius } = setting;
    return (ml) => {
      const whole = flaskMl + ml;
      const halide = { pKs, concentration: (titrant * lastOf(setting)) / whole };
      // The electrode carries a little of the salt from the start.
      const { pAg } = solveSilver([halide], (titrant * Math.max(ml, filmMl)) / whole);
      return milliVolts(silverV - nernstSlope(celsius) * pAg, referenceV);
    };
  },
  redox: ({ reductant, oxidant, pH, referenceV }, setting) => {
    const { titrant, flaskMl, celsius } = setting;
    const electrons = (couple: Couple) => couple.electrons / couple.reduced;
    const inFlask = ((titrant * lastOf(setting)) / flaskMl) * (electrons(oxidant) / electrons(reductant));
    // There is always a trace of iron(III), or of manganese: without it no potential would be had at either end.
    const trace = 1e-6;
    return (ml) => {
      const whole = flaskMl + ml;
      const total = (inFlask * flaskMl) / whole;
      const added = (titrant * Math.max(ml, 1e-9)) / whole;
      const couples = [
        { couple: reductant, total, putReduced: (1 - trace) * total },
        { couple: oxidant, total: added, putReduced: trace * added },
      ];
      return milliVolts(solvePotential(couples, pH, celsius).volts, referenceV);
    };
  },
  branches: ({ start, end, twice }, setting) => {
    const at = lastOf(setting);
    return (ml) => {
      const [low, high, part] = ml <= at ? [start, end, ml / at] : [end, twice, ml / at - 1];
      return ((low + (high - low) * part) * setting.flaskMl) / (setting.flaskMl + ml);
    };
  },
};

/** What a meter shows after an addition of titrant, mL: pH, mV, absorbance or conductance in mS. */
export const shownBy = (theory: CurveTheory, setting: TheorySetting): Shown =>
  (kinds[theory.is] as (theory: CurveTheory, setting: TheorySetting) => Shown)(theory, setting);
