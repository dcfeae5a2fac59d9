import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import type { massForSolution } from "~/core/prepare";
import { fonts } from "../../theme/theme";
import { type evaluateMaking, Made, Mind, mindOf, Step } from "./parts";
import { useSay } from "../../words/text";

interface WeighPlanProps {
  plan: ReturnType<typeof massForSolution>;
  formula: string;
  evaluated: ReturnType<typeof evaluateMaking>;
  target: number | null;
}

/** What to weigh for the solution that is wanted, what to mind, and what came of it. */
export function WeighPlan({ plan, formula, evaluated, target }: WeighPlanProps) {
  const say = useSay();
  return (
    <Step title={say`Plan`}>
      {plan.ok ? (
        <>
          <Typography variant="h3">{say`Weigh about`}</Typography>
          <Box
            data-testid="plan-mass"
            sx={{ fontFamily: fonts.reading, fontSize: "1.9rem", lineHeight: 1.2 }}
          >
            {plan.value.grams.toPrecision(4)} g
          </Box>
          <Typography color="textSecondary">
            {say`anything from ${plan.value.window[0].toPrecision(3)} to ${plan.value.window[1].toPrecision(3)} g works`}
          </Typography>
        </>
      ) : (
        <Typography>{say(plan.problem.message)}.</Typography>
      )}
      <Mind lines={mindOf(formula)} />
      <Box sx={{ mt: 2 }}>
        <Made evaluated={evaluated} target={target} />
      </Box>
    </Step>
  );
}
