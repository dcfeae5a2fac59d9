import type { MethodProblem, MethodProblemCode, MethodProblemFacts } from "~/core/stages";
import { type Problem, problemText } from "~/core/result";

type Words = { readonly [C in MethodProblemCode]: (facts: Readonly<MethodProblemFacts[C]>) => string };

const inSource = (source: string | null, words: string) =>
  source === null ? words : `In "${source}": ${words}`;

/** What each problem of a method says, without the stage that it is in. */
const words: Words = {
  "equation-unreadable": ({ source, said }) => `Equation "${source}": ${said.message}`,
  "equation-unbalanced": ({ source, imbalances }) => `"${source}" does not balance: ${imbalances}`,
  "stage-key-twice": ({ key }) => `another stage has the key "${key}"`,
  "stage-key-reserved": ({ key }) => `it needs another key: "${key}" is the end of every run`,
  "stage-before-its-source": () => "it builds on a stage that does not come before it",
  "symbol-reserved": ({ symbol }) => `${symbol} cannot be a symbol`,
  "symbol-twice": ({ symbol }) => `${symbol} is read twice`,
  "unit-unknown": ({ symbol, unit }) => `"${unit}", the unit of ${symbol}, is not known`,
  "input-wrong": ({ said }) => said.message,
  "earlier-result-unknown": ({ symbol, title, known }) =>
    `Stage "${title}" yields ${known.join(", ")}, not ${symbol}`,
  "trial-in-preparation": ({ symbol }) => `${symbol} is read for each trial, but a preparation has none`,
  "photometer-missing": ({ symbol }) => `${symbol} is read on a photometer, which this stage has not`,
  "nothing-titrated": () => "Nothing is titrated in this stage",
  "absorbance-missing": () => "Each flask needs one absorbance to be read",
  "course-missing": () => "A rate needs one course of absorbance",
  "series-once": ({ symbol }) => `${symbol}, which makes the series, is not read for each flask`,
  "series-no-number": ({ value }) => `"${value}" in the series is no number`,
  "axis-not-computed": ({ symbol }) => `${symbol}, the amount in a standard, is never computed`,
  "line-missing": ({ symbol, stage }) => `${symbol} is to be read off a line, but "${stage}" makes none`,
  "read-off-no-absorbance": ({ symbol, reading }) =>
    `${reading}, by which ${symbol} is read off, is no absorbance`,
  "nothing-read-off": () => "An unknown needs an amount that is read off a line",
  "titer-missing": () => "A titration stage needs an input that is the titer",
  "titer-twice": () => "A titration stage has one titer; another burette's volume is a delivered one",
  "relation-unreadable": ({ source, said }) => `In "${source}": ${said.message}`,
  "relation-unit-unknown": ({ source, unit }) => `In "${source}": "${unit}" is no unit known here`,
  "relations-disagree": ({ said }) => said.message,
  "result-not-computed": ({ symbol }) => `The result ${symbol} is never computed`,
  "not-in-unit": ({ source, symbol, dimension, unit }) =>
    inSource(source, `${symbol} is ${dimension} and cannot be shown in ${unit}`),
  "ratio-missing": ({ source, said }) => inSource(source, said.message),
  "plausible-unknown": ({ symbol }) =>
    `${symbol}, whose plausibility is judged, is neither read nor computed`,
  "plausible-unit": ({ symbol, dimension, unit }) =>
    `${symbol} is ${dimension} and cannot be held against ${unit}`,
  "plausible-open": ({ symbol }) => `${symbol} is to lie between two values, and neither is there`,
  "plausible-dimension": ({ symbol, dimension, all }) => `${symbol} is ${dimension}, but all of it ${all}`,
  "plausible-other-missing": ({ symbol, other }) => `${symbol} is part of ${other}, which is not found`,
  "withheld-unread": ({ symbol, by }) => `${symbol} is told by ${by}, which is not read in this stage`,
  "compared-per-unread": ({ per }) => `"${per}" is not read in this stage`,
  "compared-no-titer": ({ on, per }) =>
    `What must agree, ${on}, is no titer and no titer per ${per ?? "amount"}`,
  "accept-unread": ({ symbol }) =>
    `The result is to be held against ${symbol}, which is not read in this stage`,
  "accept-dimension": ({ symbol, dimension, result }) => `${symbol} is ${dimension} and the result ${result}`,
};

/** What a parser found, where the problem rests on it: with its place in the text, and how to mend it. */
const saidIn = ({ facts }: MethodProblem): Partial<Problem> => ("said" in facts ? facts.said : {});

/** A problem of a method in a sentence or two, as it is said beside its stage. */
export function problemInStage(problem: MethodProblem): string {
  const say = words[problem.code] as (facts: MethodProblem["facts"]) => string;
  return problemText({ ...saidIn(problem), message: say(problem.facts) });
}

/** The same with the stage that it is in. */
export const methodProblemWords = (problem: MethodProblem): string =>
  problem.stage === null ? problemInStage(problem) : `Stage "${problem.stage}": ${problemInStage(problem)}`;
