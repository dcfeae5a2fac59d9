import { describe, expect, test } from "@jest/globals";
import { methods } from "~/catalog/methods";
import { aceticAcidOnCharcoal } from "~/catalog/methods/acid-base/acetic-acid-on-charcoal";
import { baseByPhthalateThenAcid as flagship } from "~/catalog/methods/acid-base/base-by-phthalate-then-acid";
import { phosphateAsMolybdenumBlue as phosphate } from "~/catalog/methods/colorimetric/colored-complexes";
import { weakAcidByPhMeter } from "~/catalog/methods/acid-base/weak-acid-by-ph-meter";
import { fadingOfADye } from "~/catalog/methods/colorimetric/fading-of-a-dye";
import type { Input } from "../inputs";
import type {
  CalibrationStage,
  CurveStage,
  Method,
  PreparationStage,
  RateStage,
  TitrationStage,
  UnknownStage,
} from "../method";
import { compileMethod, type MethodProblemCode } from ".";

const [standardize, determine] = flagship.stages as [TitrationStage, TitrationStage];
const [wavelength, standards, unknown] = phosphate.stages as [
  PreparationStage,
  CalibrationStage,
  UnknownStage,
];
const [scan, fading] = fadingOfADye.stages as [PreparationStage, RateStage];

const first = (change: Partial<TitrationStage>): Method => ({
  ...flagship,
  stages: [{ ...standardize, ...change }, determine],
});
const second = (change: Partial<TitrationStage>): Method => ({
  ...flagship,
  stages: [standardize, { ...determine, ...change }],
});
const ofStandards = (change: Partial<CalibrationStage>): Method => ({
  ...phosphate,
  stages: [wavelength, { ...standards, ...change }, unknown],
});
const ofUnknown = (change: Partial<UnknownStage>): Method => ({
  ...phosphate,
  stages: [wavelength, standards, { ...unknown, ...change }],
});
const [takeCurve] = weakAcidByPhMeter.stages as [CurveStage];
const ofCurve = (change: Partial<CurveStage>): Method => ({
  ...weakAcidByPhMeter,
  stages: [{ ...takeCurve, ...change }],
});
const line = (relation: string, unit = "mol/L") => [{ relation, title: "Some amount", unit }];
const without = (inputs: readonly Input[], is: Input["is"]) => inputs.filter((input) => input.is !== is);
const changed = (inputs: readonly Input[], symbol: string, change: object) =>
  inputs.map((input) => (input.symbol === symbol ? { ...input, ...change } : input));

type Case = readonly [method: Method, path: readonly (string | number)[]];

