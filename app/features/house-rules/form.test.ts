import { describe, expect, test } from "@jest/globals";
import { defaultHouseRules } from "~/catalog/rules/defaults";
import { rulesPresets } from "~/catalog/rules/presets";
import { ruleDefinitions, ruleProblems, type RuleTexts, textsOfRules } from "~/core/rules";
import { rulesOfTexts } from "./form";
import { plain } from "~/core/testing/plain";

/** The form for the default rules with something changed in it. */
const posted = (change: RuleTexts = {}): RuleTexts => ({ ...textsOfRules(defaultHouseRules), ...change });

describe("the house rules' form", () => {
  test("gives back the rules it shows, decimals as typed, a comma taken for a point", () => {
    expect(rulesOfTexts(posted())).toEqual({ rules: defaultHouseRules });
    const read = rulesOfTexts(posted({ withinMl: " 0,20 ", priorRepeatabilityPercent: "0,05" }));
    expect(read).toMatchObject({
      rules: { agreement: { withinMl: "0.20" }, priorRepeatabilityPercent: "0.05" },
    });
  });

  test.each([
    [{ agreement: "within-of-mean" }, { rule: "within-of-mean", replicates: 3, withinMl: "0.10" }],
    [
      { agreement: "identical", withinMl: "" },
      { rule: "identical", replicates: 3 },
    ],
    [
      { agreement: "relative-spread", partsPerThousand: "1,5" },
      { rule: "relative-spread", replicates: 3, partsPerThousand: "1.5" },
    ],
    [
      { agreement: "two-else-third", replicates: "" },
      { rule: "two-else-third", withinMl: "0.10" },
    ],
  ])("%j asks for the fields of its rule alone", (change, agreement) => {
    expect(rulesOfTexts(posted(change))).toMatchObject({ rules: { agreement } });
  });

  test.each([
    ["withinMl", "", "Type a number"],
    ["withinMl", "0", "This must be more than zero"],
    ["withinMl", "0.1 mL", '"0.1 mL" is not a plain number such as 0.10'],
    ["withinMl", "50", "50 is too large: 5 at most"],
    ["readabilityG", "-0.1", '"-0.1" is not a plain number such as 0.10'],
    ["halfRangeC", "1e3", '"1e3" is not a plain number such as 0.10'],
    ["replicates", "2.5", "A whole number from 1 to 12"],
    ["replicates", "13", "A whole number from 1 to 12"],
    ["capacityMl", "37", expect.stringMatching(/^Not saved/)],
    ["agreement", "by feeling", expect.stringMatching(/^Not saved/)],
    ["plusMinus", "k9", expect.stringMatching(/^Not saved/)],
  ])("%s = %j is refused beside its field", (name, value, message) => {
    const read = rulesOfTexts(posted({ [name]: value }));
    expect(plain("problems" in read ? Object.values(read.problems) : [])).toEqual([message]);
  });

  test("a form that lacks everything saves nothing", () => {
    expect("problems" in rulesOfTexts({})).toBe(true);
  });

  test.each(rulesPresets.map((preset) => [preset.name, preset] as const))(
    "the preset %s has no contradictions and comes back as it was",
    (_name, { rules }) => {
      expect(rulesOfTexts(textsOfRules(rules))).toEqual({ rules });
    },
  );

  test.each([
    [
      { resolutionMl: "0.1" },
      { withinMl: "0.05" },
      "withinMl",
      /cannot agree within 0.05 mL while .* 0.1 mL/,
    ],
    [{ outliers: "grubbs" }, { replicates: "2" }, "outliers", /fewer than three trials/],
    [{ readTwice: "yes" }, { readTwiceWithinMl: "0.005" }, "readTwiceWithinMl", /in steps of 0.01 mL/],
    [{ average: "titers" }, { agreementOf: "results" }, "average", /If results must agree/],
    [{ resolutionMl: "0.1" }, { readingHalfWidthMl: "0.001" }, "readingHalfWidthMl", /a tenth of a step/],
  ])("%j contradicts %j: told at the field, not saved", (one, other, field, message) => {
    expect("rules" in rulesOfTexts(posted(one))).toBe(true);
    const read = rulesOfTexts(posted({ ...one, ...other }));
    expect(plain("problems" in read && read.problems)).toEqual({ [field]: expect.stringMatching(message) });
  });
});

describe("rules that come by another way than the form", () => {
  test.each([
    ["labC", { temperature: { ...defaultHouseRules.temperature, labC: "999" } }],
    ["readingHalfWidthMl", { burette: { ...defaultHouseRules.burette, readingHalfWidthMl: "40" } }],
    ["withinMl", { agreement: { rule: "n-within", replicates: 3, withinMl: "0" } }],
  ] as const)("are held to the same bounds: %s", (field, change) => {
    expect(ruleProblems({ ...defaultHouseRules, ...change }).map((p) => p.field)).toEqual([field]);
  });

  test("each number of the rules has its bounds, and each choice is one that the schema knows", () => {
    for (const { name, kind, bounds, choices } of ruleDefinitions) {
      if (kind === "decimal") expect([name, bounds?.most]).toEqual([name, expect.any(Number)]);
      for (const [choice] of choices ?? []) {
        const read = rulesOfTexts(posted({ [name]: choice, replicates: "3" }));
        // A choice may contradict another rule; it is never unknown.
        expect("problems" in read ? read.problems.form : undefined).toBeUndefined();
      }
    }
  });
});
