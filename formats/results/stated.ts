import "~/core/stages/engines";
import { evaluateRun } from "~/core/evaluate";
import { type Quantity, standardUncertainty, unitOf } from "~/core/quantity";
import type { RunRecord } from "~/core/run";
import { resultQuantity, type Shown } from "~/core/stages";
import { inEnglish, msg, type Phrase } from "~/core/text";
import type { StatedResult } from "./schema";

/** All results of a run with their standard uncertainties, unrounded, stage by stage: its main result first, then the further ones. */
export function resultsOf(record: RunRecord): StatedResult[] {
  return evaluateRun(record).stages.flatMap((stage) => {
    const stated = (symbol: string, unit: string, q: Quantity, shown: Shown): StatedResult => ({
      ...{ stage: stage.key, symbol, unit },
      value: q.value / unitOf(unit).factor,
      standardUncertainty: standardUncertainty(q) / unitOf(unit).factor,
      shown: inEnglish(shown.text),
    });
    const quantity = resultQuantity(stage);
    const { result } = stage.definition;
    return [
      ...(quantity && stage.shown ? [stated(result.symbol, result.unit, quantity, stage.shown)] : []),
      ...stage.also.map(({ definition, quantity: q, shown }) =>
        stated(definition.symbol, definition.unit, q, shown),
      ),
    ];
  });
}

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

/** A difference in words. */
export const differenceWords = ({ stage, symbol, stated, computed }: Difference): Phrase =>
  stated === null
    ? msg`${symbol} of stage “${stage}”: the file states nothing, its readings give ${computed ?? ""}`
    : computed === null
      ? msg`${symbol} of stage “${stage}”: the file states ${stated}, its readings give nothing`
      : msg`${symbol} of stage “${stage}”: the file states ${stated}, its readings give ${computed}`;
