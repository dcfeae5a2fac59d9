import type { Problem } from "../result";
import { type Phrase } from "../text";

/** What the words of each problem of a method name, by its code. `said`: what a parser or a check of dimensions found. */
export interface MethodProblemFacts {
  "equation-unreadable": { source: string; detail: Problem };
  "equation-unbalanced": { source: string; imbalances: Phrase };
  "stage-key-twice": { key: string };
  "stage-key-reserved": { key: string };
  "stage-before-its-source": object;
  "symbol-reserved": { symbol: string };
  "symbol-twice": { symbol: string };
  "unit-unknown": { symbol: string; unit: string };
  "input-wrong": { detail: Problem };
  "earlier-result-unknown": { symbol: string; title: string; known: readonly string[] };
  "trial-in-preparation": { symbol: string };
  "photometer-missing": { symbol: string };
  "nothing-titrated": object;
  "absorbance-missing": object;
  "course-missing": object;
  "curve-missing": object;
  "curve-misplaced": { symbol: string };
  "curve-titrant-unread": { symbol: string };
  "curve-endless": object;
  "isotherm-unread": { symbol: string };
  "series-once": { symbol: string };
  "series-no-number": { value: string };
  "axis-not-computed": { symbol: string };
  "line-missing": { symbol: string; stage: string };
  "read-off-no-absorbance": { symbol: string; reading: string };
  "nothing-read-off": object;
  "titer-missing": object;
  "titer-twice": object;
  "relation-unreadable": { source: string; detail: Problem };
  "relation-unit-unknown": { source: string; unit: string };
  "relations-disagree": { detail: Problem };
  "result-not-computed": { symbol: string };
  "not-in-unit": { source: string | null; symbol: string; dimension: Phrase; unit: string };
  "ratio-missing": { source: string | null; detail: Problem };
  "plausible-unknown": { symbol: string };
  "plausible-unit": { symbol: string; dimension: Phrase; unit: string };
  "plausible-open": { symbol: string };
  "plausible-dimension": { symbol: string; dimension: Phrase; all: Phrase };
  "plausible-other-missing": { symbol: string; other: string };
  "withheld-unread": { symbol: string; by: string };
  "compared-per-unread": { per: string };
  "compared-no-titer": { on: string; per: string | null };
  "step-takes-unread": { symbol: string };
  "accept-unread": { symbol: string };
  "accept-dimension": { symbol: string; dimension: Phrase; result: Phrase };
}
export type MethodProblemCode = keyof MethodProblemFacts;

/** Something that keeps a method from holding together: a code with its facts. What it says stands in `words/`. */
export type MethodProblem = {
  readonly [C in MethodProblemCode]: {
    readonly code: C;
    /** Where: keys and indices from the method down, as ["stages", 1, "relations", 0]. */
    readonly path: readonly (string | number)[];
    /** Title of the stage that it is in; null where it is in none. */
    readonly stage: string | null;
    readonly facts: Readonly<MethodProblemFacts[C]>;
  };
}[MethodProblemCode];

/** A problem inside a stage; its path goes on from there. */
export const problemOf = <C extends MethodProblemCode>(
  code: C,
  facts: MethodProblemFacts[C],
  ...path: readonly (string | number)[]
): MethodProblem => ({ code, facts, path, stage: null }) as unknown as MethodProblem;

/** What is wrong instead of a compiled form. */
export const faulty = <C extends MethodProblemCode>(
  ...problem: Parameters<typeof problemOf<C>>
): { readonly ok: false; readonly problem: MethodProblem } => ({ ok: false, problem: problemOf(...problem) });

/** The problem of a stage as one of its method. */
export const inStageAt = (
  index: number,
  stage: string,
  { path, ...problem }: MethodProblem,
): MethodProblem => ({ ...problem, stage, path: ["stages", index, ...path] });
