import { describe, expect, test } from "@jest/globals";
import { type CalibrationStage, type Method, type RateStage, type UnknownStage } from "~/core/method";
import { compileMethod } from "~/core/stages";
import type { Input } from "~/core/inputs";

import { phosphateAsMolybdenumBlue as phosphate } from "./colored-complexes";
import { fadingOfADye } from "./fading-of-a-dye";
import { ironByStandardAddition } from "./iron-by-standard-addition";

const [wavelength, standards, unknown] = phosphate.stages as [
  Method["stages"][number],
  CalibrationStage,
  UnknownStage,
];

const withStandards = (change: Partial<CalibrationStage>): Method => ({
  ...phosphate,
  stages: [wavelength, { ...standards, ...change }, unknown],
});

const withUnknown = (change: Partial<UnknownStage>): Method => ({
  ...phosphate,
  stages: [wavelength, standards, { ...unknown, ...change }],
});

const inputs = (all: readonly Input[], change: (input: Input) => Input | null) =>
  all.flatMap((input) => change(input) ?? []);

const [fadeScan, fading] = fadingOfADye.stages as [Method["stages"][number], RateStage];

/** What somebody who writes a method for the photometer gets wrong, and what the compiler says about it. */
describe("a photometer's method that does not hold together is refused in words", () => {
  test.each<[string, Method, RegExp]>([
    [
      "standards whose amount is no concentration where the axis is one",
      withStandards({
        axis: {
          ...standards.axis,
          relations: [{ relation: "c = c_0 * V_s", title: "Amount", unit: "mg" }],
        },
      }),
      /c is a mass and cannot be shown in mg\/L/,
    ],
    [
      "an axis whose amount nobody computes",
      withStandards({ axis: { ...standards.axis, symbol: "x" } }),
      /x, the amount in a standard, is never computed/,
    ],
    [
      "an axis in a unit that is none",
      withStandards({ axis: { ...standards.axis, unit: "spoons" } }),
      /cannot be shown in spoons/,
    ],
    [
      "standards that nobody reads",
      withStandards({ inputs: inputs(standards.inputs, (i) => (i.is === "absorbance" ? null : i)) }),
      /Each flask needs one absorbance to be read/,
    ],
    [
      "a series of something that is read once",
      withStandards({ series: { ...standards.series, symbol: "V_f" } }),
      /V_f, which makes the series, is not read for each flask/,
    ],
    [
      "a series with a word in it",
      withStandards({ series: { ...standards.series, values: ["0", "some"] } }),
      /"some" in the series is no number/,
    ],
    [
      "a titer among the standards",
      withStandards({
        inputs: [
          ...standards.inputs,
          { symbol: "V", is: "titer", label: "Titer", titrant: "NaOH", per: "trial" },
        ],
      }),
      /Nothing is titrated in this stage/,
    ],
    [
      "a slope used as though it had no unit",
      withStandards({
        relations: [{ relation: "ε = b + 1", title: "Molar absorptivity", unit: "1" }],
      }),
      /cannot be added/,
    ],
    [
      "a slope given another meaning",
      withStandards({ relations: [{ relation: "b = 2 * a", title: "Slope", unit: "1" }] }),
      /b already has a meaning/,
    ],
    [
      "an unknown read off a stage that makes no line",
      withUnknown({
        inputs: inputs(unknown.inputs, (i) => (i.is === "read-off" ? { ...i, stage: "wavelength" } : i)),
      }),
      /c_x is to be read off a line, but "wavelength" makes none/,
    ],
    [
      "an unknown read off a line that comes after it",
      { ...phosphate, stages: [wavelength, unknown, standards] },
      /builds on a stage that does not come before it/,
    ],
    [
      "an unknown read off by something that is no absorbance",
      withUnknown({
        inputs: inputs(unknown.inputs, (i) => (i.is === "read-off" ? { ...i, reading: "V_u" } : i)),
      }),
      /V_u, by which c_x is read off, is no absorbance/,
    ],
    [
      "an unknown that reads nothing off",
      withUnknown({ inputs: inputs(unknown.inputs, (i) => (i.is === "read-off" ? null : i)) }),
      /An unknown needs an amount that is read off a line/,
    ],
    [
      "an unknown held against a limit of another kind",
      withUnknown({
        inputs: inputs(unknown.inputs, (i) =>
          i.is === "given" && i.symbol === "c_lim" ? { ...i, unit: "mol/L" } : i,
        ),
      }),
      /c_lim is an amount concentration and the result a mass concentration/,
    ],
    [
      "an absorbance where something is made once",
      {
        ...phosphate,
        stages: [
          wavelength.kind === "preparation"
            ? {
                ...wavelength,
                inputs: [...wavelength.inputs, { symbol: "A_b", is: "blank", label: "Blank", per: "run" }],
              }
            : wavelength,
          standards,
          unknown,
        ],
      },
      /A_b is read on a photometer, which this stage has not/,
    ],
    [
      "a rate without a course",
      {
        ...fadingOfADye,
        stages: [
          fadeScan,
          { ...fading, inputs: inputs(fading.inputs, (i) => (i.is === "trace" ? null : i)) },
        ],
      },
      /A rate needs one course of absorbance/,
    ],
    [
      "a rate constant in a unit that it cannot have",
      {
        ...fadingOfADye,
        stages: [
          fadeScan,
          {
            ...fading,
            relations: [{ relation: "k_2 = k_1 * c_B", title: "Rate constant", unit: "L/mol·s" }],
          },
        ],
      },
      /k_2 is .* and cannot be shown in L\/mol·s/,
    ],
  ])("%s", (_what, method, message) => {
    const compiled = compileMethod(method);
    expect(compiled.ok ? "" : compiled.problem.message).toMatch(message);
  });

  test("the point where a line meets the axis is known only where the method asks for it", () => {
    const [scan, additions] = ironByStandardAddition.stages as [Method["stages"][number], CalibrationStage];
    const { cut, ...line } = additions.line;
    expect(cut).toBe("c_x");
    const without = compileMethod({ ...ironByStandardAddition, stages: [scan, { ...additions, line }] });
    expect(without.ok ? "" : without.problem.message).toMatch(/"c_x" is neither read nor computed/);
  });
});
