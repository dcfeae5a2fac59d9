import { lazy, Suspense } from "react";
import { known } from "~/catalog/constants/known";
import { plannedEnd } from "~/core/plan";
import type { CompiledMethod, StagePlan } from "~/core/stages";

// Comes with its chart where theory tells the end of a stage.
const WhichIndicator = lazy(() => import("./which-indicator").then((m) => ({ default: m.WhichIndicator })));

interface PlannedIndicatorsProps {
  readonly compiled: CompiledMethod;
  readonly plan: StagePlan;
  readonly plans: readonly StagePlan[];
  readonly dropMl: number;
}

/** Which indicator shows the end of a planned stage; nothing where no theory tells it. */
export function PlannedIndicators({ compiled, plan, plans, dropMl }: PlannedIndicatorsProps) {
  const stage = compiled.method.stages.find(({ key }) => key === plan.key);
  const curve = plannedEnd(compiled, plan, plans, known);
  if (!curve || stage?.kind !== "titration") return null;
  return (
    <Suspense>
      <WhichIndicator curve={curve} used={stage.indicator} dropMl={dropMl} />
    </Suspense>
  );
}
