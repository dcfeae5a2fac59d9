import { describe, expect, test } from "@jest/globals";
import { longTest } from "~/core/testing/long-test";
import newtonRaphson from "newton-raphson-method";
import { acidOf } from "~/catalog/constants/acids";
import { dissolved } from "~/catalog/constants/solutes";
import { randomStream } from "../montecarlo";
import {
  type AcidSystem,
  conditionalLogK,
  debyeHueckelA,
  deprotonated,
  logGammaOfOne,
  type Mixture,
  nernstSlope,
  pKwAt,
  room,
  solvePH,
  solvePotential,
  solveSilver,
  titrationCurve,
  unbound,
} from ".";

const ideal = { ...room, pKw: 14 };
const davies = { ...room, activity: "davies" } as const;
const water: Mixture = { acids: [], ions: [] };
const acid = (key: string, concentration: number): Mixture => ({
  acids: [{ acid: acidOf(key), concentration }],
  ions: [],
});
const ion = (charge: number, concentration: number): Mixture => ({
  acids: [],
  ions: [{ charge, concentration }],
});
const base = (concentration: number) => ion(1, concentration);
const pH = (mixture: Mixture, setting: Parameters<typeof solvePH>[1] = ideal) => solvePH(mixture, setting).pH;

describe("pH along a titration, no activity coefficients", () => {
  test.each([
    ["acetic", 0.1, 25, [0, 12.5, 25, 25.05], [2.881, 4.756, 8.728, 10.001]],
    ["tartaric", 0.02, 50, [0, 5, 10, 15, 20, 21], [2.409, 3.057, 3.718, 4.421, 8.261, 11.149]],
    ["phosphoric", 0.05, 25, [0, 12.5, 18.75, 25, 30], [1.806, 4.715, 7.198, 9.635, 11.696]],
  ] as const)("%s acid is that of the check values (CHECKS.md)", (key, c, ml, added, expected) => {
    const curve = titrationCurve({ flask: acid(key, c), flaskMl: ml, titrant: base(0.1) }, added, ideal);
    curve.forEach((point, i) => expect(point.pH).toBeCloseTo(expected[i]!, 3));
  });

  test("a strong acid by a strong base is the hyperbola h = c/2 + √(c²/4 + Kw), from 10⁻⁹ to 10 mol/L", () => {
    for (let power = -9; power <= 1; power++) {
      for (const c of [10 ** power, -(10 ** power)]) {
        // The small root of the two without taking the difference of two numbers alike.
        const root = Math.abs(c) / 2 + Math.sqrt(c ** 2 / 4 + 1e-14);
        const h = c > 0 ? root : 1e-14 / root;
        expect([c, pH(ion(-1, c))]).toEqual([c, expect.closeTo(-Math.log10(h), 10)]);
      }
    }
    expect(pH(water)).toBeCloseTo(7, 12);
  });

  /** Charges of a mixture at a pH, in all and of either sign: written from overall constants β, not from stepwise ones. */
  function charges({ acids, ions }: Mixture, pH: number): readonly [sum: number, size: number] {
    const h = 10 ** -pH;
    let [sum, size] = [h - 1e-14 / h, h + 1e-14 / h];
    for (const { charge, concentration: c } of ions) [sum, size] = [sum + charge * c, size + c];
    for (const { acid, concentration: c } of acids) {
      const weights = [0];
      acid.steps.forEach(({ pKa }, j) => weights.push(weights[j]! - pKa + pH));
      const top = Math.max(...weights);
      const whole = weights.reduce((all, w) => all + 10 ** (w - top), 0);
      weights.forEach((w, j) => {
        const part = (c * 10 ** (w - top)) / whole;
        sum += (acid.charge - j) * part;
        size += Math.abs(acid.charge - j) * part;
      });
    }
    return [sum, size];
  }

  /** Of acids and bases with one to six protons, and an ion; from 10⁻⁹ to 10 mol/L. */
  function randomMixture({ uniform }: { uniform: () => number }): Mixture {
    const concentration = () => 10 ** (-9 + 10 * uniform());
    const acids = Array.from({ length: 1 + Math.floor(4 * uniform()) }, () => {
      const steps = Array.from({ length: 1 + Math.floor(6 * uniform()) }, () => ({ pKa: 15 * uniform() }));
      const acid: AcidSystem = {
        charge: Math.floor(3 * uniform()),
        steps: steps.toSorted((a, b) => a.pKa - b.pKa),
      };
      return { acid, concentration: concentration() };
    });
    return { acids, ions: [{ charge: uniform() < 0.5 ? 1 : -1, concentration: concentration() }] };
  }

  longTest(
    "10,000 random mixtures: charges add up to nothing, and a library's solver finds the same pH",
    () => {
      const stream = randomStream(19);
      const random = { uniform: () => stream.uniform() };
      let [surplus, apart] = [0, 0];
      for (let i = 0; i < 10_000; i++) {
        const mixture = randomMixture(random);
        const { pH } = solvePH(mixture, ideal);
        const part = (at: number) => {
          const [sum, size] = charges(mixture, at);
          return sum / size;
        };
        surplus = Math.max(surplus, Math.abs(part(pH)));
        // The second opinion begins where the sign changes, on a grid of its own.
        let from = -3;
        while (part(from + 0.1) > 0) from += 0.1;
        const other = newtonRaphson(part, from + 0.05, { tolerance: 1e-12, maxIterations: 100, h: 1e-5 });
        apart = Math.max(apart, other === false ? Infinity : Math.abs(other - pH));
      }
      expect(surplus).toBeLessThan(1e-8);
      expect(apart).toBeLessThan(1e-6);
    },
  );

  test("an open solution takes carbon dioxide until its water is that of rain", () => {
    // 10^-5 mol/L of dissolved carbon dioxide: h² = K₁c, pH 5.67 (closed form, bicarbonate alone).
    const open = (ions: Mixture["ions"]) =>
      pH({ acids: [{ acid: acidOf("carbonic"), concentration: 1e-5, open: true }], ions });
    expect(open([])).toBeCloseTo(-Math.log10(Math.sqrt(10 ** -6.35 * 1e-5 + 1e-14)), 3);
    // A base that stood in air is a bicarbonate at last: [HCO3-] = 0.001, pH = 6.35 + log(0.001 / 1e-5).
    expect(open([{ charge: 1, concentration: 0.001 }])).toBeCloseTo(8.33, 1);
  });
});

