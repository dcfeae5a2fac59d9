import { expect, test } from "@jest/globals";
import { dissolved } from "~/catalog/constants/solutes";
import { room, type Setting } from "../equilibria";
import { theoreticalCurve } from ".";

const ofBase = (formula: string, molPerL: number, titrant: "NaOH" | "HCl", setting: Setting = room) =>
  theoreticalCurve(
    { mixture: dissolved(formula, molPerL)!, molPerL, ml: 25 },
    { mixture: dissolved(titrant, 0.1)!, molPerL: 0.1 },
    setting,
  );

test("phosphoric acid has three ends, the last of which cannot be seen; pH as in CHECKS.md", () => {
  const { startPH, ends } = ofBase("H3PO4", 0.05, "NaOH", { ...room, pKw: 14 });
  expect(startPH).toBeCloseTo(1.806, 3);
  expect(ends.map(({ ml, jumps }) => [ml, jumps])).toEqual([
    [12.5, true],
    [25, true],
    [37.5, false],
  ]);
  expect([ends[0]!.pH, ends[1]!.pH]).toEqual([expect.closeTo(4.715, 3), expect.closeTo(9.635, 3)]);
});

test.each([
  ["HCl", "NaOH", [true]],
  ["H2SO4", "NaOH", [false, true]],
  ["C4H6O6", "NaOH", [false, true]],
  ["KHC8H4O4", "NaOH", [true]],
  ["NH4Cl", "NaOH", [false]],
  ["NaOH", "NaOH", []],
  ["Na2CO3", "HCl", [true, true]],
  ["NaHCO3", "HCl", [true]],
  ["NH3", "HCl", [true]],
  ["CH3COOH", "HCl", []],
] as const)("%s by %s: the ends that it has, and those that can be seen", (formula, titrant, jumps) => {
  expect(ofBase(formula, 0.1, titrant).ends.map((end) => end.jumps)).toEqual(jumps);
});
