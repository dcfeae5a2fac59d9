import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useMemo, useState } from "react";
import { known } from "~/catalog/constants/known";
import { type IndicatorOnAxis, indicatorsOnAxis } from "~/core/plan";
import type { CurveEvaluation, CurveStageEvaluation, RunEvaluation } from "~/core/stages";
import { useRunInHand } from "../../../entry/run-context";
import { sentence, together } from "../../../ui/number-text";
import { useSay } from "../../../words/text";
import { StageFrame } from "../photometer/stage-frame";
import { CautionPanel } from "../shared/caution-panel";
import { StrikeDialog } from "../shared/trial-dialogs";
import { CurveBootstrap } from "./curve-bootstrap";
import { CurveChart } from "./curve-chart";
import { CurveEnds } from "./curve-ends";
import { CurveIndicators } from "./curve-indicators";
import { CurveInHand } from "./curve-in-hand";
import { CurvePoints } from "./curve-points";
import { CurveResult } from "./curve-result";
import { curveInputOf } from "./use-curve-entry";
import { type Meter, useMeter } from "./use-meter";

interface CurveStageProps {
  readonly stage: CurveStageEvaluation;
  readonly evaluation: RunEvaluation;
}

/** Titration curves: the one in hand point by point, what each tells, and the result over all. */
export function CurveStageView({ stage, evaluation }: CurveStageProps) {
  const { record, locked } = useRunInHand();
  const [asked, setAsked] = useState<string | null>(null);
  const [striking, setStriking] = useState<CurveEvaluation | null>(null);
  const [band, setBand] = useState<string | null>(null);
  const meter = useMeter(record, stage);
  const { trials, current } = stage;
  const indicators = useIndicators(stage);
  const usual = current ?? trials.at(-1) ?? null;
  const curve = asked === "new" ? null : (trials.find(({ id }) => id === asked) ?? usual);
  const inHand = curve === null || (!curve.record.struck && curve.next.do === "add");
  return (
    <>
      <StageFrame stage={stage} evaluation={evaluation} columns={[7, 5]}>
        <Box sx={{ display: "grid", gap: 2, minWidth: 0 }}>
          <CurveChoice {...{ trials, curve, setAsked }} />
          {!locked && inHand && <CurveInHand stage={stage} curve={curve} meter={meter} />}
          {curve && curve.points.length > 1 && (
            <CurveChart stage={stage} curve={curve} title={record.title} band={bandOf(indicators, band)} />
          )}
          {curve && <CurveCautions curve={curve} />}
          {curve && <CurvePoints stage={stage} curve={curve} />}
          {curve && !locked && !inHand && <MorePoints stage={stage} curve={curve} meter={meter} />}
        </Box>
        <Box sx={{ display: "grid", gap: 2, minWidth: 0 }}>
          <CurveResult stage={stage} evaluation={evaluation} />
          {curve && <CurveTold {...{ stage, curve, indicators, band, setBand }} />}
          {curve && !locked && <StrikeOrRestore curve={curve} onStrike={() => setStriking(curve)} />}
          <CautionPanel definition={stage.definition} />
        </Box>
      </StageFrame>
      {striking && <StrikeDialog trial={striking} onClose={() => setStriking(null)} />}
    </>
  );
}

const bandOf = (indicators: readonly IndicatorOnAxis[], key: string | null) =>
  indicators.find(({ indicator }) => indicator.key === key) ?? null;

/** Indicators that could show an end on the axis of this curve. */
function useIndicators({ definition }: CurveStageEvaluation): readonly IndicatorOnAxis[] {
  const { rules } = useRunInHand();
  const celsius = Number(rules.temperature.labC);
  return useMemo(() => indicatorsOnAxis(definition, known.indicators, celsius), [definition, celsius]);
}

interface CurveToldProps {
  readonly stage: CurveStageEvaluation;
  readonly curve: CurveEvaluation;
  readonly indicators: readonly IndicatorOnAxis[];
  readonly band: string | null;
  readonly setBand: (key: string | null) => void;
}

/** What a curve tells: its ends in all ways, how sure its fit is, and which indicator would have shown its last end. */
function CurveTold({ stage, curve, indicators, band, setBand }: CurveToldProps) {
  const end = curve.ends.findLast(({ taken }) => taken)?.taken;
  const { reads } = curveInputOf(stage);
  const isPH = reads === "pH";
  return (
    <>
      <CurveEnds stage={stage} curve={curve} />
      {isPH && curve.reading && <CurveBootstrap key={curve.id} curve={curve} reading={curve.reading} />}
      {(isPH || reads === "mV") && end && indicators.length > 0 && (
        <CurveIndicators
          {...{ curve, indicators, reads }}
          endMl={end.volume}
          chosen={band}
          onChoose={setBand}
        />
      )}
    </>
  );
}

/** What should be known of a curve before its numbers are used. */
function CurveCautions({ curve: { record, cautions } }: { readonly curve: CurveEvaluation }) {
  const say = useSay();
  if (record.struck) return null;
  return cautions.map(({ message }) => (
    <Alert key={say(message)} severity="warning" sx={{ py: 0 }}>
      {together(sentence(say(message)))}
    </Alert>
  ));
}

interface StrikeOrRestoreProps {
  readonly curve: CurveEvaluation;
  readonly onStrike: () => void;
}

function StrikeOrRestore({ curve, onStrike }: StrikeOrRestoreProps) {
  const say = useSay();
  const { send } = useRunInHand();
  return (
    <Button
      size="small"
      sx={{ justifySelf: "start" }}
      onClick={() => (curve.record.struck ? void send({ intent: "restore", trialId: curve.id }) : onStrike())}
    >
      {curve.record.struck ? say`Restore this curve` : say`Strike out this curve`}
    </Button>
  );
}

/** A curve that is whole can be gone on with all the same. */
function MorePoints(props: {
  readonly stage: CurveStageEvaluation;
  readonly curve: CurveEvaluation;
  readonly meter: Meter;
}) {
  const say = useSay();
  const [open, setOpen] = useState(false);
  if (props.curve.record.struck) return null;
  if (open) return <CurveInHand {...props} />;
  return (
    <Button size="small" onClick={() => setOpen(true)} sx={{ justifySelf: "start", ml: -0.5 }}>
      {say`Another point all the same`}
    </Button>
  );
}

interface CurveChoiceProps {
  readonly trials: readonly CurveEvaluation[];
  readonly curve: CurveEvaluation | null;
  readonly setAsked: (to: string | null) => void;
}

function CurveChoice({ trials, curve, setAsked }: CurveChoiceProps) {
  const say = useSay();
  const { locked } = useRunInHand();
  if (trials.length === 0) return null;
  return (
    <Box role="group" aria-label={say`Curves`} sx={{ display: "flex", gap: 1, flexWrap: "wrap" }}>
      {trials.map((t) => (
        <Button
          key={t.id}
          size="small"
          variant={curve?.id === t.id ? "contained" : "outlined"}
          aria-pressed={curve?.id === t.id}
          onClick={() => setAsked(t.id)}
          sx={{ textDecoration: t.record.struck ? "line-through" : "none" }}
        >
          {say`Curve ${t.name}`}
        </Button>
      ))}
      {!locked && (
        <Button
          size="small"
          variant={curve ? "outlined" : "contained"}
          aria-pressed={curve === null}
          onClick={() => setAsked("new")}
        >
          {say`New curve`}
        </Button>
      )}
    </Box>
  );
}
