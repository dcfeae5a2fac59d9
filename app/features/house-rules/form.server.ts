import type { HouseRules } from "~/core/run";
import { checkHouseRules } from "~/formats/house-rules";

/** Messages beside the fields, by field name. */
export type FormProblems = Readonly<Record<string, string>>;

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
  { name: "readabilityG", most: 1, aboveZero: true },
  { name: "linearityG", most: 1, aboveZero: false },
  { name: "halfRangeC", most: 20, aboveZero: false },
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

/** Reads the form of the house rules; a comma is taken for a decimal point. Either the rules, or what is wrong and where. */
export function readHouseRulesForm(form: FormData): { rules: HouseRules } | { problems: FormProblems } {
  const text = (name: string) => {
    const value = form.get(name);
    return typeof value === "string" ? value.trim().replace(",", ".") : "";
  };
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
  const rules = checkHouseRules({
    agreement,
    agreementOf: text("agreementOf"),
    outliers: text("outliers"),
    burette: {
      capacityMl: Number(text("capacityMl")),
      decimals: Number(text("decimals")),
      readingHalfWidthMl: text("readingHalfWidthMl"),
    },
    glassware: { toleranceClass: text("toleranceClass"), toleranceShape: text("toleranceShape") },
    balance: {
      readabilityG: text("readabilityG"),
      linearityG: text("linearityG"),
      correctBuoyancy: text("correctBuoyancy") === "yes",
    },
    temperature: { halfRangeC: text("halfRangeC"), shape: text("temperatureShape") },
    priorRepeatabilityPercent: text("priorRepeatabilityPercent"),
    plusMinus: text("plusMinus"),
    digits: text("digits"),
    percentError: text("percentError"),
  });
  return rules.ok ? { rules: rules.value } : { problems: { form: `Not saved: ${rules.problem.message}` } };
}
