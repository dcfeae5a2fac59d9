import { contradictions, type HouseRules, photometerRules } from "~/core/rules";
import { checkHouseRules } from "~/formats/house-rules";

/** Messages beside the fields, by field name. */
export type FormProblems = Readonly<Record<string, string>>;

/** The form as it stands, by field name: what is typed or chosen. */
export type RuleTexts = Readonly<Record<string, string>>;

interface DecimalField {
  readonly name: string;
  readonly most: number;
  readonly aboveZero: boolean;
  readonly optional?: boolean;
}

const decimalFields: readonly DecimalField[] = [
  { name: "withinMl", most: 5, aboveZero: true },
  { name: "partsPerThousand", most: 100, aboveZero: true },
  { name: "readingHalfWidthMl", most: 1, aboveZero: false },
  { name: "readTwiceWithinMl", most: 1, aboveZero: true },
  { name: "readabilityG", most: 1, aboveZero: true },
  { name: "linearityG", most: 1, aboveZero: false },
  { name: "labC", most: 45, aboveZero: false },
  { name: "halfRangeC", most: 20, aboveZero: false },
  { name: "readingsWithin", most: 1, aboveZero: true },
  { name: "flasksPercent", most: 100, aboveZero: true },
  { name: "priorRepeatabilityPercent", most: 10, aboveZero: false, optional: true },
];

function decimalProblem(text: string, { most, aboveZero, optional }: DecimalField): string | null {
  if (text === "") return optional ? null : "Type a number";
  if (!/^\d+(\.\d+)?$/.test(text)) return `"${text}" is not a plain number such as 0.10`;
  if (aboveZero && Number(text) === 0) return "This must be more than zero";
  return Number(text) > most ? `${text} is too much here: ${most} at most` : null;
}

/** The rule of agreement with the fields that belong to it, as typed; the schema knows which rules there are. */
function agreementOf(text: (name: string) => string): Record<string, unknown> {
  const rule = text("agreement");
  const replicates = Number(text("replicates"));
  switch (rule) {
    case "identical":
      return { rule, replicates };
    case "relative-spread":
      return { rule, replicates, partsPerThousand: text("partsPerThousand") };
    case "two-else-third":
      return { rule, withinMl: text("withinMl") };
    default:
      return { rule, replicates, withinMl: text("withinMl") };
  }
}

/** House rules as the form shows them; fields that the rule of agreement does not use hold what is usual. */
export function textsOfRules(rules: HouseRules): RuleTexts {
  const { agreement, burette, glassware, balance, temperature, words } = rules;
  const photometer = photometerRules(rules);
  const yes = (is: boolean) => (is ? "yes" : "no");
  return {
    agreement: agreement.rule,
    replicates: String("replicates" in agreement ? agreement.replicates : 2),
    withinMl: "withinMl" in agreement ? agreement.withinMl : "0.10",
    partsPerThousand: "partsPerThousand" in agreement ? agreement.partsPerThousand : "2",
    agreementOf: rules.agreementOf,
    outliers: rules.outliers,
    average: rules.average,
    capacityMl: String(burette.capacityMl),
    resolutionMl: burette.resolutionMl,
    readingHalfWidthMl: burette.readingHalfWidthMl,
    start: burette.start,
    meniscus: burette.meniscus,
    readTwice: yes(burette.readTwice),
    readTwiceWithinMl: burette.readTwiceWithinMl,
    toleranceClass: glassware.toleranceClass,
    toleranceShape: glassware.toleranceShape,
    readabilityG: balance.readabilityG,
    linearityG: balance.linearityG,
    correctBuoyancy: yes(balance.correctBuoyancy),
    labC: temperature.labC,
    halfRangeC: temperature.halfRangeC,
    temperatureShape: temperature.shape,
    priorRepeatabilityPercent: rules.priorRepeatabilityPercent,
    plusMinus: rules.plusMinus,
    digits: rules.digits,
    percentError: rules.percentError,
    titer: words.titer,
    volume: words.volume,
    normality: yes(words.normality),
    readingsWithin: photometer.readingsWithin,
    flasksPercent: photometer.flasksPercent,
  };
}

/** Reads the form; a comma is taken for a decimal point. Either the rules, or what is wrong and where. */
export function rulesOfTexts(texts: RuleTexts): { rules: HouseRules } | { problems: FormProblems } {
  const text = (name: string) => (texts[name] ?? "").trim().replace(",", ".");
  const problems: Record<string, string> = {};
  const agreement = agreementOf(text);
  for (const field of decimalFields) {
    // A width that the chosen rule does not use is not looked at.
    if ((field.name === "withinMl" || field.name === "partsPerThousand") && !(field.name in agreement))
      continue;
    const problem = decimalProblem(text(field.name), field);
    if (problem) problems[field.name] = problem;
  }
  const replicates = Number(text("replicates"));
  if ("replicates" in agreement && (!Number.isInteger(replicates) || replicates < 1 || replicates > 12)) {
    problems.replicates = "A whole number from 1 to 12";
  }
  if (Object.keys(problems).length > 0) return { problems };
  const checked = checkHouseRules({
    agreement,
    agreementOf: text("agreementOf"),
    outliers: text("outliers"),
    average: text("average"),
    burette: {
      capacityMl: Number(text("capacityMl")),
      resolutionMl: text("resolutionMl"),
      readingHalfWidthMl: text("readingHalfWidthMl"),
      start: text("start"),
      meniscus: text("meniscus"),
      readTwice: text("readTwice") === "yes",
      readTwiceWithinMl: text("readTwiceWithinMl"),
    },
    glassware: { toleranceClass: text("toleranceClass"), toleranceShape: text("toleranceShape") },
    balance: {
      readabilityG: text("readabilityG"),
      linearityG: text("linearityG"),
      correctBuoyancy: text("correctBuoyancy") === "yes",
    },
    temperature: { labC: text("labC"), halfRangeC: text("halfRangeC"), shape: text("temperatureShape") },
    priorRepeatabilityPercent: text("priorRepeatabilityPercent"),
    plusMinus: text("plusMinus"),
    digits: text("digits"),
    percentError: text("percentError"),
    words: { titer: text("titer"), volume: text("volume"), normality: text("normality") === "yes" },
    photometer: { readingsWithin: text("readingsWithin"), flasksPercent: text("flasksPercent") },
  });
  if (!checked.ok) return { problems: { form: `Not saved: ${checked.problem.message}` } };
  const wrong = contradictions(checked.value);
  return wrong.length > 0
    ? { problems: Object.fromEntries(wrong.map(({ field, message }) => [field, message])) }
    : { rules: checked.value };
}
