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

/** Reads the form of the house rules; a comma is taken for a decimal point. Either the rules, or what is wrong and where. */
export function readHouseRulesForm(form: FormData): { rules: HouseRules } | { problems: FormProblems } {
  const text = (name: string) => {
    const value = form.get(name);
    return typeof value === "string" ? value.trim().replace(",", ".") : "";
  };
  const problems: Record<string, string> = {};
  for (const field of decimalFields) {
    const problem = decimalProblem(text(field.name), field);
    if (problem) problems[field.name] = problem;
  }
  const replicates = Number(text("replicates"));
  if (!Number.isInteger(replicates) || replicates < 1 || replicates > 12) {
    problems.replicates = "A whole number from 1 to 12";
  }
  if (Object.keys(problems).length > 0) return { problems };
  const rules = checkHouseRules({
    agreement: { rule: "n-within", replicates, withinMl: text("withinMl") },
    burette: {
      capacityMl: Number(text("capacityMl")),
      decimals: Number(text("decimals")),
      readingHalfWidthMl: text("readingHalfWidthMl"),
    },
    glassware: { toleranceClass: text("toleranceClass"), toleranceShape: text("toleranceShape") },
    balance: { readabilityG: text("readabilityG"), linearityG: text("linearityG") },
    temperature: { halfRangeC: text("halfRangeC"), shape: text("temperatureShape") },
    priorRepeatabilityPercent: text("priorRepeatabilityPercent"),
    plusMinus: text("plusMinus"),
  });
  return rules.ok ? { rules: rules.value } : { problems: { form: `Not saved: ${rules.problem.message}` } };
}
