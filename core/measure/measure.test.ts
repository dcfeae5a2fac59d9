import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { divide, exact, inUnit, leaf, measured, multiply, standardUncertainty } from "../quantity";
import { combineReplicates, sharesOfVariance } from "../judgement";
import {
  buoyancyFactor,
  buretteVolume,
  dropsVolume,
  flaskVolume,
  glasswareTolerance,
  graduatedVolume,
  massByDifference,
  massTared,
  parseReading,
  pipetteVolume,
  purity,
  type ReadingRules,
  repeatCheck,
  sameReadingCheck,
  slipChecks,
} from ".";
import { plain } from "../testing/plain";

const conditions = {
  toleranceClass: "A",
  toleranceShape: "triangular",
  roomC: 20,
  temperatureHalfRangeC: 3,
  temperatureShape: "normal95",
} as const;
const still = { ...conditions, temperatureHalfRangeC: 0 };

describe("volumes", () => {
  test("tolerances by ISO 385 and ISO 648 (from memory); class B is twice class A", () => {
    expect(glasswareTolerance("burette", 50, "A")).toEqual({
      capacityMl: 50,
      toleranceMl: 0.05,
      standardSize: true,
    });
    expect(glasswareTolerance("pipette", 25, "B").toleranceMl).toBe(0.06);
    expect(glasswareTolerance("pipette", 15, "A")).toEqual({
      capacityMl: 20,
      toleranceMl: 0.03,
      standardSize: false,
    });
  });

  test("QUAM A2: 18.64 mL from a burette of ±0.03 mL in a room within 3 °C has u = 0.013 mL", () => {
    // calibration 0.03/√6 = 0.012; temperature 18.64 · 2.1e-4 · 3 / 1.96 = 0.006
    const v = buretteVolume(
      { initialMl: 0, finalMl: 18.64, capacityMl: 25, readingHalfWidthMl: 0, stage: "s", trial: "t" },
      conditions,
    );
    expect((standardUncertainty(v) * 1000).toFixed(4)).toBe("0.0136");
    expect(inUnit(v, "mL")).toBeCloseTo(18.64, 12);
  });

  test("the same pipette used in every trial does not average out", () => {
    const aliquots = ["1", "2", "3", "4"].map((trial) => pipetteVolume(25, { stage: "s", trial }, still));
    const { systematic, repeatability } = combineReplicates(aliquots, "s", 0);
    expect(systematic * 1000).toBeCloseTo(0.03 / Math.sqrt(6), 9);
    expect(repeatability).toBe(0);
  });

  test("burette readings scatter and average out, its tolerance does not", () => {
    const titers = ["1", "2", "3", "4"].map((trial) =>
      buretteVolume(
        { initialMl: 0, finalMl: 20, capacityMl: 50, readingHalfWidthMl: 0.02, stage: "s", trial },
        still,
      ),
    );
    const { systematic, repeatability, repeatabilityFrom } = combineReplicates(titers, "s", 0);
    expect(systematic * 1000).toBeCloseTo(0.05 / Math.sqrt(6), 9);
    // two readings of 0.02/√6 each, over √4
    expect(repeatability * 1000).toBeCloseTo((Math.SQRT2 * 0.02) / Math.sqrt(6) / 2, 9);
    expect(repeatabilityFrom).toBe("reading");
  });

  test("a volume read at 25 °C is the smaller one that it is at 20 °C; a second pipette is a cause of its own", () => {
    const place = { stage: "s", trial: "t" };
    // 25 mL · (1 - 2.1e-4 · 5)
    expect(inUnit(pipetteVolume(25, place, { ...conditions, roomC: 25 }), "mL")).toBeCloseTo(24.97375, 9);
    const [one, same] = [pipetteVolume(25, place, still), pipetteVolume(25, place, still)];
    const other = pipetteVolume(25, place, still, "V", 2);
    expect(standardUncertainty(divide(one, same))).toBeCloseTo(0, 12);
    expect(standardUncertainty(divide(one, other))).toBeCloseTo((Math.SQRT2 * 0.03) / Math.sqrt(6) / 25, 9);
  });

  test("what no pipette holds is counted with the tolerance of what measures it", () => {
    const place = { stage: "s", trial: "t" };
    const u = (ml: number) => 1000 * standardUncertainty(pipetteVolume(ml, place, still));
    // 10 and 5 mL pipettes: √(0.02² + 0.015²)/√6
    expect(u(15)).toBeCloseTo(Math.hypot(0.02, 0.015) / Math.sqrt(6), 9);
    // a 50 mL cylinder: tolerance 0.5 and a reading of half of it
    expect(u(26.5)).toBeCloseTo(Math.hypot(0.5, 0.25) / Math.sqrt(6), 9);
  });

  test("the room's temperature cancels in a ratio of two volumes of one stage", () => {
    const place = { stage: "s", trial: "t" };
    const exactGlass = { ...conditions, toleranceClass: "A" as const };
    const a = pipetteVolume(25, place, exactGlass);
    const b = pipetteVolume(10, place, exactGlass);
    const q = divide(a, b);
    expect(q.sensitivities.get("temperature:s")?.by).toBeCloseTo(0, 15);
    // A warmer room than said means less at 20 °C.
    expect(multiply(a, b).sensitivities.get("temperature:s")?.by).toBeLessThan(0);
  });
});

