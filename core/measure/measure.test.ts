import { describe, expect, test } from "@jest/globals";
import { divide, inUnit, multiply, standardUncertainty } from "../quantity";
import { combineReplicates } from "../judgement";
import {
  buretteVolume,
  glasswareTolerance,
  massByDifference,
  parseReading,
  pipetteVolume,
  type ReadingRules,
} from ".";

const conditions = {
  toleranceClass: "A",
  toleranceShape: "triangular",
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

  test("the room's temperature cancels in a ratio of two volumes of one stage", () => {
    const place = { stage: "s", trial: "t" };
    const exactGlass = { ...conditions, toleranceClass: "A" as const };
    const a = pipetteVolume(25, place, exactGlass);
    const b = pipetteVolume(10, place, exactGlass);
    const q = divide(a, b);
    expect(q.sensitivities.get("temperature:s")?.by).toBeCloseTo(0, 15);
    expect(multiply(a, b).sensitivities.get("temperature:s")?.by).toBeGreaterThan(0);
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
    expect(parseReading(typed, burette)).toEqual({ ok: true, value, text });
  });

  test.each([
    ["", /Nothing has been typed/, undefined],
    ["25.6o", /"o" is no digit/, undefined],
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
    expect(result.check.message).toMatch(message);
    expect(result.check.proposal).toBe(proposal);
  });
});
