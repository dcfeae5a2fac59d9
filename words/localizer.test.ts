import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { methods } from "~/catalog/methods";
import { capitalized, joined, listed, msg, type Phrase, uncapitalized, unitText } from "~/core/text";
import { messagesOfProgram } from "~/scripts/messages";
import british from "./catalogs/en-GB.json" with { type: "json" };
import { localizer } from "./localizer";
import { methodInWords } from "./method-texts";

const american = localizer({ titer: "titer", volume: "mL" });
const britishInCm3 = localizer({ titer: "titre", volume: "cm³" });

const typed = "Titer of tank B/L 4, 5 mL {0} $t(x)";

test.each<[Phrase, string, string]>([
  [msg`Titer so far`, "Titer so far", "Titre so far"],
  [msg`Titer of ${typed}`, `Titer of ${typed}`, `Titre of ${typed}`],
  [typed, typed, typed],
  [msg`About ${24.4} mL a flask`, "About 24.4 mL a flask", "About 24.4 cm³ a flask"],
  [msg`per ${joined(["0.50", unitText("mol/L")], " ")}`, "per 0.50 mol/L", "per 0.50 mol/dm³"],
  [
    msg`Trials ${listed(["1", "2", typed])} agree`,
    `Trials 1, 2 and ${typed} agree`,
    `Trials 1, 2 and ${typed} agree`,
  ],
  [capitalized(uncapitalized(msg`Titer, mL`)), "Titer, mL", "Titre, cm³"],
  [uncapitalized("EDTA in excess"), "EDTA in excess", "EDTA in excess"],
  ["24.38 mL as somebody wrote it", "24.38 mL as somebody wrote it", "24.38 mL as somebody wrote it"],
])("%j reads as the lab says it, and what was typed as it was typed", (phrase, plain, localized) => {
  expect(american(phrase)).toBe(plain);
  expect(britishInCm3(phrase)).toBe(localized);
});

test("cm³ and dm³ stand in composed units, and other L are left alone", () => {
  const units = ["L/(mol·s)", "mol/(L·s)", "L·mol⁻¹", "mol·L⁻¹", "mL/g", "mol/L", "µL", "mg/L"];
  expect(units.map((unit) => britishInCm3(unitText(unit)))).toEqual([
    "dm³/(mol·s)",
    "mol/(dm³·s)",
    "dm³·mol⁻¹",
    "mol·dm³⁻¹",
    "cm³/g",
    "mol/dm³",
    "µL",
    "mg/dm³",
  ]);
  expect(britishInCm3(msg`Label, 1 L of water`)).toBe("Label, 1 L of water");
});

describe("the catalogs", () => {
  const source = messagesOfProgram();
  const places = (text: string) => [...text.matchAll(/\{[^}]*\}/g)].map(([place]) => place).sort();

  test("hold every message of the program and every text of the library (npm run catalog)", () => {
    expect(JSON.parse(readFileSync("words/catalogs/en-US.json", "utf8"))).toEqual(source);
  });

  test("the British one says nothing that the program does not say, with the same places for values", () => {
    for (const [key, text] of Object.entries<string>(british)) {
      expect([key, key in source]).toEqual([key, true]);
      expect([key, places(text)]).toEqual([key, places(key)]);
    }
  });

  test("nothing American is left in the British one", () => {
    const spelled =
      /\b(titers?|\w*colou?rs?(?:ed|less)?|gr[ae]y|\w*lit(?:er|re)s?|alumin(?:um|ium)|fib(?:er|re)|vapou?r)\b/gi;
    const british = /titre|colour|grey|litre|aluminium|fibre|vapour/i;
    const left = Object.keys(source).flatMap((key) =>
      [...localizer({ titer: "titre", volume: "mL" })({ message: key }).matchAll(spelled)]
        .map(([word]) => word)
        .filter((word) => !british.test(word)),
    );
    expect(left).toEqual([]);
  });

  test("places for values are numbers, so that nothing in braces is lost", () => {
    expect(Object.keys(source).filter((key) => /[{}]/.test(key.replace(/\{\d+\}/g, "")))).toEqual([]);
  });
});

test("a shipped method is read in the words of the lab; its formulas, symbols, relations and units stay", () => {
  for (const method of methods) {
    const localized = methodInWords(method, britishInCm3);
    const kept = (m: typeof method) =>
      m.stages.map(({ key, inputs, relations, result }) => ({
        key,
        inputs: inputs.map((input) => ({ ...input, label: "", before: "", after: "" })),
        relations: relations.map(({ relation, unit }) => [relation, unit]),
        result: [result.symbol, result.unit],
      }));
    expect(kept(localized)).toEqual(kept(method));
    expect(localized.equations.map((e) => e.equation)).toEqual(method.equations.map((e) => e.equation));
    expect(localized.glassware.join()).not.toMatch(/\bmL\b/);
  }
});
