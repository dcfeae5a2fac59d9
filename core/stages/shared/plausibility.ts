import { suspectOf, takenOver } from "../../inputs";
import { plusMinus } from "../../judgement";
import {
  inUnit,
  type Quantity,
  roundWithUncertainty,
  standardUncertainty,
  subtract,
  toDecimals,
  unitOf,
  withUnit,
} from "../../quantity";
import { evaluate, evaluateNumber, leavesOf, parseExpression, type Stoichiometry } from "../../relation";
import { type ComputedStage, type Method, type Plausibility, resultsOf } from "../../method";
import { type CompiledStage } from "../compiled";
import type { HouseRules } from "../../rules";
import { uncapitalized, msg, type Phrase, joined } from "../../text";

/** A result that cannot be, or that lies outside what its method is valid for. */
export interface Implausibility {
  readonly symbol: string;
  /** "impossible": it cannot be, so the stage is not done; "invalid": the method does not hold there, which is told. */
  readonly outside: "impossible" | "invalid";
  /** What cannot be, and why: value, rule, consequence. */
  readonly text: Phrase;
  /** Where to look first, most likely first: ends of sentences that stand for themselves. */
  readonly look: readonly Phrase[];
}

/** All that a plausibility is judged from. */
export interface PlausibilityInput {
  readonly stage: CompiledStage;
  readonly method: Method;
  readonly stoichiometry: Stoichiometry;
  readonly rules: HouseRules;
  /** A result of the stage, or what was read for it. */
  readonly quantityOf: (symbol: string) => Quantity | null;
  /** A result of an earlier stage. */
  readonly earlierOf: (stage: string, symbol: string) => Quantity | null;
  /** What one flask knows, or what is made once: for how results follow what was read. */
  readonly symbols: ReadonlyMap<string, Quantity>;
  /** Symbols whose values nobody stated: they are only presumed. */
  readonly presumed: ReadonlySet<string>;
}

/** What a value may be off by without a question: the house's ±, and 2 u at least. */
const allowance = (q: Quantity, rules: HouseRules): number =>
  Math.max(2 * standardUncertainty(q), plusMinus(q, rules.plusMinus));

interface Shown {
  readonly name: Phrase;
  readonly unit: string;
}

/** A result, or what was read, by its name and unit. */
function nameOf(definition: ComputedStage, symbol: string, unit = "1"): Shown {
  const result = resultsOf(definition).find((r) => r.symbol === symbol);
  const input = definition.inputs.find((i) => i.symbol === symbol);
  const line = definition.relations.find(({ relation }) => relation.split("=")[0]?.trim() === symbol);
  return {
    name: result?.name ?? input?.label ?? line?.title ?? symbol,
    unit: result?.unit ?? line?.unit ?? unit,
  };
}

/** A value with its ± as a sentence gives it. */
function valueText(q: Quantity, unit: string, rules: HouseRules): Phrase {
  const { factor } = unitOf(unit);
  const { value, uncertainty } = roundWithUncertainty(
    inUnit(q, unit),
    plusMinus(q, rules.plusMinus) / factor,
  );
  return withUnit(uncertainty === "0" ? value : `${value} ± ${uncertainty}`, unit);
}

type Direction = "too high" | "too low" | "either way";

/** How far a count may lie from a whole number and still show it: three standard uncertainties, and 0.15 at least. */
export const wholeNumberReach = (q: Quantity): number => Math.max(3 * standardUncertainty(q), 0.15);

/** True where a count lies near enough to a whole number to be taken for it. */
export const isNearWhole = (q: Quantity): boolean =>
  Math.abs(q.value - Math.round(q.value)) <= wholeNumberReach(q);

interface Found {
  /** What was held against its bound, where that is not the result itself: the difference of two. */
  readonly judged?: Quantity;
  /** Where else to look than at what the result is had from. */
  readonly also?: Phrase;
  readonly text: Phrase;
  readonly direction: Direction;
  readonly outside: "impossible" | "invalid";
}

type RuleOf<R extends Plausibility["rule"]> = Extract<Plausibility, { rule: R }>;

