import { withPoint, msg, type Phrase } from "../text";
import type { HouseRules } from "./schema";
import { type RuleDefinition, ruleDefinitions, type RuleTexts } from "./table";

const isObject = (x: unknown): x is Record<string, unknown> => typeof x === "object" && x !== null;

/** What stands at a rule's place; undefined where it is not used. */
const valueAt = (rules: HouseRules, { path }: RuleDefinition): unknown =>
  path.reduce<unknown>((value, key) => (isObject(value) ? value[key] : undefined), rules);

function textOf(value: unknown, { usual = "" }: RuleDefinition): string {
  if (typeof value === "boolean") return value ? "yes" : "no";
  return typeof value === "string" || typeof value === "number" ? String(value) : usual;
}

/** House rules as a form shows them; what they do not use holds what is usual. */
export const textsOfRules = (rules: HouseRules): RuleTexts =>
  Object.fromEntries(ruleDefinitions.map((rule) => [rule.name, textOf(valueAt(rules, rule), rule)]));

/** What is wrong with a number, in words; null where nothing is. */
function boundsProblem(text: string, { kind, bounds }: RuleDefinition): Phrase | null {
  if (!bounds) return null;
  const { most, least = 0, aboveZero, optional } = bounds;
  if (kind === "count") {
    const n = Number(text);
    const holds = text !== "" && Number.isInteger(n) && n >= least && n <= most;
    return holds ? null : msg`A whole number from ${least} to ${most}`;
  }
  if (text === "") return optional ? null : msg`Type a number`;
  if (!/^\d+(\.\d+)?$/.test(text)) return msg`"${text}" is not a plain number such as 0.10`;
  if (aboveZero && Number(text) === 0) return msg`This must be more than zero`;
  return Number(text) > most ? msg`${text} is too large: ${most} at most` : null;
}

/** Numbers that house rules cannot hold, by the name of the rule. */
export const boundsProblems = (rules: HouseRules): Readonly<Record<string, Phrase>> =>
  problemsOf(
    ruleDefinitions.filter((rule) => valueAt(rules, rule) !== undefined),
    textsOfRules(rules),
  );

const problemsOf = (rules: readonly RuleDefinition[], texts: RuleTexts) =>
  Object.fromEntries(
    rules.flatMap((rule) => {
      const problem = boundsProblem(texts[rule.name] ?? "", rule);
      return problem === null ? [] : [[rule.name, problem] as const];
    }),
  );

/** The value that a text means; the schema knows whether there is such a one. */
const meant = (text: string, { kind }: RuleDefinition): unknown =>
  kind === "count" ? Number(text) : kind === "flag" ? text === "yes" : text;

/**
 * What a form means: an object of the shape of house rules, for the schema to check, or what is wrong and where. A comma is taken
 * for a decimal point; rules that the chosen way of agreement does not use are not looked at.
 */
export function rulesOfTexts(
  typed: RuleTexts,
): { readonly rules: unknown } | { readonly problems: Readonly<Record<string, Phrase>> } {
  const texts: RuleTexts = Object.fromEntries(
    ruleDefinitions.map(({ name }) => [name, withPoint(typed[name])]),
  );
  const used = ruleDefinitions.filter(({ path, when }) => path[0] !== "agreement" || !when || when(texts));
  const problems = problemsOf(used, texts);
  if (Object.keys(problems).length > 0) return { problems };
  const rules: Record<string, unknown> = {};
  for (const rule of used) {
    const last = rule.path.at(-1) ?? "";
    let place = rules;
    for (const key of rule.path.slice(0, -1)) place = (place[key] ??= {}) as Record<string, unknown>;
    place[last] = meant(texts[rule.name] ?? "", rule);
  }
  return { rules };
}
