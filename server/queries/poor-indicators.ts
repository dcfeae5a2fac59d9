import { known } from "../../catalog/constants/known";
import { endOfStage, ratedIndicators, verdictOnIndicator } from "../../core/plan";
import { dropsPerMl } from "../../core/rules";
import { methodOf, type RunRecord } from "../../core/run";
import { compiledMethod } from "../../core/stages";
import type { Phrase } from "../../core/text";

/**
 * Stages of a run whose indicator shows the end elsewhere than theory has it, with what to say of it, by their key. Computed here, since it
 * depends on the method and not on what is read: the screen at the bench needs no theory for it.
 */
export function poorIndicators(record: RunRecord): Readonly<Record<string, Phrase>> {
  const method = methodOf(record);
  const dropMl = 1 / Number(dropsPerMl(record.houseRules));
  const found = method.stages.flatMap((stage): (readonly [string, Phrase])[] => {
    if (stage.kind !== "titration" || stage.ribbon.length === 0) return [];
    const theory = endOfStage(compiledMethod(method), stage.key, known);
    const verdict = theory && verdictOnIndicator(ratedIndicators(theory, dropMl), stage.indicator);
    return verdict?.poor ? [[stage.key, verdict.text]] : [];
  });
  return Object.fromEntries(found);
}