/** What every failure tells first, and how much a result may depart before it is one. */
function statementOf(rule: Plausibility, q: Quantity, { rules, stage }: PlausibilityInput) {
  const { name, unit } = nameOf(stage.definition, rule.symbol, "unit" in rule ? rule.unit : "1");
  return { statement: msg`${name} is ${valueText(q, unit, rules)}`, unit, off: allowance(q, rules) };
}

function outsideRange(rule: RuleOf<"between">, q: Quantity, input: PlausibilityInput): Found | null {
  const { statement, off } = statementOf(rule, q, input);
  const { factor } = unitOf(rule.unit);
  const [from, to] = [(rule.from ?? -Infinity) * factor, (rule.to ?? Infinity) * factor];
  const low = q.value + off < from;
  if (!low && q.value - off <= to) return null;
  const outside = rule.outside ?? "impossible";
  const bound = withUnit(String(low ? rule.from : rule.to), rule.unit);
  const both = rule.from !== undefined && rule.to !== undefined;
  const range = both
    ? msg`${rule.from ?? ""} to ${withUnit(String(rule.to), rule.unit)}`
    : low
      ? msg`at least ${bound}`
      : msg`at most ${bound}`;
  const text =
    outside === "invalid"
      ? msg`${statement}, outside the ${range} for which this method is valid`
      : msg`${statement}, ${low ? msg`below` : msg`above`} ${bound} by more than its ±: that is impossible`;
  return { text, direction: low ? "too low" : "too high", outside };
}

function moreThanAll(rule: RuleOf<"at most all">, q: Quantity, input: PlausibilityInput): Found | null {
  const { statement, unit, off } = statementOf(rule, q, input);
  const parsed = parseExpression(rule.all ?? "1");
  const scope = { symbols: new Map<string, Quantity>(), stoichiometry: input.stoichiometry };
  const all = parsed.ok ? evaluate(parsed.value, scope).value : 1;
  if (q.value - off <= all) return null;
  const most = withUnit(toDecimals(all / unitOf(unit).factor, 2), unit);
  const what = rule.of ? msg`${rule.of} holds, ${most},` : msg`all of it`;
  const text = msg`${statement}, more than ${what} by more than its ±: that is impossible`;
  return { text, direction: "too high", outside: "impossible" };
}

/** A part above its whole, or a whole below its part. */
function partAndWhole(
  rule: RuleOf<"not above" | "not below">,
  q: Quantity,
  input: PlausibilityInput,
): Found | null {
  const { rules, stage, method } = input;
  const { statement, unit } = statementOf(rule, q, input);
  const other =
    rule.stage === undefined ? input.quantityOf(rule.other) : input.earlierOf(rule.stage, rule.other);
  if (!other) return null;
  const above = rule.rule === "not above";
  const difference = above ? subtract(q, other) : subtract(other, q);
  if (difference.value <= allowance(difference, rules)) return null;
  const owner = method.stages.find((s) => s.key === rule.stage);
  const named = uncapitalized(nameOf(owner ?? stage.definition, rule.other, unit).name);
  const which = above ? msg`of which it is a part` : msg`which is a part of it`;
  return {
    text: msg`${statement}, ${above ? msg`more` : msg`less`} than ${named}, ${valueText(other, unit, rules)}, ${which}: that is impossible`,
    judged: difference,
    also: msg`the other result, ${named}`,
    direction: above ? "too high" : "too low",
    outside: "impossible",
  };
}

function noWholeNumber(rule: RuleOf<"whole number">, q: Quantity, input: PlausibilityInput): Found | null {
  if (isNearWhole(q)) return null;
  const text = msg`${statementOf(rule, q, input).statement}: no whole number lies within its ±, so none is shown`;
  return { text, direction: "either way", outside: "impossible" };
}

function failureOf(rule: Plausibility, q: Quantity, input: PlausibilityInput): Found | null {
  switch (rule.rule) {
    case "between":
      return outsideRange(rule, q, input);
    case "at most all":
      return moreThanAll(rule, q, input);
    case "not above":
    case "not below":
      return partAndWhole(rule, q, input);
    case "whole number":
      return noWholeNumber(rule, q, input);
  }
}

