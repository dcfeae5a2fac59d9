import { describe, expect, test } from "@jest/globals";
import { defaultHouseRules } from "~/catalog/rules/defaults";
import { readHouseRulesForm } from "./form.server";

/** The form as the browser posts it for the default rules. */
const posted = (change: Record<string, string> = {}): FormData => {
  const { agreement, burette, glassware, balance, temperature } = defaultHouseRules;
  const { rule, ...width } = agreement;
  const fields = {
    agreement: rule,
    ...Object.fromEntries(Object.entries(width).map(([name, value]) => [name, String(value)])),
    agreementOf: defaultHouseRules.agreementOf,
    outliers: defaultHouseRules.outliers,
    capacityMl: String(burette.capacityMl),
    decimals: String(burette.decimals),
    readingHalfWidthMl: burette.readingHalfWidthMl,
    ...glassware,
    ...balance,
    correctBuoyancy: "no",
    halfRangeC: temperature.halfRangeC,
    temperatureShape: temperature.shape,
    priorRepeatabilityPercent: "",
    plusMinus: defaultHouseRules.plusMinus,
    digits: defaultHouseRules.digits,
    percentError: defaultHouseRules.percentError,
    ...change,
  };
  const form = new FormData();
  for (const [name, value] of Object.entries(fields)) form.append(name, value);
  return form;
};

describe("the house rules' form", () => {
  test("gives back the rules it shows, decimals as typed, a comma taken for a point", () => {
    expect(readHouseRulesForm(posted())).toEqual({ rules: defaultHouseRules });
    const read = readHouseRulesForm(posted({ withinMl: " 0,20 ", priorRepeatabilityPercent: "0,05" }));
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
    expect(readHouseRulesForm(posted(change))).toMatchObject({ rules: { agreement } });
  });

  test.each([
    ["withinMl", "", "Type a number"],
    ["withinMl", "0", "This must be more than zero"],
    ["withinMl", "0.1 mL", '"0.1 mL" is not a plain number such as 0.10'],
    ["withinMl", "50", "50 is too much here: 5 at most"],
    ["readabilityG", "-0.1", '"-0.1" is not a plain number such as 0.10'],
    ["halfRangeC", "1e3", '"1e3" is not a plain number such as 0.10'],
    ["replicates", "2.5", "A whole number from 1 to 12"],
    ["replicates", "13", "A whole number from 1 to 12"],
    ["capacityMl", "37", expect.stringMatching(/^Not saved/)],
    ["agreement", "by feeling", expect.stringMatching(/^Not saved/)],
    ["plusMinus", "k9", expect.stringMatching(/^Not saved/)],
  ])("%s = %j is refused beside its field", (name, value, message) => {
    const read = readHouseRulesForm(posted({ [name]: value }));
    expect("problems" in read ? Object.values(read.problems) : []).toEqual([message]);
  });

  test("a form that lacks everything saves nothing", () => {
    expect("problems" in readHouseRulesForm(new FormData())).toBe(true);
  });
});
