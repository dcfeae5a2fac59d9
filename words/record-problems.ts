import type { RecordProblem } from "~/core/evaluate";
import { methodProblemWords } from "./method-problems";

type Facts = RecordProblem["facts"];
type Words = Readonly<Record<Exclude<RecordProblem["code"], "method">, (facts: Facts) => string>>;

/** What each problem of a record says; where it is stands in its path. */
const words: Words = {
  "observation-twice": ({ id }) => `Two observations are called ${id}`,
  "field-missing": ({ kind, symbol }) => `Nothing is read here as ${kind} of ${symbol}`,
  "superseded-missing": ({ id }) => `No earlier observation is called ${id}`,
  "other-unit": ({ is, unit }) => `It is read in ${is}, not in ${unit}`,
  "text-means-other": ({ text, value }) => `The text "${text}" does not mean ${value}`,
  "reading-refused": ({ said }) => String(said),
  "absorbances-missing": ({ points, absorbances }) =>
    `There are ${points} points but ${absorbances} absorbances`,
  "points-fall": ({ x, before }) => `${x} does not lie beyond ${before}`,
  "trial-missing": ({ id }) => `No trial of this stage is called ${id}`,
  "stage-missing": ({ key }) => `The method has no stage "${key}"`,
  "stage-twice": ({ key }) => `Stage "${key}" is there twice`,
};

/** What is wrong with a record, in a sentence. */
export const recordProblemWords = ({ code, facts, method }: RecordProblem): string =>
  code === "method"
    ? method
      ? methodProblemWords(method)
      : "The method does not pass the check"
    : words[code](facts);
