import type { CompiledMethod, StagePlan } from "../../stages";
import { planMethod } from "../plan-method";
import { byAcid } from "./by-acid";
import { byMetal } from "./by-metal";
import { byPotential } from "./by-potential";
import type { Known } from "./known";
import { type PlannedTitration, plannedTitration } from "./planned-titration";
import type { EndTheory } from "./theory";

export { acidEnd, type AcidTitration } from "./by-acid";
export * from "./known";
export * from "./on-curve";
export * from "./ribbon";
export * from "./theory";

/* Which indicator shows the end of a planned titration, by the curve that the constants give. */

/** Each kind of chemistry says whether it knows the titration. */
const chemistries: readonly ((planned: PlannedTitration, known: Known) => EndTheory | null)[] = [
  byAcid,
  byMetal,
  byPotential,
];

/** The titration of a stage by theory, as it is planned; null where the plan or the constants do not tell it. */
export function plannedEnd(
  compiled: CompiledMethod,
  plan: StagePlan,
  plans: readonly StagePlan[],
  known: Known,
): EndTheory | null {
  const planned = plannedTitration(compiled, plan, plans, known);
  if (!planned) return null;
  for (const chemistry of chemistries) {
    const end = chemistry(planned, known);
    if (end) return end;
  }
  return null;
}

/** The titration of a stage by theory, for the amounts that its method is laid out for; null where none tells it. */
export function endOfStage(compiled: CompiledMethod, stageKey: string, known: Known): EndTheory | null {
  const plans = planMethod(compiled, { benches: 1, trials: 1, marginPercent: 0, buretteMl: 50, stages: {} });
  const plan = plans.find(({ key }) => key === stageKey);
  return plan ? plannedEnd(compiled, plan, plans, known) : null;
}
