import { describe, expect, test } from "@jest/globals";
import { methods } from "~/catalog/methods";
import { defaultHouseRules } from "~/catalog/rules/defaults";
import { compileMethod } from "~/core/stages";
import { draftOf, methodOf } from "./draft";
import { check, gaps, preview } from "./preview";
import { newMethod, newStage } from "./starters";
import { inEnglish } from "~/core/text";
import { plain } from "~/core/testing/plain";

test.each(methods.map((m) => [m.id, m] as const))("%s goes through the editor unchanged", (_id, method) => {
  expect(methodOf(draftOf(method))).toEqual({ ...method, version: 1 });
});

test("a photometer's method shows what made-up readings give, and tells what its series lacks", () => {
  const draft = draftOf(methods.find((m) => m.id === "phosphate-as-molybdenum-blue")!);
  const shown = preview(methodOf(draft), defaultHouseRules);
  if (!shown.ok) throw new Error(inEnglish(shown.problem.message));
  expect(plain(shown.value.stages.at(-1)?.text)).toMatch(/^1\.\d+ ± 0\.\d+ mg\/L$/);
  const wrong = (change: object) =>
    methodOf({
      ...draft,
      stages: draft.stages.map((s) =>
        s.carried?.kind === "calibration" ? { ...s, carried: { ...s.carried, ...change } } : s,
      ),
    });
  expect(plain(gaps(wrong({ strongest: NaN })))).toEqual([
    expect.stringMatching(/what the strongest standard reads/),
  ]);
  expect(plain(gaps(wrong({ series: { symbol: "V_s", values: ["1"] } })))).toEqual([
    expect.stringMatching(/two standards at least/),
  ]);
  expect(plain(check(wrong({ series: { symbol: "V_s", values: ["1", "two"] } })))).toMatchObject({
    ...{ code: "series-no-number", facts: { value: "two" } },
    path: ["stages", 1, "series", "values", 1],
  });
  expect(check(wrong({ series: { symbol: "x", values: ["1", "2"] } }))?.code).toBe("series-once");
  expect(check(wrong({ axis: { symbol: "c", name: "c", unit: "mL", relations: [] } }))?.code).toBe(
    "axis-not-computed",
  );
});

describe("a new method", () => {
  const draft = { ...newMethod("own-1"), title: "Wash acid", purpose: "What is left in it" };

  test("computes from its first moment, and shows what made-up readings give", () => {
    const method = methodOf(draft);
    expect(plain([gaps(method), check(method)])).toEqual([[], null]);
    const shown = preview(method, defaultHouseRules);
    if (!shown.ok) throw new Error(inEnglish(shown.problem.message));
    expect(plain(shown.value.stages[0]?.text)).toMatch(/^0\.\d+ ± 0\.\d+ mol\/L$/);
    expect(shown.value.stages[0]?.steps.length).toBeGreaterThan(2);
  });

  test("can make its standard first", () => {
    const two = { ...draft, stages: [newStage("stage-0", "preparation"), ...draft.stages] };
    expect(plain(compileMethod(methodOf(two)))).toMatchObject({ ok: true });
  });

  test.each([
    [
      "an equation that does not balance",
      { equations: [{ name: "x", equation: "HCl + NaOH -> NaCl + 2 H2O" }] },
      "equation-unbalanced",
    ],
    [
      "an element that is none",
      { equations: [{ name: "x", equation: "Xq + NaOH -> NaCl" }] },
      "equation-unreadable",
    ],
    [
      "mass and volume added",
      { relations: [{ relation: "c_a = c_b + V", title: "x", unit: "mol/L" }] },
      "relations-disagree",
    ],
    [
      "a result that no relation gives",
      { results: [{ symbol: "q", name: "q", unit: "mol/L" }] },
      "result-not-computed",
    ],
    ["a stage that yields nothing it uses", { result: "q" }, "earlier-result-unknown"],
    ["a stage that is not there", { stage: "nowhere" }, "stage-before-its-source"],
  ] as const)("finds %s", (_name, wrong, code) => {
    const [first] = draft.stages;
    if (!first) throw new Error("no stage");
    const broken =
      "equations" in wrong
        ? { ...draft, ...wrong }
        : "result" in wrong || "stage" in wrong
          ? {
              ...draft,
              stages: [
                first,
                {
                  ...newStage("stage-2", "titration"),
                  inputs: [
                    {
                      is: "result",
                      symbol: "c_b",
                      label: "x",
                      of: "NaOH",
                      per: "run",
                      stage: "stage-1",
                      ...wrong,
                    },
                    ...newStage("stage-2", "titration").inputs.slice(1),
                  ],
                },
              ],
            }
          : { ...draft, stages: [{ ...first, ...wrong }] };
    expect(check(methodOf(broken))?.code).toBe(code);
  });

  test("tells what is still empty, and numbers that are none", () => {
    const [first] = draft.stages;
    const empty = methodOf({ ...draft, title: " ", stages: [{ ...first!, indicator: "" }] });
    expect(plain(gaps(empty))).toEqual(["Give the method a title", "Titrate the sample: name the indicator"]);
    const reagent = { name: "water", exact: "", when: "first", last: "", amount: "50 mL" };
    for (const typed of [
      { most: "fifty", unit: "mL" },
      { most: "50", unit: "" },
      { most: "", unit: "mL" },
    ]) {
      const added = methodOf({ ...draft, stages: [{ ...first!, reagents: [{ ...reagent, ...typed }] }] });
      expect(plain(gaps(added))).toEqual([expect.stringMatching(/amount of water as a number/)]);
    }
    const noNumber = methodOf({ ...draft, stages: [{ ...first!, presumed: "" }] });
    expect(plain(preview(noNumber, defaultHouseRules))).toMatchObject({ ok: false });
  });
});
