import { describe, expect, test } from "@jest/globals";
import { methods } from "~/catalog/methods";
import { defaultHouseRules } from "~/catalog/rules/defaults";
import { compileMethod } from "~/core/stages";
import { readMethodFile } from "~/formats/method-file";
import { draftOf, methodOf } from "./draft";
import type { Starter } from "./kinds/kind";
import { check, gaps, preview } from "./preview";
import { withAcceptance, withTolerance } from "./acceptance";
import type { MethodDraft, StageDraft } from "./draft-types";
import { editedKind, starters } from "./kinds/table";
import { renamed, renamedIn } from "./rename";
import { freshStage, newMethod, withStage } from "./starters";
import { glassProblem, resultProblem, unusedIn } from "./hints";
import { missingIn } from "./missing";
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
    const [{ begin }] = editedKind({ kind: "preparation" }).starters as [Starter];
    const two = begin(draft, freshStage("stage-0", "preparation"));
    expect(two.stages.map(({ kind }) => kind)).toEqual(["preparation", "titration"]);
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
                  ...{ ...first, key: "stage-2" },
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
                    ...first.inputs.slice(1),
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
    expect(plain(gaps(empty))).toEqual([
      "Give the method a title",
      expect.stringMatching(/^Titrate the sample: name the indicator, as/),
    ]);
    const reagent = { name: "water", exact: "", when: "first", last: "", amount: "50 mL" };
    for (const typed of [
      { most: "fifty", unit: "mL" },
      { most: "50", unit: "" },
      { most: "", unit: "mL" },
    ]) {
      const added = methodOf({ ...draft, stages: [{ ...first!, reagents: [{ ...reagent, ...typed }] }] });
      expect(plain(gaps(added))).toEqual([expect.stringMatching(/amount of water as a number/)]);
    }
    for (const [flask, words] of [
      [{ flaskPh: "ten" }, "give the pH in the flask, from -1 to 15"],
      [{ flaskAmmonia: "0.1" }, "give the pH in the flask, from -1 to 15"],
      [
        { flaskPh: "10", flaskMagnesium: "-1" },
        "give ammonia and magnesium as concentrations in mol/L, as 0.1",
      ],
    ] as const) {
      const surrounded = methodOf({ ...draft, stages: [{ ...first!, ...flask }] });
      expect(plain(gaps(surrounded))).toEqual([`Titrate the sample: ${words}`]);
    }
    const noNumber = methodOf({ ...draft, stages: [{ ...first!, presumed: "" }] });
    expect(plain(preview(noNumber, defaultHouseRules))).toMatchObject({ ok: false });
  });
});

