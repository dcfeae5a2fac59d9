import { describe, expect, test } from "@jest/globals";
import { methods } from "~/catalog/methods";
import { defaultHouseRules } from "~/catalog/rules/defaults";
import { plain } from "../testing/plain";
import { checkField, type Method, stageFields } from ".";
import { equivalentsIn, fromNormality, molPerL } from "./normality";

const method = (id: string): Method => methods.find((m) => m.id === id)!;

describe("a concentration typed as a normality", () => {
  // Electrons and protons of the half reactions, common practice, no source.
  test.each([
    ["peroxide-by-volume", "KMnO4", 5],
    ["oxidation-number-of-oxalate", "KMnO4", 5],
    // It meets iodide: 5 by its own electrons, 6 by the iodine that it sets free.
    ["ascorbic-acid-by-iodate", "KIO3", null],
    ["sulfur-dioxide", "I2", 2],
    ["acid-by-base", "NaOH", 1],
    ["thiosulfate-by-dichromate", "Na2S2O3", 1],
    ["thiosulfate-by-dichromate", "K2Cr2O7", 6],
    ["iron-in-solution", "(NH4)2Fe(SO4)2·6H2O", 1],
    ["water-hardness", "EDTA", null],
  ])("in %s a mole of %s has %s equivalents", (id, of, z) => {
    expect(equivalentsIn(method(id), of)).toBe(z);
  });

  test.each([
    ["0.1000 N", "0.1000 N is 0.02000 mol/L: 5 equivalents in a mole of KMnO₄", "0.02000"],
    ["0,1 n", "0.1 N is 0.02 mol/L: 5 equivalents in a mole of KMnO₄", "0.02"],
  ])("%s of permanganate", (typed, words, proposal) => {
    const found = fromNormality(typed, "KMnO4", method("peroxide-by-volume"));
    expect([plain(found?.message), found?.proposal]).toEqual([words, proposal]);
  });

  test.each([
    ["0.1", 3, "0.03333"],
    ["0.1", 4, "0.025"],
    ["0.1", 6, "0.01667"],
    ["0.1000", 6, "0.01667"],
    ["1", 2, "0.5"],
    ["0.10000", 3, "0.033333"],
  ])("%s N with %d equivalents is no other concentration for want of figures: %s", (normal, z, molar) => {
    expect(molPerL(normal, z)).toBe(molar);
  });

  test("is proposed at its field; a plain number, and a unit that is none of a concentration, are read as ever", () => {
    const peroxide = method("peroxide-by-volume");
    const stage = peroxide.stages[0]!;
    const fields = stageFields(stage, defaultHouseRules);
    const at = (symbol: string, text: string) =>
      checkField(
        fields.find((f) => f.symbol === symbol && !f.hidden)!,
        text,
        {
          ...{ stage, method: peroxide, houseRules: defaultHouseRules, holder: { observations: [] } },
        },
      );
    expect(at("c_p", "0.1 N")).toMatchObject({ ok: false, problem: { severity: "stop", proposal: "0.02" } });
    expect(at("c_p", "0.02000")).toMatchObject({ ok: true, value: { value: 0.02 } });
    expect(at("V_0", "10 N")).toMatchObject({
      ok: false,
      problem: { message: expect.anything() as unknown },
    });
    expect(fromNormality("0.1 N", "EDTA", method("water-hardness"))).not.toHaveProperty("proposal");
  });
});