/** How much of the variance of a result each input brings, by the causes they share. */
function shareOf(q: Quantity, of: Quantity): number {
  const all = standardUncertainty(q) ** 2;
  if (all === 0) return 0;
  let part = 0;
  for (const { leaf, by } of q.sensitivities.values())
    if (of.sensitivities.has(leaf.id)) part += (by * leaf.u) ** 2;
  return Math.min(1, part / all);
}

/** What is only presumed is wrong before all that was measured. Common practice, no source. */
const presumedOften = 3;

/**
 * Where to look first: the inputs that would have to be wrong, by the sign with which the result follows each; those that are
 * wrong most often first, and among them those that bring most of the ±. The ratio of the equation comes last.
 */
function whereToLook(
  symbol: string,
  { direction, judged, also }: Found,
  q: Quantity,
  { stage, stoichiometry, symbols, method, presumed }: PlausibilityInput,
): Phrase[] {
  const { definition, lines } = stage;
  const numbers = new Map([...symbols].map(([s, { value }]) => [s, value] as const));
  const valueWith = (changed: string, by: number): number => {
    const own = new Map(numbers).set(changed, (numbers.get(changed) ?? NaN) * by);
    const computed = new Set(lines.map((line) => line.symbol));
    for (const { symbol: s, expression } of lines)
      own.set(s, evaluateNumber(expression, { numbers: own, stoichiometry }));
    return computed.has(changed) ? NaN : (own.get(symbol) ?? NaN);
  };
  const step = 1e-4;
  const suspects = definition.inputs.flatMap((input) => {
    const own = symbols.get(input.symbol);
    // What both of two results rest on cancels in their difference: it cannot be to blame.
    if (own && judged && own.sensitivities.size > 0 && shareOf(judged, own) < 0.01 * shareOf(q, own))
      return [];
    if (!own || input.is === "constant" || own.value === 0) return [];
    const slope = valueWith(input.symbol, 1 + step) - valueWith(input.symbol, 1 - step);
    if (!Number.isFinite(slope) || slope === 0) return [];
    const rises = slope > 0;
    const side =
      direction === "either way" ? "either" : rises === (direction === "too high") ? "high" : "low";
    const suspect = suspectOf(input);
    const from = takenOver(input)?.stage ?? "";
    const title = method.stages.find(({ key }) => key === from)?.title ?? from;
    return [
      {
        words: suspect.words(side, title),
        rank: (presumed.has(input.symbol) ? presumedOften : suspect.often) + shareOf(q, own),
      },
    ];
  });
  const byEquation = lines.some(({ expression }) =>
    leavesOf(expression).some((leaf) => leaf.type === "ratio"),
  );
  return [
    ...suspects.sort((a, b) => b.rank - a.rank).map(({ words }) => words),
    ...(also === undefined ? [] : [also]),
    ...(byEquation && !judged
      ? [msg`the equation: the substance or the ratio may differ from the method’s`]
      : []),
  ];
}

/** Everything about the results of a stage that cannot be, or for which its method does not hold. */
export function implausibilities(
  input: PlausibilityInput,
  only: (rule: Plausibility) => boolean = () => true,
): Implausibility[] {
  return (input.stage.definition.plausible ?? []).filter(only).flatMap((rule) => {
    const q = input.quantityOf(rule.symbol);
    if (!q || !Number.isFinite(q.value)) return [];
    const found = failureOf(rule, q, input);
    if (!found) return [];
    const look = whereToLook(rule.symbol, found, q, input);
    return [{ symbol: rule.symbol, outside: found.outside, text: found.text, look }];
  });
}

/** An implausibility with where to look first, as one piece of text. */
export const implausibleWords = ({ text, look }: Implausibility, most = 3): Phrase =>
  look.length === 0
    ? msg`${text}.`
    : msg`${text}. First check ${joined(
        look.slice(0, most).map((words, i) => (most === 1 ? words : msg`(${i + 1}) ${words}`)),
        "; ",
      )}.`;
