import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { lazy, Suspense } from "react";
import { Link } from "react-router";
import type { PreparationStage } from "~/core/method";
import {
  type AimView,
  type Shown,
  type FurtherResult,
  type Bead,
  beadAfter,
  plusMinusWords,
  type PreparationEvaluation,
  type RunEvaluation,
} from "~/core/stages";
import { knownOf, type RunRecord } from "~/core/run";
import { capitalized, msg } from "~/core/text";
import { numbersOut, sentence, together } from "../../../ui/number-text";
import { cursorTarget, useCursorOn } from "../../../entry/cursor";
import { useRunInHand } from "../../../entry/run-context";
import { colors, fonts } from "../../../theme/theme";
import { Sheet } from "../../../ui/sheet";
import { Accepted, Footing, Implausible } from "../shared/footing";
import { KnownHere } from "../shared/known-here";
import { CautionPanel } from "../shared/caution-panel";
import { ShelveButton } from "../shared/shelve";
import { StageReadings } from "../shared/stage-readings";
import { useSay } from "../../../words/text";

const SpectraPanel = lazy(() =>
  import("../photometer/spectra-panel").then((m) => ({ default: m.SpectraPanel })),
);

interface PreparationStageProps {
  stage: PreparationEvaluation;
  evaluation: RunEvaluation;
}

/** Something made once: what is weighed and taken for it, and the concentration that follows. */
export function PreparationStageView({ stage, evaluation }: PreparationStageProps) {
  const say = useSay();
  const { record } = useRunInHand();
  const { shown, also, problem, definition } = stage;
  const next = beadAfter(evaluation, stage.key);
  useCursorOn(
    stage.stageFields.map(({ present }) => present?.id),
    stage.done,
  );
  return (
    <Box
      sx={{
        display: "grid",
        gap: 2,
        mt: 2,
        alignItems: "start",
        gridTemplateColumns: { xs: "minmax(0,1fr)", md: "minmax(0,1fr) 336px" },
      }}
    >
      <Sheet
        component="section"
        aria-label={definition.title}
        sx={{ display: "grid", gap: 2, gridColumn: { md: 1 } }}
      >
        <Typography variant="h2">{definition.title}</Typography>
        <KnownHere stage={stage} />
        {stage.aim && <Aim aim={stage.aim} />}
        <StageReadings stage={stage} evaluation={evaluation} single />
        {problem && <Alert severity="error">{together(sentence(say(problem)))}</Alert>}
        {stage.cautions.map(({ message }) => (
          <Alert key={say(message)} severity="warning">
            {together(say(message))}.
          </Alert>
        ))}
        <PreparedResult definition={definition} stage={stage} shown={shown} record={record} also={also} />
        <Afterwards stage={stage} next={next} shown={shown} record={record} />
      </Sheet>
      <Box sx={{ gridColumn: { md: 2 }, gridRow: { md: "1 / span 2" } }}>
        {!knownOf(record, stage.key) && <CautionPanel definition={definition} />}
      </Box>
      {definition.spectra && (
        <Suspense fallback={<Box sx={{ minHeight: 300 }} />}>
          <SpectraPanel stage={stage} record={record.stages.find((s) => s.key === stage.key)} />
        </Suspense>
      )}
    </Box>
  );
}

/** What to take so that it comes to its target, and what that made. */
function Aim({ aim: { text, state } }: { readonly aim: AimView }) {
  const say = useSay();
  const wrong = state === "problem";
  return (
    <Box
      role="status"
      data-testid="aim"
      sx={{
        bgcolor: wrong ? colors.amberPale : state === "take" ? colors.pinkPale : colors.tealWash,
        color: wrong ? colors.amberDeep : colors.ink,
        borderRadius: "10px",
        px: 1.75,
        py: 1.25,
        fontSize: "1.05rem",
        fontWeight: wrong ? 700 : 400,
      }}
    >
      {numbersOut(say(wrong ? msg`${capitalized(text)}.` : text))}
    </Box>
  );
}

interface PreparedResultProps {
  readonly definition: PreparationStage;
  readonly stage: PreparationEvaluation;
  readonly shown: Shown | null;
  readonly record: RunRecord;
  readonly also: readonly FurtherResult[];
}

function PreparedResult({ definition, stage, shown, record, also }: PreparedResultProps) {
  const say = useSay();
  return (
    <Box aria-live="polite">
      <Typography color="textSecondary">{definition.result.name}</Typography>
      <Box data-testid={`result-${stage.key}`} sx={{ fontFamily: fonts.reading, fontSize: "1.9rem" }}>
        {say(shown?.text ?? "–")}
      </Box>
      {shown && shown.plusMinus !== "0" && (
        <Typography variant="body2" color="textSecondary">
          {say`± is ${plusMinusWords[record.houseRules.plusMinus]}.`}
        </Typography>
      )}
      <Footing stage={stage} />
      <Accepted stage={stage} />
      <Implausible stage={stage} />
      {also.map(({ definition: { symbol, name }, shown: other }) => (
        <Typography key={symbol}>
          {say(name)}: <span style={{ fontFamily: fonts.reading }}>{say(other.text)}</span>
        </Typography>
      ))}
    </Box>
  );
}

interface AfterwardsProps {
  readonly stage: PreparationEvaluation;
  readonly next: Bead | undefined;
  readonly shown: Shown | null;
  readonly record: RunRecord;
}

/** What to do with what was made. */
function Afterwards({ stage, next, shown, record }: AfterwardsProps) {
  const say = useSay();
  return (
    <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap" }}>
      {stage.done && next && (
        <Button component={Link} to={`?stage=${next.key}`} variant="contained" size="large" {...cursorTarget}>
          {say`Go on: ${next.title}`}
        </Button>
      )}
      {shown && (
        <Button component={Link} to={`working?stage=${stage.key}`} relative="path" variant="outlined">
          {say`Show the working`}
        </Button>
      )}
      <ShelveButton stage={stage} record={record} />
    </Box>
  );
}
