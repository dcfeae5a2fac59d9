import { describe, expect, test } from "@jest/globals";
import { type CalibrationStage, type Method, type RateStage, type UnknownStage } from "~/core/method";
import { compileMethod, type MethodProblemCode } from "~/core/stages";
import type { Input } from "~/core/inputs";

import { phosphateAsMolybdenumBlue as phosphate } from "./colorimetric/colored-complexes";
import { fadingOfADye } from "./colorimetric/fading-of-a-dye";
import { ironByStandardAddition } from "./colorimetric/iron-by-standard-addition";

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

/** What somebody who writes a method for the photometer gets wrong, and what the compiler finds. */
describe("a photometer's method that does not pass the check is refused by a code", () => {
  test.each<[string, Method, MethodProblemCode]>([
    [
      "standards whose amount is no concentration where the axis is one",
      withStandards({
        axis: {
          ...standards.axis,
          relations: [{ relation: "c = c_0 * V_s", title: "Amount", unit: "mg" }],
        },
      }),
      "not-in-unit",
    ],
    [
      "an axis whose amount nobody computes",
      withStandards({ axis: { ...standards.axis, symbol: "x" } }),
      "axis-not-computed",
    ],
    [
      "an axis in a unit that is none",
      withStandards({ axis: { ...standards.axis, unit: "spoons" } }),
      "not-in-unit",
    ],
    [
      "standards that nobody reads",
      withStandards({ inputs: inputs(standards.inputs, (i) => (i.is === "absorbance" ? null : i)) }),
      "absorbance-missing",
    ],
    [
      "a series of something that is read once",
      withStandards({ series: { ...standards.series, symbol: "V_f" } }),
      "series-once",
    ],
    [
      "a series with a word in it",
      withStandards({ series: { ...standards.series, values: ["0", "some"] } }),
      "series-no-number",
    ],
    [
      "a titer among the standards",
      withStandards({
        inputs: [
          ...standards.inputs,
          { symbol: "V", is: "titer", label: "Titer", titrant: "NaOH", per: "trial" },
        ],
      }),
      "nothing-titrated",
    ],
    [
      "a slope used as though it had no unit",
      withStandards({
        relations: [{ relation: "ε = b + 1", title: "Molar absorptivity", unit: "1" }],
      }),
      "relations-disagree",
    ],
    [
      "a slope given another meaning",
      withStandards({ relations: [{ relation: "b = 2 * a", title: "Slope", unit: "1" }] }),
      "relations-disagree",
    ],
    [
      "an unknown read off a stage that makes no line",
      withUnknown({
        inputs: inputs(unknown.inputs, (i) => (i.is === "read-off" ? { ...i, stage: "wavelength" } : i)),
      }),
      "line-missing",
    ],
    [
      "an unknown read off a line that comes after it",
      { ...phosphate, stages: [wavelength, unknown, standards] },
      "stage-before-its-source",
    ],
    [
      "an unknown read off by something that is no absorbance",
      withUnknown({
        inputs: inputs(unknown.inputs, (i) => (i.is === "read-off" ? { ...i, reading: "V_u" } : i)),
      }),
      "read-off-no-absorbance",
    ],
    [
      "an unknown that reads nothing off",
      withUnknown({ inputs: inputs(unknown.inputs, (i) => (i.is === "read-off" ? null : i)) }),
      "nothing-read-off",
    ],
    [
      "an unknown held against a limit of another kind",
      withUnknown({
        inputs: inputs(unknown.inputs, (i) =>
          i.is === "given" && i.symbol === "c_lim" ? { ...i, unit: "mol/L" } : i,
        ),
      }),
      "accept-dimension",
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
      "photometer-missing",
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
      "course-missing",
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
      "not-in-unit",
    ],
  ])("%s", (_what, method, code) => {
    const compiled = compileMethod(method);
    expect(compiled.ok ? "accepted" : compiled.problem.code).toBe(code);
  });

  test("the point where a line meets the axis is known only where the method asks for it", () => {
    const [scan, additions] = ironByStandardAddition.stages as [Method["stages"][number], CalibrationStage];
    const { cut, ...line } = additions.line;
    expect(cut).toBe("c_x");
    const without = compileMethod({ ...ironByStandardAddition, stages: [scan, { ...additions, line }] });
    expect(without.ok ? "accepted" : without.problem.code).toBe("relations-disagree");
  });
});
