import { waysToMeasure } from "~/core/inputs";
import { knownOf, type RunRecord } from "~/core/run";

/** What a stage measures in a way that can be another one in this run. */
export function measuredIn(record: RunRecord, stageKey: string) {
  const { method, houseRules } = record;
  if (knownOf(record, stageKey)) return [];
  const { inputs = [] } = method.stages.find(({ key }) => key === stageKey) ?? {};
  return inputs.flatMap((own) => {
    const ways = waysToMeasure(own, houseRules.glassware.toleranceClass);
    return ways.length > 1 ? [{ own, ways }] : [];
  });
}
