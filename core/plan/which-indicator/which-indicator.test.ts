import { describe, expect, test } from "@jest/globals";
import { known } from "~/catalog/constants/known";
import { offered } from "~/catalog/methods";
import { compiledMethod } from "../../stages";
import { inEnglish } from "../../text";
import { planMethod } from "../plan-method";
import {
  endOfStage,
  type EndTheory,
  namedIndicator,
  plannedEnd,
  ratedIndicators,
  verdictOnIndicator,
} from ".";

const choices = { benches: 1, trials: 3, marginPercent: 10, buretteMl: 50 };

/** The theory of a stage of the library, with what is typed in its plan. */
function curveOf(id: string, key: string, typed: Parameters<typeof planMethod>[1]["stages"] = {}): EndTheory {
  const compiled = compiledMethod(offered.find((m) => m.id === id)!);
  const plans = planMethod(compiled, { ...choices, stages: typed });
  const curve = plannedEnd(
    compiled,
    plans.find((plan) => plan.key === key)!,
    plans,
    known,
  );
  if (!curve) throw new Error(`no theory of ${id}`);
  return curve;
}
const rated = (curve: EndTheory) =>
  Object.fromEntries(ratedIndicators(curve, 0.05).map((one) => [one.indicator.key, one]));
const atEnd = ({ at, equivalenceMl }: EndTheory) => at(equivalenceMl);

