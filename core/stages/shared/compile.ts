import { describeDimension, type Dimension, isUnit, sameDimension, unitOf } from "../../quantity";
import {
  dimensionOf,
  type Expression,
  leavesOf,
  parseExpression,
  parseRelation,
  type Stoichiometry,
} from "../../relation";
import { type Equation, schemeEquivalents, schemeRatio } from "../../chemistry";
import { failure, mustHold, type Problem, type Result, success } from "../../result";
import { isPhotometric } from "../../inputs";
import { type ComputedStage, inputOf, type Method, resultsOf } from "../../method";
import type { CompiledLine } from "../compiled";
import { faulty, type MethodProblem, problemOf } from "../problem";
import { msg } from "../../text";

/** What the check of a stage found, for what its kind compiles beside. */
export interface Checked {
  readonly lines: readonly CompiledLine[];
  /** Of every symbol that is read or computed. */
  readonly dimensions: ReadonlyMap<string, Dimension>;
  readonly stoichiometry: LooseStoichiometry;
}

/** A symbol that a fit yields for the relations of its stage, with its unit. */
export interface Fitted {
  readonly symbol: string;
  readonly unit: string;
}

/** Relations parsed one by one, each with a unit that is known. */
export function parseLines(
  source: ComputedStage["relations"],
  ...at: readonly (string | number)[]
): Result<CompiledLine[], MethodProblem> {
  const lines: CompiledLine[] = [];
  for (const [i, { relation, title, unit }] of source.entries()) {
    const parsed = parseRelation(relation);
    if (!parsed.ok)
      return faulty("relation-unreadable", { source: relation, detail: parsed.problem }, ...at, i);
    if (!isUnit(unit)) return faulty("relation-unit-unknown", { source: relation, unit }, ...at, i, "unit");
    lines.push({ ...parsed.value, title, unit });
  }
  return success(lines);
}

type Rule = NonNullable<ComputedStage["plausible"]>[number];
type RuleOf<R extends Rule["rule"]> = Extract<Rule, { rule: R }>;

function betweenProblem({ symbol, from, to, unit }: RuleOf<"between">, own: Dimension): MethodProblem | null {
  if (!isUnit(unit) || !sameDimension(unitOf(unit).dimension, own))
    return problemOf("plausible-unit", { symbol, dimension: describeDimension(own), unit });
  return from === undefined && to === undefined ? problemOf("plausible-open", { symbol }) : null;
}

function atMostAllProblem(
  { symbol, all: source = "1" }: RuleOf<"at most all">,
  own: Dimension,
  stoichiometry: LooseStoichiometry,
): MethodProblem | null {
  const all = parseExpression(source);
  if (!all.ok) return problemOf("relation-unreadable", { source, detail: all.problem });
  const missing = missingStoichiometry(all.value, stoichiometry);
  if (missing) return problemOf("ratio-missing", { source: null, detail: missing });
  const most = dimensionOf(all.value, new Map());
  if (!most.ok) return problemOf("relation-unreadable", { source, detail: most.problem });
  if (sameDimension(most.value, own)) return null;
  const [dimension, ofAll] = [describeDimension(own), describeDimension(most.value)];
  return problemOf("plausible-dimension", { symbol, dimension, all: ofAll });
}

function ruleProblem(
  rule: Rule,
  method: Method,
  dimensions: ReadonlyMap<string, Dimension>,
  stoichiometry: LooseStoichiometry,
): MethodProblem | null {
  const own = dimensions.get(rule.symbol);
  if (!own) return problemOf("plausible-unknown", { symbol: rule.symbol });
  switch (rule.rule) {
    case "between":
      return betweenProblem(rule, own);
    case "at most all":
      return atMostAllProblem(rule, own, stoichiometry);
    case "not above":
    case "not below": {
      const { symbol, other, stage } = rule;
      const there =
        stage === undefined
          ? dimensions.has(other)
          : method.stages.some((s) => s.key === stage && resultsOf(s).some((r) => r.symbol === other));
      return there ? null : problemOf("plausible-other-missing", { symbol, other });
    }
    case "whole number":
      return null;
  }
}

