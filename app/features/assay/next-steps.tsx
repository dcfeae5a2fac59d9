import Alert from "@mui/material/Alert";
import Typography from "@mui/material/Typography";
import type { CalibrationEvaluation, RunEvaluation } from "~/core/run";
import { colors } from "../../theme/theme";
import { Sheet } from "../../ui/sheet";
import { WayOn } from "./way-on";

/** What comes next, in words, with the cautions that stand in the way and the way on. */
export function NextSteps({
  stage,
  evaluation,
  children,
}: {
  stage: CalibrationEvaluation;
  evaluation: RunEvaluation;
  children: React.ReactNode;
}) {
  return (
    <Sheet
      component="section"
      aria-label="What comes next"
      sx={{ display: "grid", gap: 1, order: { xs: 2, md: 0 } }}
    >
      <Typography
        data-testid="next-reading"
        sx={{ fontWeight: 700, fontSize: "1.05rem", color: colors.tealDeep }}
      >
        {stage.next}.
      </Typography>
      {stage.cautions.map(({ message }) => (
        <Alert key={message} severity="warning" sx={{ py: 0 }}>
          {message}.
        </Alert>
      ))}
      {stage.shown && (
        <WayOn stage={stage} evaluation={evaluation}>
          {children}
        </WayOn>
      )}
    </Sheet>
  );
}
