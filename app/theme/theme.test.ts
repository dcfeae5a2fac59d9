import { describe, expect, test } from "@jest/globals";
import { methods } from "~/catalog/methods";
import { textOn } from "../ui/color-ribbon";
import { contrast } from "./contrast";
import { colors } from "./theme";

/** WCAG 2.2's own anchors: black on white is 21, #767676 the lightest gray that reaches 4.5 on white. */
test("contrast is the standard's", () => {
  expect(contrast("#000000", "#ffffff")).toBeCloseTo(21, 6);
  expect(contrast("#767676", "#ffffff")).toBeGreaterThanOrEqual(4.5);
  expect(contrast("#777777", "#ffffff")).toBeLessThan(4.5);
});

const { sheet, ground, tealWash, tealPale, pinkPale, amberPale } = colors;

describe("every text stands out from every ground it is set on, 4.5 at least", () => {
  test.each([
    ["ink", colors.ink, [sheet, ground, tealWash, tealPale, pinkPale, amberPale]],
    ["soft ink", colors.inkSoft, [sheet, ground, tealWash]],
    ["teal", colors.teal, [sheet, ground, tealWash, tealPale]],
    ["deep teal", colors.tealDeep, [sheet, ground, tealWash, tealPale]],
    ["deep pink", colors.pinkDeep, [sheet, ground, pinkPale]],
    ["deep amber", colors.amberDeep, [sheet, ground, amberPale]],
    ["brick", colors.brick, [sheet, ground]],
    ["white", "#ffffff", [colors.ink, colors.teal, colors.tealDeep, colors.brick]],
  ])("%s", (_name, text, grounds) => {
    for (const on of grounds) expect([on, contrast(text, on) >= 4.5]).toEqual([on, true]);
  });

  const titrated = methods.filter((m) => m.stages.some((s) => s.kind === "titration"));

  test.each(titrated.map((m) => [m.title, m] as const))("the color ribbon of %s", (_title, method) => {
    const ribbons = method.stages.flatMap((s) => (s.kind === "titration" ? s.ribbon : []));
    expect(ribbons.length).toBeGreaterThan(0);
    for (const { color, looks } of ribbons) {
      expect([looks, contrast(textOn(color), color) >= 4.5]).toEqual([looks, true]);
    }
  });
});