/** What keeps the results of a stage from being judged: by what is plausible, and by what they are held against. */
export function judgementProblem(
  method: Method,
  stage: ComputedStage,
  { dimensions, stoichiometry }: Checked,
): MethodProblem | null {
  for (const [i, rule] of (stage.plausible ?? []).entries()) {
    const wrong = ruleProblem(rule, method, dimensions, stoichiometry);
    if (wrong) return { ...wrong, path: ["plausible", i] };
  }
  const held = acceptanceProblem(stage, dimensions);
  if (held) return held;
  const at = (stage.also ?? []).findIndex(({ when }) => when && !inputOf(stage, when.symbol));
  const withheld = stage.also?.[at];
  if (!withheld?.when) return null;
  return problemOf("withheld-unread", { symbol: withheld.symbol, by: withheld.when.symbol }, "also", at);
}

/** What keeps the result of a stage from being held against what the method says. */
function acceptanceProblem(
  { accept, result, inputs }: ComputedStage,
  dimensions: ReadonlyMap<string, Dimension>,
): MethodProblem | null {
  if (!accept) return null;
  const { symbol } = accept;
  const [known, found] = [dimensions.get(symbol), dimensions.get(result.symbol)];
  if (!known || !inputs.some((input) => input.symbol === symbol))
    return problemOf("accept-unread", { symbol }, "accept");
  if (!found || sameDimension(known, found)) return null;
  const [dimension, ofResult] = [describeDimension(known), describeDimension(found)];
  return problemOf("accept-dimension", { symbol, dimension, result: ofResult }, "accept");
}

/** Ratios and equivalents, or why there are none. */
export interface LooseStoichiometry {
  readonly ratio: (of: string, per: string) => Result<[number, number]>;
  readonly equivalents: (of: string) => Result<number>;
}

export function missingStoichiometry(expression: Expression, known: LooseStoichiometry): Problem | null {
  for (const leaf of leavesOf(expression)) {
    const found =
      leaf.type === "ratio"
        ? known.ratio(leaf.of, leaf.per)
        : leaf.type === "equivalents"
          ? known.equivalents(leaf.of)
          : null;
    if (found && !found.ok)
      return leaf.at === undefined ? found.problem : { ...found.problem, position: leaf.at };
  }
  return null;
}

/** More ratios than this no method asks for; each one is a search through its equations. */
const mostRatios = 400;

/** What the equations say, each question searched for once, and not endlessly many of them. */
export function limitedStoichiometry(equations: readonly Equation[]): LooseStoichiometry {
  const ratios = new Map<string, Result<[number, number]>>();
  const equivalents = new Map<string, Result<number>>();
  const once = <T>(known: Map<string, Result<T>>, key: string, find: () => Result<T>): Result<T> => {
    const there = known.get(key);
    if (there) return there;
    if (known.size >= mostRatios) return failure(msg`The relations ask for more than ${mostRatios} ratios`);
    const fresh = find();
    known.set(key, fresh);
    return fresh;
  };
  return {
    ratio: (of, per) => once(ratios, `${of}/${per}`, () => schemeRatio(equations, of, per)),
    equivalents: (of) => once(equivalents, of, () => schemeEquivalents(equations, of)),
  };
}

/** The same for relations that were checked. Throws on a ratio that the check let not pass. */
export const checkedStoichiometry = (stoichiometry: LooseStoichiometry): Stoichiometry => ({
  ratio: (of, per) => mustHold(stoichiometry.ratio(of, per)),
  equivalents: (of) => mustHold(stoichiometry.equivalents(of)),
});

/** A stage that is not read on a photometer has nothing that is. */
export function photometerProblem({ inputs }: ComputedStage): MethodProblem | null {
  const at = inputs.findIndex(isPhotometric);
  const odd = inputs[at];
  return odd ? problemOf("photometer-missing", { symbol: odd.symbol }, "inputs", at) : null;
}

/** A stage that is read on a photometer titrates nothing; its flasks need one input of the kind that is read. */
export function assayProblem({ inputs }: ComputedStage, read: "absorbance" | "trace"): MethodProblem | null {
  if (inputs.some(({ is }) => is === "titer")) return problemOf("nothing-titrated", {}, "inputs");
  if (inputs.filter(({ is }) => is === read).length === 1) return null;
  return problemOf(read === "trace" ? "course-missing" : "absorbance-missing", {}, "inputs");
}
