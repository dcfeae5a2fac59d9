import { describe, expect, test } from "@jest/globals";
import { bottlesOf, series } from "../testing/adsorption-series";
import { isothermCoverage } from "../testing/fit-coverage";
import { chiSquareTail } from "../judgement";
import { betterLaw, fitIsotherm, isotherms } from ".";

describe("isotherms", () => {
  test("χ² of a chance: the published points of 5 % and 1 %", () => {
    // NIST/SEMATECH e-Handbook, table 1.3.6.7.4 (from memory): 3.841, 5.991, 7.815, 9.488 and 11.345.
    for (const [x, df, p] of [
      [3.841, 1, 0.05],
      [5.991, 2, 0.05],
      [7.815, 3, 0.05],
      [9.488, 4, 0.05],
      [11.345, 3, 0.01],
    ] as const)
      expect(chiSquareTail(x, df)).toBeCloseTo(p, 4);
    expect(chiSquareTail(0, 3)).toBe(1);
    expect(chiSquareTail(60, 3) / 5.9e-13).toBeCloseTo(1, 1);
  });

  test.each(["freundlich", "langmuir"] as const)(
    "%s: exact bottles give back their law, line and fit alike",
    (law) => {
      const exact = bottlesOf(series(law), () => 0);
      const fit = fitIsotherm(exact, law)!;
      const truth = series(law).logarithms.map(Math.exp);
      fit.parameters.forEach(({ value }, i) => expect(value / truth[i]!).toBeCloseTo(1, 6));
      expect(fit.chiSquare).toBeLessThan(1e-8);
      isotherms[law].line(exact)!.parameters.forEach((p, i) => expect(p / truth[i]!).toBeCloseTo(1, 6));
      expect(betterLaw([fitIsotherm(exact, "freundlich")!, fitIsotherm(exact, "langmuir")!])?.law).toBe(law);
    },
  );

  test.each(["freundlich", "langmuir"] as const)(
    "%s: the ± of its parameters hold what is true, and χ² is rejected as often as it says",
    (law) => {
      const cases = 400;
      const { inside, rejected, meanChiSquare } = isothermCoverage(law, cases);
      // 95 % ± 3.5 standard deviations of a count of 400; χ² has the mean of its degrees of freedom.
      for (const part of inside) expect(Math.abs(part - 0.95)).toBeLessThan(0.038);
      expect(rejected).toBeLessThan(0.088);
      expect(rejected).toBeGreaterThan(0.012);
      expect(Math.abs(meanChiSquare - 3)).toBeLessThan(3.5 * Math.sqrt(6 / cases));
    },
  );

  test("a bottle that is off leaves neither law, and is the one that stands out", () => {
    const bottles = bottlesOf(series("freundlich"), () => 0).map((b, i) =>
      i === 2 ? { ...b, uptake: 0.7 * b.uptake } : b,
    );
    const fits = (["freundlich", "langmuir"] as const).map((law) => fitIsotherm(bottles, law)!);
    expect(betterLaw(fits)).toBeNull();
    const { standardized } = fits[0]!;
    expect(standardized.indexOf(Math.min(...standardized))).toBe(2);
  });

  test("two bottles, or one that gave acid off, determine nothing", () => {
    const bottles = bottlesOf(series("langmuir"), () => 0);
    expect(fitIsotherm(bottles.slice(0, 2), "langmuir")).toBeNull();
    expect(fitIsotherm([...bottles.slice(1), { ...bottles[0]!, uptake: -0.1 }], "langmuir")).toBeNull();
  });
});
