import { describe, expect, test } from "@jest/globals";
import { indicators } from "~/catalog/constants/indicators";
import { dissolved } from "~/catalog/constants/solutes";
import { offered } from "~/catalog/methods";
import { compiledMethod } from "../stages";
import { type PlannedCurve, plannedCurve, planMethod, ratedIndicators } from ".";

const choices = { benches: 1, trials: 3, marginPercent: 10, buretteMl: 50 };

/** The curve of a stage of the library, with what is typed in its plan. */
function curveOf(
  id: string,
  key: string,
  typed: Parameters<typeof planMethod>[1]["stages"] = {},
): PlannedCurve {
  const compiled = compiledMethod(offered.find((m) => m.id === id)!);
  const plans = planMethod(compiled, { ...choices, stages: typed });
  const curve = plannedCurve(
    compiled,
    plans.find((plan) => plan.key === key)!,
    plans,
    dissolved,
  );
  if (!curve) throw new Error(`no curve of ${id}`);
  return curve;
}
const rated = (curve: PlannedCurve) =>
  Object.fromEntries(ratedIndicators(curve, indicators, 0.05).map((one) => [one.indicator.key, one]));

describe("which indicator shows the end of a planned titration", () => {
  test("strong acid by strong base: pH 7, and a choice of them, each within a drop", () => {
    const curve = curveOf("acid-by-base", "determine", { determine: { result: 0.1 } });
    expect([curve.analyte, curve.titrant, curve.equivalenceMl]).toEqual([
      "HCl",
      "NaOH",
      expect.closeTo(25, 9),
    ]);
    expect(curve.pH).toBeCloseTo(6.9975, 3);
    const found = rated(curve);
    expect(found["phenolphthalein"]).toMatchObject({ suits: true });
    expect(found["bromothymol-blue"]).toMatchObject({ suits: true });
    // In the 50 mL that are there then, pH 10 is 10^-4 mol/L of base in excess, 0.05 mL of 0.1 mol/L; the middle, pH 9.15, a seventh of it.
    expect(found["phenolphthalein"]!.endsMl - 25).toBeCloseTo((10 ** (10 - 13.995) * 50) / 0.1, 3);
    expect(found["phenolphthalein"]!.errorMl).toBeCloseTo((10 ** (9.15 - 13.995) * 50) / 0.1, 3);
    expect(found["alizarin-yellow"]).toMatchObject({ suits: false });
  });

  test("a weak acid: phenolphthalein, not methyl orange, which changes far too early", () => {
    const curve = curveOf("weak-acid-in-food", "determine");
    // pH = (pKw + pKa + log c) / 2 of acetate as diluted as it is at the end.
    const c = (0.1 * curve.equivalenceMl) / (curve.titrated.flaskMl + curve.equivalenceMl);
    expect(curve.pH).toBeCloseTo((13.995 + 4.756 + Math.log10(c)) / 2, 2);
    const found = rated(curve);
    expect(found["methyl-orange"]!.errorMl / curve.equivalenceMl).toBeLessThan(-0.6);
    expect(found["methyl-orange"]!.suits).toBe(false);
    expect(found["phenolphthalein"]!).toMatchObject({ suits: true });
    // Half of it is neutralized at pH 4.756, in the middle of the range of bromocresol green.
    expect(found["bromocresol-green"]!.beginsMl).toBeLessThan(curve.equivalenceMl / 2);
    expect(found["bromocresol-green"]!.endsMl).toBeGreaterThan(curve.equivalenceMl / 2);
  });

  test("carbonate by an acid: the second end is that of methyl orange, not of phenolphthalein", () => {
    const curve = curveOf("acid-by-carbonate-then-base", "standardize");
    expect([curve.analyte, curve.titrant]).toEqual(["Na2CO3", "HCl"]);
    expect(curve.pH).toBeGreaterThan(3.5);
    expect(curve.pH).toBeLessThan(4.3);
    const found = rated(curve);
    expect(found["phenolphthalein"]!.errorMl).toBeLessThan(-0.4 * curve.equivalenceMl);
    expect(Math.abs(found["methyl-orange"]!.errorMl)).toBeLessThan(0.05 * curve.equivalenceMl);
  });

  test("what a method uses is never far off, wherever theory tells; and it tells of most methods of acids and bases", () => {
    const off: string[] = [];
    let told = 0;
    for (const method of offered.filter(({ family }) => family === "acid-base")) {
      const compiled = compiledMethod(method);
      const plans = planMethod(compiled, { ...choices, stages: {} });
      for (const plan of plans) {
        const stage = method.stages.find(({ key }) => key === plan.key);
        const curve = plannedCurve(compiled, plan, plans, dissolved);
        if (!curve || stage?.kind !== "titration") continue;
        told++;
        const used = ratedIndicators(curve, indicators, 0.05).find(({ indicator }) =>
          stage.indicator.includes(indicator.key.replace("-", " ")),
        );
        if (used && Math.abs(used.relative) > 0.03) off.push(`${method.id} ${plan.key}: ${used.relative}`);
      }
    }
    expect(off).toEqual([]);
    expect(told).toBeGreaterThanOrEqual(10);
  });
});
