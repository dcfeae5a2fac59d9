import { describe, expect, test } from "@jest/globals";
import { planMethod, shoppingList } from "~/core/plan";
import { type Method } from "~/core/method";
import { compiledMethod, type PlanChoices, rinsingMl } from "~/core/stages";
import { offered as methods } from "~/catalog/methods";
import { plain } from "../testing/plain";

const choices = (stages: PlanChoices["stages"] = {}, more: Partial<PlanChoices> = {}): PlanChoices => ({
  buretteMl: 50,
  benches: 1,
  trials: 4,
  marginPercent: 0,
  stages,
  ...more,
});
const method = (id: string): Method => methods.find((m) => m.id === id)!;
const plan = (
  id: string,
  stage: string,
  stages: PlanChoices["stages"] = {},
  more: Partial<PlanChoices> = {},
) => planMethod(compiledMethod(method(id)), choices(stages, more)).find((s) => s.key === stage)!;

test.each(methods.map((m) => [m.id, m] as const))(
  "%s: where the method presumes a result, the usual amounts give a titer in the range it is laid out for",
  (_id, m) => {
    for (const stage of planMethod(compiledMethod(m), choices())) {
      const definition = m.stages.find((s) => s.key === stage.key);
      if (definition?.kind !== "titration" || definition.presumed === undefined) continue;
      const [low, high] = definition.expectMl!;
      expect([stage.key, stage.titerMl! >= low && stage.titerMl! <= high]).toEqual([stage.key, true]);
      // A fifth of the burette at least, as the plan itself advises.
      expect(plain(stage.message)).not.toMatch(/little for/);
    }
  },
);

describe("a plan", () => {
  /** 0.02 mol/L permanganate takes five iron(II): 0.7 g of the salt, 392.13 g/mol (CHECKS.md). */
  test("tells the titer, whether the burette suffices, and what all benches need", () => {
    const twenty = plan("permanganate-by-iron", "standardize", {}, { benches: 20, marginPercent: 10 });
    const titerMl = (0.7 * 0.995) / 392.13 / 5 / 0.02e-3;
    expect(twenty.titerMl).toBeCloseTo(titerMl, 2);
    expect(twenty.suffices).toBe(true);
    expect(twenty.titrantMl).toBeCloseTo(20 * (4 * titerMl * 1.1 + rinsingMl), 0);
    expect(twenty.amounts.find((a) => a.symbol === "m")?.total).toBeCloseTo(20 * 4 * 0.7 * 1.1, 6);
  });

  test("finds the mass, or the aliquot, for a wanted titer: with it, that titer comes out", () => {
    for (const [id, stage, symbol] of [
      ["permanganate-by-iron", "standardize", "m"],
      ["water-hardness", "total", "V_s"],
      ["kappa-number", "determine", "w"],
      ["nickel-by-back-titration", "determine", "V_s"],
    ] as const) {
      const { forTarget } = plan(id, stage, { [stage]: { targetMl: 18 } });
      const again = plan(id, stage, { [stage]: { amounts: { [symbol]: forTarget!.value } } });
      expect(again.titerMl).toBeCloseTo(18, 4);
    }
  });

  test("carries what an earlier stage gives to the later ones", () => {
    const weak = plan("water-hardness", "total", { standardize: { result: 0.005 } });
    const usual = plan("water-hardness", "total");
    expect(weak.titerMl! / usual.titerMl!).toBeCloseTo(2, 2);
  });

  test("says when the burette is too small, when the titer is little, and what is still to be told", () => {
    expect(plain(plan("permanganate-by-iron", "standardize", {}, { buretteMl: 10 }))).toMatchObject({
      suffices: false,
      message: expect.stringMatching(/more than the 10 mL burette holds/),
    });
    expect(plain(plan("water-hardness", "total", { total: { result: 0.5 } }).message)).toMatch(
      /little for a 50 mL burette/,
    );
    expect(plain(plan("acid-by-base", "determine", {}))).toMatchObject({
      titerMl: null,
      message: expect.stringMatching(/Type what concentration of the acid you expect/),
    });
  });

  test("dilutes a stock to all of the titrant; a stock that is too weak gives none", () => {
    const with_ = (stockMolPerL: number) =>
      plan("permanganate-by-iron", "standardize", { standardize: { stockMolPerL } });
    const { stock, titrantMl } = with_(0.1);
    expect(stock!.ml).toBeCloseTo(titrantMl! / 5, 6);
    expect(with_(0.01).stock).toBeNull();
  });

  test("adds up reagents over stages and benches, upward, and leaves words as words", () => {
    const stages = method("water-hardness").stages;
    const list = shoppingList(stages, { benches: 5, trials: 4, marginPercent: 10 });
    // 5 mL in two stages for 22 trials each: 220 mL
    expect(plain(list.find((l) => l.name === "ammonia buffer, pH 10")?.total)).toBe("220 mL");
    expect(list.find((l) => l.name === "hydroxynaphthol blue")?.total).toBeNull();
    // 25 mL are diluted once at each of 5 benches, and 25 mL of that go into each of 22 flasks.
    const liquor = shoppingList(method("weak-acid-in-food").stages, {
      benches: 5,
      trials: 4,
      marginPercent: 10,
    });
    expect(plain(liquor.slice(0, 2).map(({ name, once, total }) => [name, once, total]))).toEqual([
      ["the liquor", true, "140 mL"],
      ["the diluted liquor", false, "550 mL"],
    ]);
    // 2 drops for each of 4.4 trials are 8.8 drops: nobody counts out eight tenths of one.
    const one = shoppingList(method("alkalinity-of-water").stages, {
      benches: 1,
      trials: 4,
      marginPercent: 10,
    });
    expect(plain(one.find((l) => l.name === "methyl orange")?.total)).toBe("9 drops");
  });
});