describe("substances as they stand in a bottle", () => {
  test.each([
    // Strong in the first step; with the second, h² + (K - c) h - 2 K c = 0.
    [
      "H2SO4",
      0.01,
      -Math.log10((0.01 - 10 ** -1.99 + Math.sqrt((0.01 - 10 ** -1.99) ** 2 + 8 * 10 ** -1.99 * 0.01)) / 2),
    ],
    ["HCl", 0.01, 2],
    ["NaOH", 0.01, 12],
    // (pKa₁ + pKa₂) / 2 of what is both acid and base, from memory.
    ["NaHCO3", 0.1, (6.35 + 10.33) / 2],
    // √(Kb c) of ammonia, and of carbonate.
    ["NH3", 0.1, 14 + Math.log10(Math.sqrt(10 ** -4.75 * 0.1))],
    ["Na2CO3", 0.1, 14 + Math.log10(Math.sqrt(10 ** -3.67 * 0.1))],
  ])("%s, %d mol/L", (formula, concentration, expected) => {
    expect(Math.abs(pH(dissolved(formula, concentration)!) - expected)).toBeLessThan(0.02);
  });

  test("what has no constants in the table has no pH", () => {
    expect([dissolved("CuSO4", 0.1), dissolved("constructor", 0.1)]).toEqual([null, null]);
  });
});

describe("activity and temperature", () => {
  test("the constants of water at 25 °C and beyond", () => {
    expect(debyeHueckelA(25)).toBeCloseTo(0.51, 2);
    // Davies at 0.1 mol/L: γ = 0.78 (textbook, from memory).
    expect(10 ** logGammaOfOne(0.1, 25)).toBeCloseTo(0.78, 2);
    expect(pKwAt(25)).toBeCloseTo(13.995, 3);
    expect(pKwAt(0)).toBeCloseTo(14.94, 2);
    expect(nernstSlope(25)).toBeCloseTo(0.05916, 5);
  });

  test("0.1 mol/L of a strong acid has the pH of its activity; its ionic strength is solved for", () => {
    const strong = solvePH(ion(-1, 0.1), davies);
    expect(strong.ionicStrength).toBeCloseTo(0.1, 9);
    expect(strong.pH).toBeCloseTo(1 - logGammaOfOne(0.1, 25), 9);
    expect([strong.beyondDavies, solvePH(ion(-1, 2), davies).beyondDavies]).toEqual([false, true]);
  });

  test("buffers by temperature: phthalate and phosphate as they are sold (from memory, to 0.03)", () => {
    const phthalate = (celsius: number) =>
      pH(
        {
          acids: [{ acid: acidOf("phthalic"), concentration: 0.05 }],
          ions: [{ charge: 1, concentration: 0.05 }],
        },
        { ...davies, celsius },
      );
    const phosphate = (celsius: number) =>
      pH(
        {
          acids: [{ acid: acidOf("phosphoric"), concentration: 0.05 }],
          ions: [{ charge: 1, concentration: 0.075 }],
        },
        { ...davies, celsius },
      );
    // 0.05 mol/kg potassium hydrogen phthalate: 4.01 at 25 °C; 0.025 mol/kg of each phosphate: 6.86 at 25 °C, 6.88 at 20 °C.
    expect(Math.abs(phthalate(25) - 4.005)).toBeLessThan(0.03);
    expect(Math.abs(phosphate(25) - 6.865)).toBeLessThan(0.03);
    expect(phosphate(20) - phosphate(25)).toBeCloseTo(0.016, 2);
  });

  test("a constant that was measured at an ionic strength gives the same pH there as it was measured at", () => {
    const measured: AcidSystem = { charge: 0, steps: [{ pKa: 4.5, ionicStrength: 0.1 }] };
    const half = {
      acids: [{ acid: measured, concentration: 0.002 }],
      ions: [
        { charge: 1, concentration: 0.001 },
        { charge: 1, concentration: 0.099 },
        { charge: -1, concentration: 0.099 },
      ],
    };
    const { h, ionicStrength } = solvePH(half, davies);
    expect(ionicStrength).toBeCloseTo(0.1, 4);
    expect(-Math.log10(h)).toBeCloseTo(
      4.5 + Math.log10((0.001 + h) / (0.001 - h)) * -1 + 2 * Math.log10((0.001 + h) / (0.001 - h)),
      3,
    );
  });
});