/** For every code a method that has that fault, and where it is. A code that is missing here does not compile. */
const broken: { readonly [C in MethodProblemCode]: Case } = {
  "equation-unreadable": [
    { ...flagship, equations: [{ name: "x", equation: "HCl + NaOG -> NaCl" }] },
    ["equations", 0, "equation"],
  ],
  "equation-unbalanced": [
    { ...flagship, equations: [...flagship.equations, { name: "x", equation: "HCl + NaOH -> NaCl" }] },
    ["equations", 2, "equation"],
  ],
  "stage-key-twice": [second({ key: standardize.key }), ["stages", 1, "key"]],
  "stage-key-reserved": [second({ key: "conclude" }), ["stages", 1, "key"]],
  "stage-before-its-source": [{ ...flagship, stages: [determine, standardize] }, ["stages", 0, "inputs", 0]],
  "symbol-reserved": [
    first({ inputs: changed(standardize.inputs, "P", { symbol: "constructor" }) }),
    ["stages", 0, "inputs", 1, "symbol"],
  ],
  "symbol-twice": [
    first({ inputs: changed(standardize.inputs, "P", { symbol: "m" }) }),
    ["stages", 0, "inputs", 1, "symbol"],
  ],
  "unit-unknown": [
    ofUnknown({ inputs: changed(unknown.inputs, "c_lim", { unit: "spoons" }) }),
    ["stages", 2, "inputs", unknown.inputs.findIndex(({ symbol }) => symbol === "c_lim")],
  ],
  "input-wrong": [
    first({
      inputs: [
        ...standardize.inputs,
        {
          ...{ is: "drops", symbol: "d", label: "Drops", of: "water", per: "trial" },
          perMl: { value: "0", plusMinus: "0" },
        },
      ],
    }),
    ["stages", 0, "inputs", 3],
  ],
  "earlier-result-unknown": [
    second({ inputs: changed(determine.inputs, "c_b", { result: "q" }) }),
    ["stages", 1, "inputs", 0, "result"],
  ],
  "trial-in-preparation": [
    {
      ...phosphate,
      stages: [
        { ...wavelength, inputs: changed(wavelength.inputs, "λ", { per: "trial" }) },
        standards,
        unknown,
      ],
    },
    ["stages", 0, "inputs", 0],
  ],
  "photometer-missing": [
    first({
      inputs: [...standardize.inputs, { is: "absorbance", symbol: "A", label: "Absorbance", per: "trial" }],
    }),
    ["stages", 0, "inputs", 3],
  ],
  "nothing-titrated": [
    ofStandards({
      inputs: [
        ...standards.inputs,
        { is: "titer", symbol: "V", label: "Titer", titrant: "NaOH", per: "trial" },
      ],
    }),
    ["stages", 1, "inputs"],
  ],
  "absorbance-missing": [
    ofStandards({ inputs: without(standards.inputs, "absorbance") }),
    ["stages", 1, "inputs"],
  ],
  "course-missing": [
    { ...fadingOfADye, stages: [scan, { ...fading, inputs: without(fading.inputs, "trace") }] },
    ["stages", 1, "inputs"],
  ],
  "curve-missing": [ofCurve({ inputs: without(takeCurve.inputs, "curve") }), ["stages", 0, "inputs"]],
  "curve-misplaced": [
    first({ inputs: [...standardize.inputs, ...takeCurve.inputs.filter(({ is }) => is === "curve")] }),
    ["stages", 0, "inputs", 3],
  ],
  "curve-titrant-unread": [
    ofCurve({ curve: { ...takeCurve.curve, titrant: { symbol: "c_q", usual: 0.1 } } }),
    ["stages", 0, "curve", "titrant"],
  ],
  "curve-endless": [
    ofCurve({ curve: (({ until: _, ...others }) => others)(takeCurve.curve) }),
    ["stages", 0, "curve"],
  ],
  "isotherm-unread": [
    {
      ...aceticAcidOnCharcoal,
      stages: aceticAcidOnCharcoal.stages.map((stage) =>
        stage.kind === "isotherm" ? { ...stage, isotherm: { ...stage.isotherm, at: "c_q" } } : stage,
      ),
    },
    ["stages", 6, "isotherm", "at"],
  ],
  "series-once": [
    ofStandards({ series: { ...standards.series, symbol: "V_f" } }),
    ["stages", 1, "series", "symbol"],
  ],
  "series-no-number": [
    ofStandards({ series: { ...standards.series, values: ["0", "some"] } }),
    ["stages", 1, "series", "values", 1],
  ],
  "axis-not-computed": [
    ofStandards({ axis: { ...standards.axis, symbol: "x" } }),
    ["stages", 1, "axis", "symbol"],
  ],
  "line-missing": [
    ofUnknown({ inputs: changed(unknown.inputs, "c_x", { stage: "wavelength" }) }),
    ["stages", 2, "inputs", unknown.inputs.findIndex(({ symbol }) => symbol === "c_x")],
  ],
  "read-off-no-absorbance": [
    ofUnknown({ inputs: changed(unknown.inputs, "c_x", { reading: "V_u" }) }),
    ["stages", 2, "inputs", unknown.inputs.findIndex(({ symbol }) => symbol === "c_x")],
  ],
  "nothing-read-off": [ofUnknown({ inputs: without(unknown.inputs, "read-off") }), ["stages", 2, "inputs"]],
  "titer-missing": [first({ inputs: without(standardize.inputs, "titer") }), ["stages", 0, "inputs"]],
  "titer-twice": [
    first({
      inputs: [
        ...standardize.inputs,
        { is: "titer", symbol: "W", label: "Titer", titrant: "NaOH", per: "trial" },
      ],
    }),
    ["stages", 0, "inputs"],
  ],
  "relation-unreadable": [first({ relations: line("c_b = m *") }), ["stages", 0, "relations", 0]],
  "relation-unit-unknown": [
    first({ relations: line("c_b = m * P / V", "spoons") }),
    ["stages", 0, "relations", 0, "unit"],
  ],
  "relations-disagree": [first({ relations: line("c_b = m + V") }), ["stages", 0, "relations"]],
  "result-not-computed": [
    first({ result: { ...standardize.result, symbol: "c_x" } }),
    ["stages", 0, "result"],
  ],
  "not-in-unit": [
    first({ also: [{ symbol: "n_s", name: "Amount", unit: "mL" }] }),
    ["stages", 0, "also", 0, "unit"],
  ],
  "ratio-missing": [
    first({ relations: line("c_b = m / M(NaOH) * ratio(KOH, NaOH) / V") }),
    ["stages", 0, "relations", 0],
  ],
  "plausible-unknown": [
    first({ plausible: [{ rule: "whole number", symbol: "q" }] }),
    ["stages", 0, "plausible", 0],
  ],
  "plausible-unit": [
    first({ plausible: [{ rule: "between", symbol: "c_b", to: 1, unit: "g" }] }),
    ["stages", 0, "plausible", 0],
  ],
  "plausible-open": [
    first({ plausible: [{ rule: "between", symbol: "c_b", unit: "mol/L" }] }),
    ["stages", 0, "plausible", 0],
  ],
  "plausible-dimension": [
    first({ plausible: [{ rule: "at most all", symbol: "c_b" }] }),
    ["stages", 0, "plausible", 0],
  ],
  "plausible-other-missing": [
    second({ plausible: [{ rule: "not above", symbol: "c_a", other: "c_b", stage: "nowhere" }] }),
    ["stages", 1, "plausible", 0],
  ],
  "withheld-unread": [
    first({
      also: [
        {
          ...{ symbol: "n_s", name: "Amount", unit: "mmol" },
          when: { symbol: "z", is: 1, otherwise: "z is not one" },
        },
      ],
    }),
    ["stages", 0, "also", 0],
  ],
  "compared-per-unread": [first({ agree: { on: "V / m", per: "w" } }), ["stages", 0, "agree", "per"]],
  "compared-no-titer": [first({ agree: { on: "m" } }), ["stages", 0, "agree", "on"]],
  "step-takes-unread": [
    first({ steps: ["[take V_z] of the acid into a flask."] }),
    ["stages", 0, "steps", 0],
  ],
  "accept-unread": [
    first({ accept: { against: "limit", symbol: "c_max", bound: "at most" } }),
    ["stages", 0, "accept"],
  ],
  "accept-dimension": [
    first({ accept: { against: "limit", symbol: "m", bound: "at most" } }),
    ["stages", 0, "accept"],
  ],
};

