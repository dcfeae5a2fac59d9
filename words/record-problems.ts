import type { RecordProblem } from "~/core/evaluate";
import { methodProblemWords } from "./method-problems";
import { msg, type Phrase } from "~/core/text";

type Facts = RecordProblem["facts"];
type Words = Readonly<Record<Exclude<RecordProblem["code"], "method">, (facts: Facts) => Phrase>>;

/** What each problem of a record says; where it is stands in its path. */
const words: Words = {
  "observation-twice": ({ id = "" }) => msg`Two observations are called ${id}`,
  "field-missing": ({ kind = "", symbol = "" }) => msg`No ${kind} of ${symbol} is read here`,
  "superseded-missing": ({ id = "" }) => msg`No earlier observation is called ${id}`,
  "other-unit": ({ is = "", unit = "" }) => msg`It is read in ${is}, not in ${unit}`,
  "text-means-other": ({ text = "", value = "" }) => msg`The text "${text}" does not mean ${value}`,
  "reading-refused": ({ detail = "" }) => String(detail),
  "absorbances-missing": ({ points = "", absorbances = "" }) =>
    msg`There are ${points} points but ${absorbances} absorbances`,
  "points-fall": ({ x = "", before = "" }) => msg`${x} does not lie beyond ${before}`,
  "trial-missing": ({ id = "" }) => msg`No trial of this stage is called ${id}`,
  "stage-missing": ({ key = "" }) => msg`The method has no stage "${key}"`,
  "stage-twice": ({ key = "" }) => msg`Stage "${key}" is there twice`,
};

/** What is wrong with a record, in a sentence. */
export const recordProblemWords = ({ code, facts, method }: RecordProblem): Phrase =>
  code === "method"
    ? method
      ? methodProblemWords(method)
      : msg`The method does not pass the check`
    : words[code](facts);
