import { type HouseRules, ruleProblems, rulesOfTexts as meantBy, type RuleTexts } from "~/core/rules";
import { checkHouseRules } from "~/formats/house-rules";
import { msg, type Phrase } from "~/core/text";

/** Messages beside the fields, by field name. */
export type FormProblems = Readonly<Record<string, Phrase>>;

/** Reads the form: either the rules, or what is wrong and where. */
export function rulesOfTexts(texts: RuleTexts): { rules: HouseRules } | { problems: FormProblems } {
  const meant = meantBy(texts);
  if ("problems" in meant) return meant;
  const checked = checkHouseRules(meant.rules);
  if (!checked.ok) return { problems: { form: msg`Not saved: ${checked.problem.message}` } };
  const problems = ruleProblems(checked.value);
  return problems.length > 0
    ? { problems: Object.fromEntries(problems.map(({ field, message }) => [field, message])) }
    : { rules: checked.value };
}
