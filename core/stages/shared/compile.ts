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
import { type ComputedStage, inputOf, type Method, resultsOf, type TitrationStage } from "../../method";
import type { CompiledLine } from "../compiled";

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
export function parseLines(source: ComputedStage["relations"]): Result<CompiledLine[]> {
  const lines: CompiledLine[] = [];
  for (const { relation, title, unit } of source) {
    const parsed = parseRelation(relation);
    if (!parsed.ok) {
      const { message, position, hint } = parsed.problem;
      return failure(`In "${relation}": ${message}`, position, hint);
    }
    if (!isUnit(unit)) return failure(`In "${relation}": "${unit}" is no unit known here`);
    lines.push({ ...parsed.value, title, unit });
  }
  return success(lines);
}

/** What keeps the plausibility of a stage's results from being judged, in words. */
export function plausibilityProblem(
  method: Method,
  stage: ComputedStage,
  dimensions: ReadonlyMap<string, Dimension>,
  stoichiometry: LooseStoichiometry,
): Problem | null {
  for (const rule of stage.plausible ?? []) {
    const own = dimensions.get(rule.symbol);
    if (!own)
      return { message: `${rule.symbol}, whose plausibility is judged, is neither read nor computed` };
    if (rule.rule === "between") {
      if (!isUnit(rule.unit) || !sameDimension(unitOf(rule.unit).dimension, own))
        return {
          message: `${rule.symbol} is ${describeDimension(own)} and cannot be held against ${rule.unit}`,
        };
      if (rule.from === undefined && rule.to === undefined)
        return { message: `${rule.symbol} is to lie between two values, and neither is there` };
    }
    if (rule.rule === "at most all") {
      const all = parseExpression(rule.all ?? "1");
      if (!all.ok) return { message: `In "${rule.all ?? ""}": ${all.problem.message}` };
      const missing = missingStoichiometry(all.value, stoichiometry);
      if (missing) return missing;
      const most = dimensionOf(all.value, new Map());
      if (!most.ok) return { message: `In "${rule.all ?? ""}": ${most.problem.message}` };
      if (!sameDimension(most.value, own))
        return {
          message: `${rule.symbol} is ${describeDimension(own)}, but all of it ${describeDimension(most.value)}`,
        };
    }
    if (rule.rule === "not above" || rule.rule === "not below") {
      const there =
        rule.stage === undefined
          ? dimensions.has(rule.other)
          : method.stages.some(
              (s) => s.key === rule.stage && resultsOf(s).some(({ symbol }) => symbol === rule.other),
            );
      if (!there) return { message: `${rule.symbol} is part of ${rule.other}, which is not found` };
    }
  }
  const withheld = (stage.also ?? []).find(({ when }) => when && !inputOf(stage, when.symbol));
  return withheld
    ? {
        message: `${withheld.symbol} is told by ${withheld.when?.symbol ?? ""}, which is not read in this stage`,
      }
    : null;
}

export function acceptanceProblem(
  stage: Pick<TitrationStage, "accept" | "result" | "inputs">,
  dimensions: ReadonlyMap<string, Dimension>,
): Problem | null {
  const { accept, result } = stage;
  if (!accept) return null;
  const [known, found] = [dimensions.get(accept.symbol), dimensions.get(result.symbol)];
  if (!known || !stage.inputs.some(({ symbol }) => symbol === accept.symbol)) {
    return { message: `The result is to be held against ${accept.symbol}, which is not read in this stage` };
  }
  if (found && !sameDimension(known, found)) {
    return {
      message: `${accept.symbol} is ${describeDimension(known)} and the result ${describeDimension(found)}`,
    };
  }
  return null;
}

/** Ratios and equivalents, or why there are none. */
export interface LooseStoichiometry {
  readonly ratio: (of: string, per: string) => Result<[number, number]>;
  readonly equivalents: (of: string) => Result<number>;
}

export function missingStoichiometry(expression: Expression, known: LooseStoichiometry): Problem | null {
  for (const leaf of leavesOf(expression)) {
    const told =
      leaf.type === "ratio"
        ? known.ratio(leaf.of, leaf.per)
        : leaf.type === "equivalents"
          ? known.equivalents(leaf.of)
          : null;
    if (told && !told.ok)
      return leaf.at === undefined ? told.problem : { ...told.problem, position: leaf.at };
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
    if (known.size >= mostRatios) return failure(`The relations ask for more than ${mostRatios} ratios`);
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
export const checkedStoichiometry = (told: LooseStoichiometry): Stoichiometry => ({
  ratio: (of, per) => mustHold(told.ratio(of, per)),
  equivalents: (of) => mustHold(told.equivalents(of)),
});

/** A stage that is not read on a photometer has nothing that is. */
export function photometerProblem({ inputs }: ComputedStage): Problem | null {
  const odd = inputs.find(isPhotometric);
  return odd ? { message: `${odd.symbol} is read on a photometer, which this stage has not` } : null;
}

/** A stage that is read on a photometer titrates nothing; its flasks need one input of the kind that is read. */
export function assayProblem({ inputs }: ComputedStage, read: "absorbance" | "trace"): Problem | null {
  if (inputs.some(({ is }) => is === "titer")) return { message: "Nothing is titrated in this stage" };
  if (inputs.filter(({ is }) => is === read).length === 1) return null;
  return {
    message:
      read === "trace"
        ? "A rate needs one course of absorbance"
        : "Each flask needs one absorbance to be read",
  };
}
