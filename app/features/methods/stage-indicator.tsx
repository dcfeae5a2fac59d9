import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { lazy, Suspense, useMemo, useState } from "react";
import { known } from "~/catalog/constants/known";
import type { Method } from "~/core/method";
import { endOfStage, ratedIndicators, verdictOnIndicator } from "~/core/plan";
import { compiledMethod } from "~/core/stages";
import { withQuantities } from "~/formats/earlier-methods";
import { colors } from "../../theme/theme";
import { noPrint } from "../../ui/page";
import { useSay } from "../../words/text";

const WhichIndicator = lazy(() => import("./which-indicator").then((m) => ({ default: m.WhichIndicator })));

interface StageIndicatorProps {
  readonly method: Method;
  readonly stageKey: string;
  /** A drop of the burette, mL. */
  readonly dropMl: number;
}

/** What theory says of the indicator of a stage, at the amounts of the method; the curve with all indicators where somebody asks. */
export function StageIndicator({ method, stageKey, dropMl }: StageIndicatorProps) {
  const say = useSay();
  const [open, setOpen] = useState(false);
  const theory = useMemo(
    () => endOfStage(compiledMethod(withQuantities(method)), stageKey, known),
    [method, stageKey],
  );
  const stage = method.stages.find(({ key }) => key === stageKey);
  if (!theory || stage?.kind !== "titration") return null;
  const { text, poor } = verdictOnIndicator(ratedIndicators(theory, dropMl), stage.indicator);
  if (open)
    return (
      <Suspense>
        <WhichIndicator curve={theory} used={stage.indicator} dropMl={dropMl} />
      </Suspense>
    );
  return (
    <Box sx={{ mt: 0.75, ...noPrint }}>
      <Box
        component="span"
        sx={{ color: poor ? colors.brick : colors.inkSoft, fontWeight: poor ? 650 : 400, mr: 1 }}
      >
        {say(text)}
      </Box>
      <Button size="small" onClick={() => setOpen(true)} sx={{ verticalAlign: "baseline" }}>
        {say`Which indicator?`}
      </Button>
    </Box>
  );
}