/**
 * EURACHEM/CITAC Guide CG 4 (QUAM), 3rd ed., example A1: 100.28 mg (u = 0.05 mg) of purity 0.9999 ± 0.0001 in 100.0 mL:
 * 1002.7 mg/L, u = 0.9 mg/L.
 */
test("QUAM A1: a calibration standard by weight", () => {
  const place = { stage: "s", trial: "s", once: true };
  const flask = flaskVolume(
    100,
    place,
    { ...conditions, temperatureHalfRangeC: 4, temperatureShape: "rectangular" },
    "V_f",
  );
  // tolerance 0.10/√6 = 0.04; filling 0.02; temperature 100 · 2.1e-4 · 4 / √3 = 0.05; together 0.07 mL
  expect((standardUncertainty(flask) * 1000).toFixed(2)).toBe("0.07");
  const mass = measured(100.28, "mg", [
    { leaf: leaf({ id: "m", label: "m", group: "Mass", u: 0.05 }), by: 1 },
  ]);
  const c = divide(multiply(mass, purity(0.9999, 0.0001, "Cd", "s")), flask);
  expect(inUnit(c, "mg/L").toFixed(1)).toBe("1002.7");
  // Unrounded: √(0.5² + 0.058² + 0.67²) = 0.835. The guide goes on with the flask's u rounded to 0.07 mL: 0.86, said as 0.9.
  expect(standardUncertainty(c) * 1000).toBeCloseTo(0.835, 2);
  const asRounded = measured(100, "mL", [
    { leaf: leaf({ id: "V", label: "V", group: "V", u: 0.07 }), by: 1 },
  ]);
  const guide = divide(multiply(mass, purity(0.9999, 0.0001, "Cd", "s")), asRounded);
  expect((standardUncertainty(guide) * 1000).toFixed(1)).toBe("0.9");
  expect(plain(sharesOfVariance(c)[0]?.label)).toBe("Mass");
});

