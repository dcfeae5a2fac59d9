import type { MethodProblem, MethodProblemCode, MethodProblemFacts } from "~/core/stages";
import { type Problem, problemText } from "~/core/result";
import { msg, type Phrase } from "~/core/text";

type Words = { readonly [C in MethodProblemCode]: (facts: Readonly<MethodProblemFacts[C]>) => Phrase };

const inSource = (source: string | null, words: Phrase) =>
  source === null ? words : msg`In "${source}": ${words}`;

/** What each problem of a method says, without the stage that it is in. */
const words: Words = {
  "equation-unreadable": ({ source, detail }) => msg`Equation "${source}": ${detail.message}`,
  "equation-unbalanced": ({ source, imbalances }) => msg`"${source}" does not balance: ${imbalances}`,
  "stage-key-twice": ({ key }) => msg`another stage has the key "${key}"`,
  "stage-key-reserved": ({ key }) => msg`it needs another key: "${key}" is the end of every run`,
  "stage-before-its-source": () => msg`it builds on a stage that does not come before it`,
  "symbol-reserved": ({ symbol }) => msg`${symbol} cannot be a symbol`,
  "symbol-twice": ({ symbol }) => msg`${symbol} is read twice`,
  "unit-unknown": ({ symbol, unit }) => msg`"${unit}", the unit of ${symbol}, is not known`,
  "input-wrong": ({ detail }) => detail.message,
  "earlier-result-unknown": ({ symbol, title, known }) =>
    msg`Stage "${title}" yields ${known.join(", ")}, not ${symbol}`,
  "trial-in-preparation": ({ symbol }) => msg`${symbol} is read for each trial, but a preparation has none`,
  "photometer-missing": ({ symbol }) => msg`${symbol} is read on a photometer, which this stage has not`,
  "nothing-titrated": () => msg`Nothing is titrated in this stage`,
  "absorbance-missing": () => msg`Each flask needs one absorbance to be read`,
  "course-missing": () => msg`A rate needs one kinetic run of absorbance`,
  "curve-missing": () => msg`A curve stage needs one titration curve to be read`,
  "curve-misplaced": ({ symbol }) => msg`${symbol} is a titration curve: it needs a stage of its own kind`,
  "curve-titrant-unread": ({ symbol }) =>
    msg`${symbol}, the concentration of the titrant, is not read or taken over here`,
  "curve-endless": () => msg`Say how far the curve is taken, in what the meter shows`,
  "isotherm-unread": ({ symbol }) =>
    msg`${symbol} of an isotherm is neither taken over from a stage before nor calculated`,
  "series-once": ({ symbol }) => msg`${symbol}, which defines the series, is not read for each flask`,
  "series-no-number": ({ value }) => msg`"${value}" in the series is not a number`,
  "axis-not-computed": ({ symbol }) => msg`${symbol}, the amount in a standard, is never calculated`,
  "line-missing": ({ symbol, stage }) => msg`${symbol} is to be read off a line, but "${stage}" has none`,
  "read-off-no-absorbance": ({ symbol, reading }) =>
    msg`${reading}, by which ${symbol} is read off, is not an absorbance`,
  "nothing-read-off": () => msg`An unknown needs an amount that is read off a line`,
  "titer-missing": () => msg`A titration stage needs an input that is the titer`,
  "titer-twice": () => msg`A titration stage has one titer; another burette's volume is a delivered one`,
  "relation-unreadable": ({ source, detail }) => msg`In "${source}": ${detail.message}`,
  "relation-unit-unknown": ({ source, unit }) => msg`In "${source}": "${unit}" is not a known unit`,
  "relations-disagree": ({ detail }) => detail.message,
  "result-not-computed": ({ symbol }) => msg`The result ${symbol} is never calculated`,
  "not-in-unit": ({ source, symbol, dimension, unit }) =>
    inSource(source, msg`${symbol} is ${dimension} and cannot be shown in ${unit}`),
  "ratio-missing": ({ source, detail }) => inSource(source, detail.message),
  "plausible-unknown": ({ symbol }) =>
    msg`${symbol}, whose plausibility is checked, is neither read nor calculated`,
  "plausible-unit": ({ symbol, dimension, unit }) =>
    msg`${symbol} is ${dimension} and cannot be held against ${unit}`,
  "plausible-open": ({ symbol }) => msg`${symbol} is to lie between two values, and neither is given`,
  "plausible-dimension": ({ symbol, dimension, all }) => msg`${symbol} is ${dimension}, but all of it ${all}`,
  "plausible-other-missing": ({ symbol, other }) => msg`${symbol} is part of ${other}, which is not found`,
  "withheld-unread": ({ symbol, by }) => msg`${symbol} depends on ${by}, which is not read in this stage`,
  "compared-per-unread": ({ per }) => msg`"${per}" is not read in this stage`,
  "compared-no-titer": ({ on, per }) =>
    msg`What must agree, ${on}, is no titer and no titer per ${per ?? msg`amount`}`,
  "step-takes-unread": ({ symbol }) =>
    msg`A step or a reagent takes ${symbol}, which is not read in this stage`,
  "accept-unread": ({ symbol }) =>
    msg`The result is to be compared with ${symbol}, which is not read in this stage`,
  "accept-dimension": ({ symbol, dimension, result }) =>
    msg`${symbol} is ${dimension} and the result ${result}`,
};

/** What a parser found, where the problem rests on it: with its place in the text, and how to mend it. */
const detailIn = ({ facts }: MethodProblem): Partial<Problem> => ("detail" in facts ? facts.detail : {});

/** A problem of a method in a sentence or two, as it is said beside its stage. */
export function problemInStage(problem: MethodProblem): Phrase {
  const say = words[problem.code] as (facts: MethodProblem["facts"]) => Phrase;
  return problemText({ ...detailIn(problem), message: say(problem.facts) });
}

/** The same with the stage that it is in. */
export const methodProblemWords = (problem: MethodProblem): Phrase =>
  problem.stage === null
    ? problemInStage(problem)
    : msg`Stage "${problem.stage}": ${problemInStage(problem)}`;