describe("metals, electrons and silver", () => {
  test.each([
    [5, 2.9e-7],
    [8, 4.2e-3],
    [9, 0.041],
    [10, 0.3],
    [11, 0.81],
    [12, 0.98],
  ])("EDTA without its protons at pH %d (CHECKS.md)", (at, expected) => {
    expect(deprotonated(acidOf("edta"), at, ideal) / expected).toBeCloseTo(1, 1);
  });

  test("calcium by EDTA at pH 10: half of pK' at the end, pK' at twice as much", () => {
    const logK = conditionalLogK({ logK: 10.65 }, acidOf("edta"), { pH: 10, ammonia: 0, setting: ideal });
    expect(logK).toBeCloseTo(10.65 + Math.log10(0.3), 1);
    const [atEnd] = unbound([{ logK, concentration: 0.01 }], 0.01);
    expect(-Math.log10(atEnd!)).toBeCloseTo((logK + 2) / 2, 3);
    const [beyond] = unbound([{ logK, concentration: 0.01 }], 0.02);
    expect(-Math.log10(beyond!)).toBeCloseTo(logK, 3);
    // Calcium goes first where magnesium is there too.
    const [ca, mg] = unbound(
      [
        { logK: 10.1, concentration: 0.01 },
        { logK: 8.2, concentration: 0.01 },
      ],
      0.01,
    );
    expect(ca! / mg!).toBeLessThan(0.12);
    expect(ca! + mg!).toBeCloseTo(0.01, 6);
  });

  test("iron(II) by permanganate: Nernst's potential of iron half way, that of both at the end", () => {
    const iron = { volts: 0.771, electrons: 1, protons: 0, reduced: 1 } as const;
    const permanganate = { volts: 1.507, electrons: 5, protons: 8, reduced: 1 } as const;
    const at = (added: number) =>
      solvePotential(
        [
          { couple: iron, total: 0.01, putReduced: 0.01 },
          { couple: permanganate, total: added, putReduced: 0 },
        ],
        0,
        25,
      );
    expect(at(0.001).volts).toBeCloseTo(0.771, 6);
    // At pH 0 in the ratio of the equation: (0.771 + 5 · 1.507) / 6.
    expect(at(0.002).volts).toBeCloseTo((0.771 + 5 * 1.507) / 6, 4);
    expect(at(0.001).reduced[1]).toBeCloseTo(0.001, 9);
  });

  test("iodine by thiosulfate: two of the reduced form come of one, and the end lies where they are equal", () => {
    const iodine = { volts: 0.536, electrons: 2, protons: 0, reduced: 2 } as const;
    const tetrathionate = { volts: 0.08, electrons: 2, protons: 0, reduced: 2 } as const;
    const at = (thiosulfate: number) =>
      solvePotential(
        [
          { couple: iodine, total: 0.02, putReduced: 0 },
          { couple: tetrathionate, total: thiosulfate, putReduced: thiosulfate },
        ],
        0,
        25,
      );
    // Half of 0.01 mol/L of I2 is left, 0.01 mol/L of I- is there: E = 0.536 + 0.02958 · log(0.005 / 0.01²).
    expect(at(0.01).volts).toBeCloseTo(0.536 + (nernstSlope(25) / 2) * Math.log10(0.005 / 0.01 ** 2), 4);
    expect(at(0.019).volts - at(0.021).volts).toBeGreaterThan(0.2);
  });

  test("iodide and chloride by silver: one after the other, and half of pKs at the end of one alone", () => {
    const chloride = { pKs: 9.74, concentration: 0.1 };
    expect(solveSilver([chloride], 0.1).pAg).toBeCloseTo(9.74 / 2, 9);
    const both = [{ pKs: 16.07, concentration: 0.1 }, chloride];
    const { pAg, dissolved } = solveSilver(both, 0.1);
    expect(dissolved[1]).toBeCloseTo(0.1, 6);
    expect(dissolved[0]).toBeCloseTo(10 ** (-16.07 + pAg), 12);
    expect(solveSilver(both, 0.15).dissolved[1]).toBeCloseTo(0.05, 6);
  });
});