describe("other glass, drops and balances", () => {
  const place = { stage: "s", trial: "t" };

  test("a cylinder is far rougher than a pipette of its size, and the same one serves all trials", () => {
    const glass = { kind: "cylinder", capacityMl: 25 } as const;
    const u = (trial: string) => graduatedVolume(25, { stage: "s", trial }, still, glass, "V");
    expect(
      standardUncertainty(u("1")) / standardUncertainty(pipetteVolume(25, place, still)),
    ).toBeGreaterThan(8);
    // tolerance 0.25/√6 shared, reading 0.125/√6 anew
    const { systematic, repeatability } = combineReplicates(["1", "2", "3", "4"].map(u), "s", 0);
    expect(systematic * 1000).toBeCloseTo(0.25 / Math.sqrt(6), 9);
    expect(repeatability * 1000).toBeCloseTo(0.125 / Math.sqrt(6) / 2, 9);
  });

  /** Common practice, no source: 20 drops to the mL; 15 drops of 10 % with 5 of water are 7.5 %. */
  test("drops: by a factor that has its own ±", () => {
    const drops = (n: number) => dropsVolume(n, { value: 20, plusMinus: 0.5 }, place, "ethanol");
    expect(inUnit(drops(20), "mL")).toBeCloseTo(1, 12);
    expect(standardUncertainty(drops(20)) * 1000).toBeCloseTo(0.5 / Math.sqrt(3) / 20, 12);
    // The factor cancels in a mixture of drops.
    const strength = divide(multiply(exact(10), drops(15)), drops(20));
    expect(strength.value).toBeCloseTo(7.5, 12);
    expect(standardUncertainty(strength)).toBeCloseTo(0, 12);
  });

  test("both readings of a burette share its calibration, and two burettes of a stage do not", () => {
    const readings = { ...place, initialMl: 1, finalMl: 21, capacityMl: 50, readingHalfWidthMl: 0 };
    const titer = buretteVolume(readings, still);
    expect(standardUncertainty(titer) * 1000).toBeCloseTo(0.05 / Math.sqrt(6), 12);
    const sample = buretteVolume({ ...readings, symbol: "V_s" }, still);
    expect(standardUncertainty(divide(titer, titer))).toBeCloseTo(0, 12);
    expect(standardUncertainty(divide(titer, sample))).toBeGreaterThan(1e-3);
  });

  /** Common practice, no source: boat 5.84 g, after transfer 1.03 g: 4.81 g. Bottle 5.85 g, empty 4.23 g: 1.62 g. */
  test("masses by difference both ways and tared; air's buoyancy from the density", () => {
    const balance = { readabilityG: 0.01, linearityG: 0.02 };
    expect(massByDifference(5.84, 1.03, place, balance).value).toBeCloseTo(4.81, 12);
    expect(massByDifference(5.85, 4.23, place, balance).value).toBeCloseTo(1.62, 12);
    const tared = massTared(0.5, place, balance);
    expect(standardUncertainty(tared)).toBeCloseTo(
      standardUncertainty(massByDifference(5, 4.5, place, balance)),
      12,
    );
    // Water of 0.998 g/mL in air of 1.2 mg/mL against weights of 8.0 g/mL: 1.00105 (from memory).
    expect(buoyancyFactor(0.998).toFixed(5)).toBe("1.00105");
    expect(buoyancyFactor(8)).toBe(1);
  });

  test("what is read once for all trials does not count as their scatter", () => {
    const once = massByDifference(5, 1, { ...place, once: true }, { readabilityG: 0.1, linearityG: 0 });
    expect(combineReplicates([once, once, once], "s", 0)).toMatchObject({ repeatability: 0 });
    expect(combineReplicates([once], "s", 0).systematic).toBeCloseTo(standardUncertainty(once), 12);
  });
});

