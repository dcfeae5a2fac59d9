import { waysToMeasure } from "~/core/inputs";
import type { RunRecord } from "~/core/run";

/** What a stage measures in a way that can be another one in this run. */
export function measuredIn({ method, houseRules }: RunRecord, stageKey: string) {
  const { inputs = [] } = method.stages.find(({ key }) => key === stageKey) ?? {};
  return inputs.flatMap((own) => {
    const ways = waysToMeasure(own, houseRules.glassware.toleranceClass);
    return ways.length > 1 ? [{ own, ways }] : [];
  });
}