describe("which indicator shows the end of a planned titration", () => {
  test("strong acid by strong base: pH 7, and a choice of them, each within a drop", () => {
    const curve = curveOf("acid-by-base", "determine", { determine: { result: 0.1 } });
    expect([curve.analyte, curve.titrant, curve.equivalenceMl]).toEqual([
      "HCl",
      "NaOH",
      expect.closeTo(25, 9),
    ]);
    expect(atEnd(curve)).toBeCloseTo(6.9975, 3);
    const found = rated(curve);
    expect(found["phenolphthalein"]).toMatchObject({ suits: true });
    expect(found["bromothymol-blue"]).toMatchObject({ suits: true });
    // In the 50 mL that are there then, pH 10 is 10^-4 mol/L of base in excess, 0.05 mL of 0.1 mol/L. Its first pink, at pH 8.3, is what is seen.
    expect(found["phenolphthalein"]!.endsMl - 25).toBeCloseTo((10 ** (10 - 13.995) * 50) / 0.1, 3);
    expect(found["phenolphthalein"]!.errorMl).toBeCloseTo((10 ** (8.3 - 13.995) * 50) / 0.1, 3);
    expect(found["alizarin-yellow"]).toMatchObject({ suits: false });
  });

  test("a weak acid: phenolphthalein, not methyl orange, which changes far too early", () => {
    const curve = curveOf("weak-acid-in-food", "determine");
    // pH = (pKw + pKa + log c) / 2 of acetate as diluted as it is at the end.
    const c = (0.1 * curve.equivalenceMl) / (curve.flaskMl + curve.equivalenceMl);
    expect(atEnd(curve)).toBeCloseTo((13.995 + 4.756 + Math.log10(c)) / 2, 2);
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
    expect(atEnd(curve)).toBeGreaterThan(3.5);
    expect(atEnd(curve)).toBeLessThan(4.3);
    const found = rated(curve);
    expect(found["phenolphthalein"]!.errorMl).toBeLessThan(-0.4 * curve.equivalenceMl);
    expect(Math.abs(found["methyl-orange"]!.errorMl)).toBeLessThan(0.05 * curve.equivalenceMl);
  });

  test("calcium and magnesium by EDTA at pH 10: the dye binds magnesium, and shows the end of both", () => {
    const curve = curveOf("water-hardness", "total");
    expect(curve.scale).toEqual({ is: "pM", metal: "Ca" });
    const found = rated(curve);
    expect(Math.abs(found["eriochrome-black-t"]!.relative)).toBeLessThan(0.005);
    // Murexide is not told at this pH.
    expect(found["murexide"]).toBeUndefined();
    const alone = curveOf("water-hardness", "calcium");
    // log K' of calcium at pH 12.5 is 10.65 less 0.01 of the ligand and 0.12 of the hydroxide; at the end pCa is half of it and of the dilution.
    const c = (alone.equivalenceMl * 0.01) / (53 + alone.equivalenceMl);
    expect(atEnd(alone)).toBeCloseTo((10.65 - 0.003 + 0.11 - Math.log10(c)) / 2, 0);
    expect(verdictOnIndicator(ratedIndicators(alone, 0.05), "hydroxynaphthol blue").poor).toBe(false);
  });

  test("zinc to EDTA at pH 5.5: xylenol orange; at pH 10 with ammonia, eriochrome black T", () => {
    const aluminum = rated(curveOf("aluminum-by-back-titration", "blank"));
    // Eriochrome black T is red at that pH with and without metal.
    expect(Object.keys(aluminum)).toEqual(["xylenol-orange"]);
    expect(aluminum["xylenol-orange"]).toMatchObject({ suits: true });
    const nickel = rated(curveOf("nickel-by-back-titration", "blank"));
    expect(nickel["eriochrome-black-t"]).toMatchObject({ suits: true });
    // The dye's first red: zinc is free to a tenth of 1 / K', and hardly past the end.
    expect(Math.abs(nickel["eriochrome-black-t"]!.errorMl)).toBeLessThan(0.05);
  });

  test("iron(II) by permanganate: its own color, ferroin; diphenylamine is early without phosphoric acid", () => {
    const curve = curveOf("iron-in-solution", "determine");
    const found = rated(curve);
    // Half way the potential is iron's own.
    expect(curve.at(curve.equivalenceMl / 2)).toBeCloseTo(0.68, 3);
    expect(found["ferroin"]).toMatchObject({ suits: true });
    expect(found["diphenylamine"]!.errorMl).toBeLessThan(0);
    expect(Math.abs(found["diphenylamine"]!.errorMl)).toBeGreaterThan(found["ferroin"]!.errorMl);
    // Pink is seen at 2·10^-6 mol/L in the flask: so much permanganate beyond the end.
    expect(found["permanganate"]!.errorMl).toBeCloseTo(
      (2e-6 * (curve.flaskMl + curve.equivalenceMl)) / 0.02,
      3,
    );
  });

  test("iodine set free, by thiosulfate: starch, within a drop, whatever set it free", () => {
    for (const [id, key] of [
      ["copper-by-iodine", "determine"],
      ["thiosulfate-by-iodate", "standardize"],
    ] as const) {
      const found = rated(curveOf(id, key));
      expect(found["starch"]).toMatchObject({ suits: true });
      expect(found["permanganate"]).toBeUndefined();
    }
  });

  test("a method with an unsuitable indicator is told, by its name and how far it is off", () => {
    const method = offered.find(({ id }) => id === "weak-acid-in-food")!;
    const stages = method.stages.map((stage) =>
      stage.kind === "titration" ? { ...stage, indicator: "methyl orange, 2 drops" } : stage,
    );
    const end = endOfStage(compiledMethod({ ...method, stages }), "determine", known)!;
    const { text, poor } = verdictOnIndicator(ratedIndicators(end, 0.05), "methyl orange, 2 drops");
    expect(poor).toBe(true);
    expect(inEnglish(text)).toMatch(
      /^Methyl orange, which this method uses, changes early: −19\.\d\d mL \(−9\d %\)\. Phenol/,
    );
  });

  test("what a method uses is never far off, wherever theory tells; and it tells of most methods", () => {
    const off: string[] = [];
    const told: Record<string, number> = {};
    for (const method of offered) {
      const compiled = compiledMethod(method);
      const plans = planMethod(compiled, { ...choices, stages: {} });
      for (const plan of plans) {
        const stage = method.stages.find(({ key }) => key === plan.key);
        const curve = plannedEnd(compiled, plan, plans, known);
        if (!curve || stage?.kind !== "titration") continue;
        told[method.family] = (told[method.family] ?? 0) + 1;
        const all = ratedIndicators(curve, 0.05);
        const used = namedIndicator(all, stage.indicator);
        const isNamed = curve.changing.some(({ indicator }) =>
          stage.indicator.toLowerCase().includes(inEnglish(indicator.name).toLowerCase()),
        );
        if (isNamed !== (used !== null) || (used && Math.abs(used.relative) > 0.03))
          off.push(`${method.id} ${plan.key}: ${used?.relative}`);
      }
    }
    expect(off).toEqual([]);
    expect(told["acid-base"]).toBeGreaterThanOrEqual(10);
    expect(told["complexometric"]).toBe(9);
    expect(told["redox"]).toBeGreaterThanOrEqual(14);
  });
});
