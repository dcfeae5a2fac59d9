import { describe, expect, test } from "@jest/globals";
import { concentrationOf, concentrationText } from "./concentration";
import { checkEditSolution, checkShelfRequest } from "./shelf";
import { plain } from "~/core/testing/plain";

describe("a concentration as a label says it", () => {
  test("from a run: rounded once by twice its standard uncertainty", () => {
    const a = { value: "0.1000123456", plusMinus: "0.0000874", shape: "normal", unit: "mol/L" } as const;
    expect(plain(concentrationText(a))).toBe("0.10001 ± 0.00017 mol/L");
    expect(concentrationOf(a).meaning).toBe("k = 2");
  });

  test("from a certificate: as it was stated, trailing zeros and all", () => {
    const a = { value: "0.1000", plusMinus: "0.0005", shape: "rectangular", unit: "mol/L" } as const;
    expect(plain(concentrationText(a))).toBe("0.1000 ± 0.0005 mol/L");
    expect(plain(concentrationText({ ...a, plusMinus: "0" }))).toBe("0.1000 mol/L");
  });

  test("a purity has its percent", () => {
    expect(
      plain(concentrationText({ value: "99.95", plusMinus: "0.05", shape: "rectangular", unit: "%" })),
    ).toBe("99.95 ± 0.05 %");
  });
});

const add = {
  intent: "add",
  form: "solution",
  formula: "NaOH",
  name: "base",
  how: "nominal",
  value: "0.1",
  plusMinus: "",
  person: "bench 1",
  amount: "",
  restandardizeBy: "",
  hazards: "",
  note: "",
};
const make = {
  intent: "make",
  formula: "KHC8H4O4",
  name: "standard",
  making: {
    how: "weighed",
    solid: "KHC8H4O4",
    solidName: "phthalate",
    weighing: "transfer",
    purity: { percent: "100", plusMinus: "0.05" },
    flaskMl: "250.0",
  },
  typed: { "m:mass.before": "8.2" },
  fromId: null,
  person: "bench 1",
  amount: "",
  restandardizeBy: "",
  hazards: "",
  note: "",
};

describe("what is asked of the shelf", () => {
  test.each([
    ["a bottle put there", add],
    ["a solution weighed", make],
    [
      "a solution diluted",
      { ...make, making: { how: "diluted", glass: { kind: "burette" }, flaskMl: "100" } },
    ],
  ])("%s passes as it is", (_name, request) => {
    expect(plain(checkShelfRequest(request))).toEqual({ value: request });
  });

  test.each([
    ["no name", { ...add, name: " " }, { name: "Give it a name" }],
    ["nobody", { ...add, person: "" }, { person: "Say who: initials, or a bench" }],
    ["no formula", { ...make, formula: "" }, { formula: "Give its formula" }],
    [
      "a day that is none",
      { ...add, restandardizeBy: "soon" },
      { form: expect.stringMatching(/restandardizeBy/) },
    ],
    [
      "a glass that is none",
      { ...make, making: { how: "diluted", glass: { kind: "bucket" }, flaskMl: "1" } },
      { form: expect.stringMatching(/making/) },
    ],
    ["an intent that is none", { ...add, intent: "steal" }, { form: expect.stringMatching(/intent/) }],
    ["nothing", undefined, { form: expect.any(String) }],
  ])("%s is told by field", (_name, request, problems) => {
    expect(plain(checkShelfRequest(request))).toEqual({ problems: expect.objectContaining(problems) });
  });

  test("a change needs the revision that was looked at", () => {
    const edit = {
      intent: "edit",
      name: "base",
      amountLeft: "",
      restandardizeBy: "2026-12-01",
      hazards: "",
      note: "",
      usedUp: false,
      person: "bench 1",
      reason: "a spill",
    };
    expect(checkEditSolution({ ...edit, revision: 2 })).toMatchObject({ value: { revision: 2 } });
    expect(plain(checkEditSolution(edit))).toMatchObject({
      problems: { form: expect.stringMatching(/revision/) },
    });
  });
});
