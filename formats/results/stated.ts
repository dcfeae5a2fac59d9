import "~/core/stages/engines";
import { evaluateRun, resultsIn } from "~/core/evaluate";
import type { RunRecord } from "~/core/run";
import { inEnglish, msg, type Phrase } from "~/core/text";
import { fileOfRecord, type RunFile } from "../concluded";
import type { StatedResult } from "./schema";

/** All results of a run with their standard uncertainties, unrounded, stage by stage: the main one of each first, then the further ones. */
export const resultsOf = (record: RunRecord): StatedResult[] =>
  resultsIn(evaluateRun(record)).map(({ stageKey, definition, value, u, shown }) => ({
    ...{ stage: stageKey, symbol: definition.symbol, unit: definition.unit, value },
    standardUncertainty: u,
    shown: inEnglish(shown),
  }));

/** A run as it leaves the lab: with the results that it has here. What is signed, and what the report tells the checksum of, is this. */
export const fileWithResults = (record: RunRecord): RunFile => ({
  ...fileOfRecord(record),
  results: resultsOf(record),
});

/** A result of which a file says something else than what its readings give. */
export interface Difference {
  readonly stage: string;
  readonly symbol: string;
  /** What the file says; null where it says nothing of it. */
  readonly stated: string | null;
  /** What the readings give; null where they give nothing. */
  readonly computed: string | null;
}

/** Two machines that compute the same differ in the last digits of a double. */
const [sameValue, sameUncertainty] = [1e-9, 1e-6];

const near = (a: number, b: number, by: number) => Math.abs(a - b) <= by * Math.max(Math.abs(a), Math.abs(b));

/** Where what a file states of its results is not what its readings give; nothing where it states none. */
export function differencesOf(record: RunRecord, stated: readonly StatedResult[] | undefined): Difference[] {
  if (stated === undefined) return [];
  const computed = resultsOf(record);
  const same = (a: StatedResult) => (b: StatedResult) => a.stage === b.stage && a.symbol === b.symbol;
  return [
    ...stated.flatMap((one) => {
      const here = computed.find(same(one));
      const agrees =
        here?.unit === one.unit &&
        near(here.value, one.value, sameValue) &&
        near(here.standardUncertainty, one.standardUncertainty, sameUncertainty);
      const { stage, symbol, shown } = one;
      return agrees ? [] : [{ stage, symbol, stated: shown, computed: here?.shown ?? null }];
    }),
    ...computed
      .filter((one) => !stated.some(same(one)))
      .map(({ stage, symbol, shown }) => ({ stage, symbol, stated: null, computed: shown })),
  ];
}

/** A difference in words, with the title of the stage that it is of. */
export function differenceWords(
  { stage, symbol, stated, computed }: Difference,
  { method }: RunRecord,
): Phrase {
  const title = method.stages.find(({ key }) => key === stage)?.title ?? stage;
  if (stated === null)
    return msg`${symbol} of stage “${title}”: the file states nothing, its readings give ${computed ?? ""}`;
  return computed === null
    ? msg`${symbol} of stage “${title}”: the file states ${stated}, its readings give nothing`
    : msg`${symbol} of stage “${title}”: the file states ${stated}, its readings give ${computed}`;
}