describe("stages that are begun from what the method has", () => {
  const draft = { ...newMethod("own-1"), title: "Wash acid", purpose: "What is left in it" };
  const begun = (from: MethodDraft, words: RegExp) => {
    const found = starters.find(({ starter }) => words.test(plain(starter.button) as string))!;
    return withStage(from, found.kind, found.starter);
  };
  const redox: MethodDraft = {
    ...draft,
    family: "redox",
    equations: [{ name: "peroxide", equation: "2 MnO4- + 5 H2O2 + 6 H+ -> 2 Mn^2+ + 5 O2 + 8 H2O" }],
    substances: [
      { formula: "KMnO4", name: "potassium permanganate" },
      { formula: "H2O2", name: "hydrogen peroxide" },
    ],
    stages: [
      {
        ...draft.stages[0]!,
        inputs: draft.stages[0]!.inputs.map((row) => ({
          ...row,
          of: row.of === "NaOH" ? "KMnO4" : "H2O2",
        })),
        relations: [
          { relation: "n_a = c_b * V * ratio(H2O2, MnO4-)", title: "Amount in the aliquot", unit: "mmol" },
          { relation: "c_a = n_a / V_a", title: "Concentration of the sample", unit: "mol/L" },
        ],
      },
    ],
  };

  test.each(starters.map(({ starter }) => [plain(starter.button) as string]))(
    "%s: it holds together in each method, can be saved, and gives numbers at a made-up bench",
    (button) => {
      for (const from of [draft, redox]) {
        const method = methodOf(begun(from, new RegExp(`^${button}$`)));
        expect(plain([check(method), missingIn(method, null), unusedIn(method)])).toEqual([null, [], []]);
        const shown = preview(method, defaultHouseRules);
        if (!shown.ok) throw new Error(inEnglish(shown.problem.message));
        for (const { text } of shown.value.stages) expect(plain(text)).toMatch(/^[\d(]/);
      }
    },
  );

  test("a chain of three like that of the library takes a title, a purpose and two presses", () => {
    const three = begun(draft, /first, by a solution/);
    const method = methodOf(three);
    expect(three.stages.map(({ kind }) => kind)).toEqual(["preparation", "titration", "titration"]);
    expect(plain([check(method), missingIn(method, null)])).toEqual([null, []]);
    const [, standardize, determine] = three.stages;
    expect(standardize?.assigns).toBe("NaOH");
    expect(determine?.inputs[0]).toMatchObject({ is: "result", symbol: "c_b", stage: standardize?.key });
    expect(method.equations.map(({ equation }) => equation)).toContain("KHC8H4O4 + NaOH -> KNaC8H4O4 + H2O");
    // A further titration goes on with what was found, and with what else reacts with it.
    const four = begun(three, /^Add a titration$/);
    expect(four.stages.at(-1)?.inputs[0]).toMatchObject({ is: "result", stage: standardize?.key });
    expect(check(methodOf(four))).toBeNull();
  });

  test("in redox the ion of the titrant is what reacts", () => {
    const method = methodOf(begun(redox, /first, by a weighed solid/));
    expect(method.stages[0]?.relations[0]?.relation).toBe("n_t = m / M(Na2C2O4) * ratio(MnO4-, C2O4^2-)");
  });
});

describe("a letter for another", () => {
  test.each([
    ["n = c_b * V * ratio(V, MnO4-)", "V", "V_t", "n = c_b * V_t * ratio(V, MnO4-)"],
    ["c = m / M(NaCl) / V_f", "M", "M_x", "c = m / M(NaCl) / V_f"],
    ["t = T - 25 [°C] + C", "C", "C_1", "t = T - 25 [°C] + C_1"],
    ["n = V_a + V * V", "V", "W", "n = V_a + W * W"],
    ["c = m / M((NH4)2Fe(SO4)2·6H2O) / S", "S", "S_1", "c = m / M((NH4)2Fe(SO4)2·6H2O) / S_1"],
  ])("%s: %s becomes %s", (relation, before, after, result) => {
    expect(renamedIn(relation, before, after)).toBe(result);
  });

  test.each(methods.map((m) => [m.id, m] as const))(
    "%s computes the same with other letters",
    (_id, method) => {
      let draft = draftOf(method);
      for (const [index, stage] of method.stages.entries()) {
        for (const { symbol } of stage.inputs) {
          if (symbol.includes("_H2O")) continue;
          const typed: MethodDraft = {
            ...draft,
            stages: draft.stages.map((one, i) =>
              i === index
                ? {
                    ...one,
                    inputs: one.inputs.map((row) =>
                      row.symbol === symbol ? { ...row, symbol: `${symbol}x` } : row,
                    ),
                  }
                : one,
            ),
          };
          draft = renamed(typed, index, symbol, `${symbol}x`);
        }
      }
      expect(plain(check(methodOf(draft)))).toBeNull();
      expect(unusedIn(methodOf(draft))).toEqual([]);
    },
  );

  test("that another thing has already is none, nor one that two things had", () => {
    const draft = newMethod("own-1");
    const [first] = draft.stages;
    const typed = (symbol: string): MethodDraft => ({
      ...draft,
      stages: [
        { ...first!, inputs: first!.inputs.map((row) => (row.symbol === "V_a" ? { ...row, symbol } : row)) },
      ],
    });
    expect(renamed(typed("V"), 0, "V_a", "V")).toEqual(typed("V"));
    const after = renamed(typed("V_s"), 0, "V_a", "V_s").stages[0]!;
    expect([after.agree, after.relations[1]?.relation]).toEqual(["V_s", "c_a = n_a / V_s"]);
    // A letter that a relation computes, typed over in its own line: the result that is asked for goes with it.
    const computed: MethodDraft = {
      ...draft,
      stages: [
        {
          ...first!,
          relations: [first!.relations[0]!, { ...first!.relations[1]!, relation: "c_y = n_a / V_a" }],
        },
      ],
    };
    expect(renamed(computed, 0, "c_a", "c_y").stages[0]?.results[0]?.symbol).toBe("c_y");
  });
});

describe("problems and hints at their place", () => {
  test.each([
    [{ is: "pipette", value: "25.00" }, null],
    [{ is: "pipette", value: "" }, /Say how much it delivers/],
    [{ is: "pipette", value: "24" }, /25 mL is nearest/],
    [{ is: "flask", value: "300" }, /No volumetric flask holds 300 mL; 250 mL is nearest/],
    [{ is: "graduated", capacity: "", value: "5" }, /how much it holds/],
    [{ is: "graduated", capacity: "10", value: "25" }, /do not fit/],
    [{ is: "constant", value: "x" }, /Give its value/],
    [{ is: "by-mass", density: "" }, /density/],
    [{ is: "titer" }, null],
  ])("%j", (row, words) => {
    const problem = glassProblem(row);
    if (words === null) expect(problem).toBeNull();
    else expect(plain(problem)).toMatch(words);
  });

  test("what is read and never used, and a result that nothing gives", () => {
    const draft = newMethod("own-1");
    const [first] = draft.stages as [StageDraft];
    const extra = { is: "pipette", symbol: "V_z", label: "Spare", of: "HCl", value: "10.00", per: "trial" };
    const method = methodOf({ ...draft, stages: [{ ...first, inputs: [extra, ...first.inputs] }] });
    expect(plain(unusedIn(method))).toEqual(["Titrate the sample: read and never used: V_z"]);
    expect(plain(resultProblem(first, { symbol: "q" }))).toMatch(/^Nothing here gives q: add a relation/);
    expect(resultProblem(first, { symbol: "c_a" })).toBeNull();
    // A method of the library asks for nothing in vain.
    expect(methods.flatMap((m) => plain(unusedIn(m)) as string[])).toEqual([]);
  });

  test("what the server would refuse keeps it from being saved, in words; and nothing else does", () => {
    const draft = { ...newMethod("own-1"), title: "Wash acid", purpose: "What is left in it" };
    const [first] = draft.stages as [StageDraft];
    const broken: readonly MethodDraft[] = [
      { ...draft, equations: [{ name: "", equation: "HCl + NaOH -> NaCl + H2O" }] },
      { ...draft, substances: [...draft.substances, { formula: "", name: "water" }] },
      { ...draft, stages: [{ ...first, presumed: "much" }] },
      { ...draft, stages: [{ ...first, results: [{ symbol: "c_a", name: "c", unit: "" }] }] },
      { ...draft, stages: [{ ...first, reagents: [{ name: "water", amount: "", when: "first" }] }] },
      {
        ...draft,
        stages: [
          {
            ...first,
            inputs: first.inputs.map((row) => (row.is === "given" ? { ...row, plusMinus: "x" } : row)),
          },
        ],
      },
    ];
    for (const one of [draft, ...broken, ...methods.map(draftOf)]) {
      const method = methodOf(one);
      const saves = !("problems" in readMethodFile(JSON.stringify(method)));
      const problem = check(method);
      const missing = problem === null ? missingIn(method, problem) : [problem.code];
      expect([method.title, plain(missing), missing.length === 0]).toEqual([
        method.title,
        plain(missing),
        saves,
      ]);
    }
    expect(plain(missingIn(methodOf(broken[0]!), null))).toEqual(["equations 1, name is empty"]);
  });

  test("a result is held against a value or a limit; a reading for it is added where there is none", () => {
    const draft = { ...newMethod("own-1"), title: "Wash acid", purpose: "What is left in it" };
    const [first] = draft.stages as [StageDraft];
    const held: StageDraft = { ...first, ...withAcceptance(first, "value") };
    expect(held.inputs.at(-1)).toMatchObject({ is: "given", symbol: "ref", unit: "mol/L", optional: "yes" });
    const accept = held.accept as Extract<typeof held.accept, { against: "value" }>;
    const allowed = { ...held, accept: withTolerance(accept, "5", false) };
    const method = methodOf({ ...draft, stages: [allowed] });
    expect(plain([check(method), missingIn(method, null)])).toEqual([null, []]);
    expect(method.stages[0]).toMatchObject({
      accept: { against: "value", tolerancePercent: 5, whenOff: "tell" },
    });
    const limit: StageDraft = { ...held, ...withAcceptance(held, "at most") };
    expect([limit.inputs.length, limit.accept]).toEqual([
      held.inputs.length,
      { against: "limit", symbol: "ref", bound: "at most" },
    ]);
    expect(withAcceptance(held, "nothing")).toEqual({ accept: undefined });
    expect(withTolerance(accept, "0,002", true)).toMatchObject({ toleranceAbsolute: 0.002 });
    expect(withTolerance(accept, "x", true)).not.toHaveProperty("toleranceAbsolute");
  });
});
