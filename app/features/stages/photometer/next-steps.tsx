import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import type { CalibrationEvaluation, RunEvaluation } from "~/core/stages";
import { sentence, together } from "../../../ui/number-text";
import { useRunInHand } from "../../../entry/run-context";
import { colors } from "../../../theme/theme";
import { Sheet } from "../../../ui/sheet";
import { Footing, Implausible } from "../shared/footing";
import { WayOn } from "./way-on";
import { useSay } from "../../../words/text";

interface NextStepsProps {
  stage: CalibrationEvaluation;
  evaluation: RunEvaluation;
  children: React.ReactNode;
}

/** What comes next, in words, with the cautions that stand in the way and the way on. */
export function NextSteps({ stage, evaluation, children }: NextStepsProps) {
  const say = useSay();
  const { locked, send } = useRunInHand();
  const takeBlank = (value: "zeroed" | "deducted") =>
    void send({ intent: "choose", stageKey: stage.key, name: "blank", value });
  return (
    <Sheet
      component="section"
      aria-label={say`What comes next`}
      sx={{ display: "grid", gap: 1, order: { xs: 2, md: 0 } }}
    >
      <Typography
        data-testid="next-reading"
        sx={{ fontWeight: 700, fontSize: "1.05rem", color: colors.tealDeep }}
      >
        {together(sentence(say(stage.next)))}
      </Typography>
      {stage.blankQuestion && !locked && <BlankQuestion takeBlank={takeBlank} />}
      {stage.deducted !== null && (
        <Typography variant="body2">
          {say`The blank, ${stage.deducted.toFixed(3)}, is subtracted from every reading.`}{" "}
          {!locked && (
            <Button size="small" onClick={() => takeBlank("zeroed")}>
              {say`Do not subtract it`}
            </Button>
          )}
        </Typography>
      )}
      <Footing stage={stage} />
      <Implausible stage={stage} />
      {stage.cautions
        .filter(
          ({ kind, message }) => kind !== "impossible" && say(message) !== say(stage.blankQuestion ?? ""),
        )
        .map(({ message }) => (
          <Alert key={say(message)} severity="warning" sx={{ py: 0 }}>
            {together(sentence(say(message)))}
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

function BlankQuestion({ takeBlank }: { readonly takeBlank: (value: "zeroed" | "deducted") => undefined }) {
  const say = useSay();
  return (
    <Box
      role="group"
      aria-label={say`The blank is not zero`}
      sx={{ display: "flex", gap: 1, flexWrap: "wrap" }}
    >
      <Button variant="contained" size="small" onClick={() => takeBlank("deducted")}>
        {say`Subtract the blank`}
      </Button>
      <Button variant="outlined" size="small" onClick={() => takeBlank("zeroed")}>
        {say`Readings were taken against the blank`}
      </Button>
    </Box>
  );
}