describe("a fault of a method is found by its code, at its place", () => {
  test.each(Object.entries(broken))("%s", (code, [method, path]) => {
    const compiled = compileMethod(method);
    expect(compiled.ok ? "accepted" : [compiled.problem.code, compiled.problem.path]).toEqual([code, path]);
  });
});

test("the path of a fault leads to something in the method, and its stage is named by its title", () => {
  for (const [method, path] of Object.values(broken)) {
    const compiled = compileMethod(method);
    if (compiled.ok) throw new Error("accepted");
    const at = path.reduce<unknown>((value, key) => (value as Record<string, unknown>)[key], method);
    // What is missing has no place of its own: that of a per which is not read is the per itself.
    expect(at).toBeDefined();
    const stage = path[0] === "stages" ? method.stages[Number(path[1])]?.title : null;
    expect(compiled.problem.stage).toBe(stage);
  }
});

test("what compiles has one compiled stage for each of its stages, in their order", () => {
  for (const method of methods) {
    const compiled = compileMethod(method);
    if (!compiled.ok) throw new Error(method.id);
    expect([...compiled.value.stages.keys()]).toEqual(method.stages.map(({ key }) => key));
    for (const [key, { definition, lines }] of compiled.value.stages) {
      expect(definition).toBe(method.stages.find((s) => s.key === key));
      expect(lines.map(({ symbol }) => symbol)).toHaveLength(definition.relations.length);
    }
  }
});