describe("slips", () => {
  const near = (value: number, within = 0.5) => ({ value, within, by: "the trials before" });
  const only = (text: string, value: number, within?: number) =>
    slipChecks(text, "mL", 2, near(value, within))[0];

  test.each([
    ["13.50", 31.42, "swapped digits", "31.50"],
    ["24.53", 25.4, "swapped digits", "25.43"],
    ["24.40", 25.41, "off by a mark", "25.40"],
    ["35.40", 25.41, "off by a mark", "25.40"],
    ["2.54", 25.41, "dropped digit", "25.40"],
    ["12.00", 25.41, "jump", undefined],
  ])("%s where %d was expected: %s", (text, expected, kind, proposal) => {
    const check = only(text, expected);
    expect(plain(check)).toMatchObject({ severity: "caution", kind });
    expect(check?.proposal).toBe(proposal);
    expect(plain(check?.message)).toMatch(/Based on the trials before, expect about/);
  });

  test("what lies near enough is no slip, nor is anything where nothing is expected", () => {
    expect(only("25.90", 25.41)).toBeUndefined();
    expect(slipChecks("13.50", "mL", 2, null)).toEqual([]);
  });

  test("a swapped pair is found again, whatever the reading", () => {
    fc.assert(
      fc.property(fc.integer({ min: 1000, max: 4999 }), fc.integer({ min: 0, max: 2 }), (hundredths, i) => {
        const digits = [...String(hundredths)];
        [digits[i], digits[i + 1]] = [digits[i + 1]!, digits[i]!];
        const wrong = Number(digits.join("")) / 100;
        const truth = hundredths / 100;
        fc.pre(Math.abs(wrong - truth) > 0.5 && wrong >= 10);
        const check = only(wrong.toFixed(2), truth, 0.05);
        expect(check?.proposal).toBe(truth.toFixed(2));
      }),
    );
  });

  test("the same digits as another trial's, and a weighing that its repeat does not bear out", () => {
    const others = [{ name: "trial 1", text: "2.6106" }];
    expect(plain(sameReadingCheck("2.6106", "g", others)[0]?.message)).toMatch(
      /as in trial 1: was it read again/,
    );
    expect(sameReadingCheck("2.6107", "g", others)).toEqual([]);
    const balance = { readabilityG: 0.0001, linearityG: 0.0002 };
    expect(repeatCheck("2.6109", "2.6106", balance)).toEqual([]);
    expect(plain(repeatCheck("2.6160", "2.6106", balance)[0])).toMatchObject({
      kind: "swapped digits",
      proposal: "2.6106",
    });
    expect(repeatCheck("2.7", "2.6106", balance)[0]?.kind).toBe("repeat");
  });
});

test("QUAM A2: a mass by difference with ±0.15 mg linearity has u = 0.12 mg (0.13 from the rounded 0.09)", () => {
  const m = massByDifference(
    60.545,
    60.1562,
    { stage: "s", trial: "t" },
    { readabilityG: 0, linearityG: 0.00015 },
  );
  expect(inUnit(m, "g")).toBeCloseTo(0.3888, 10);
  expect(standardUncertainty(m)).toBeCloseTo(Math.SQRT2 * (0.00015 / Math.sqrt(3)), 12);
});

describe("readings as typed", () => {
  const burette: ReadingRules = { instrument: "The burette", unit: "mL", decimals: 2, least: 0, most: 50 };

  test.each([
    ["25.60", 25.6, "25.60"],
    [" 25,60 ", 25.6, "25.60"],
    ["0.00", 0, "0.00"],
    ["50.00", 50, "50.00"],
  ])("%j is accepted as %f and kept as %s", (typed, value, text) => {
    expect(plain(parseReading(typed, burette))).toEqual({ ok: true, value: { value, text } });
  });

  test.each([
    ["", /Nothing has been typed/, undefined],
    ["25.6o", /"o" is not a digit/, undefined],
    ["2.5.60", /two decimal points/, undefined],
    ["2,5.60", /two decimal points/, undefined],
    ["25.6", /read to the hundredth.*25\.60\?/, "25.60"],
    ["25", /decimals are missing.*25\.00\?/, "25.00"],
    ["25.605", /1 too many/, undefined],
    ["50.01", /beyond the last mark, 50 mL/, undefined],
    ["-0.10", /below zero/, undefined],
    ["--1", /cannot be read as a number/, undefined],
    [".", /cannot be read as a number/, undefined],
  ])("%j is refused in words", (typed, message, proposal) => {
    const result = parseReading(typed, burette);
    if (result.ok) throw new Error("should have been refused");
    expect(plain(result.problem.message)).toMatch(message);
    expect(result.problem.proposal).toBe(proposal);
  });
});
