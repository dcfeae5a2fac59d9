import "~/core/stages/engines";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { Link } from "react-router";
import { type Working, standsOn, workingOf } from "~/core/working";
import type { RunEvaluation, ComputedEvaluation } from "~/core/stages";
import { evaluateRun } from "~/core/evaluate";
import type { RunRecord } from "~/core/run";
import { pageMargins } from "../../ui/page";
import { colors, fonts } from "../../theme/theme";
import { Sheet } from "../../ui/sheet";
import { DrawsPanel } from "./draws-panel";
import { LargeBoard } from "./large-board";
import { Shares } from "./shares";
import { Step } from "./step";
import { Footing, Implausible } from "../stages/shared/footing";
import { useSay } from "../../words/text";

interface WorkingPageProps {
  record: RunRecord;
  stageKey: string | null;
  trialId: string | null;
}

/** How a result was calculated, as a teacher would write it on the board, with the shares of its ± beside it. */
export function WorkingPage({ record, stageKey, trialId }: WorkingPageProps) {
  const say = useSay();
  const evaluation = evaluateRun(record);
  const [large, setLarge] = useState(false);
  const stages = evaluation.stages;
  // From the end of a run, which is no stage, the working of its last result is meant.
  const asked = stages.find((s) => s.key === stageKey);
  const of = (asked ?? stages.findLast((s) => s.shown) ?? stages[0])?.key ?? "";
  const working = workingOf(record, evaluation, of, trialId);
  const back = `/runs/${record.id}?stage=${of}`;
  const here = (stage: string, trial?: string) =>
    `/runs/${record.id}/working?stage=${stage}${trial === undefined ? "" : `&trial=${trial}`}`;

  return (
    <Box component="main" sx={pageMargins}>
      <WorkingHead record={record} working={working} back={back} onLarge={() => setLarge(true)} />
      {working && large && (
        <LargeBoard title={record.title} steps={working.steps} onClose={() => setLarge(false)} />
      )}
      {!working ? (
        <Sheet sx={{ p: 4 }}>
          <Typography variant="h2">{say`There is no complete trial yet`}</Typography>
          <Typography color="textSecondary">{say`The working appears with the first end point.`}</Typography>
        </Sheet>
      ) : (
        <Box
          sx={{
            display: "grid",
            gap: 2,
            alignItems: "start",
            gridTemplateColumns: { xs: "minmax(0,1fr)", md: "minmax(0,1fr) 350px" },
          }}
        >
          <Sheet component="section" aria-label={say`The board`} sx={{ p: { xs: 2, sm: 3 } }}>
            <Picks stages={stages} here={here} of={of} working={working} />
            <Box component="ol" sx={{ listStyle: "none", m: 0, p: 0, display: "grid", gap: 2.75 }}>
              {working.steps.map((step, i) => (
                <Step
                  key={`${working.trial?.id ?? of}/${step.id}`}
                  step={step}
                  number={i + 1}
                  workingHref={here}
                  solutions={record.solutions}
                />
              ))}
            </Box>
          </Sheet>
          <Box sx={{ display: "grid", gap: 2 }}>
            <Shares shares={working.stage.shares} workingHref={here} />
            <DrawsPanel key={of} record={record} stage={working.stage} />
            <StandsOn evaluation={evaluation} record={record} of={of} working={working} />
          </Box>
        </Box>
      )}
    </Box>
  );
}

interface WorkingHeadProps {
  readonly record: RunRecord;
  readonly working: Working | null;
  readonly back: string;
  readonly onLarge: () => void;
}

function WorkingHead({ record, working, back, onLarge }: WorkingHeadProps) {
  const say = useSay();
  return (
    <Box sx={{ display: "flex", flexWrap: "wrap", alignItems: "center", columnGap: 1.5, rowGap: 1, mb: 1.5 }}>
      <Typography variant="h1">{say`Working: ${record.title}`}</Typography>
      <Typography color="textSecondary" sx={{ flexGrow: 1 }}>
        {working?.stage.shown && (
          <>
            {say`how`}{" "}
            <Box component="span" sx={{ fontFamily: fonts.reading }}>
              {say(working.stage.shown.text)}
            </Box>{" "}
            {say`was calculated`}
          </>
        )}
      </Typography>
      {working && (
        <Button variant="outlined" onClick={onLarge} sx={{ "@media print": { display: "none" } }}>
          {say`Show large`}
        </Button>
      )}
      <Button variant="outlined" onClick={() => window.print()} sx={{ "@media print": { display: "none" } }}>
        {say`Print`}
      </Button>
      <Button component={Link} to={back} variant="outlined" sx={{ "@media print": { display: "none" } }}>
        {say`Back to the run`}
      </Button>
    </Box>
  );
}

interface StandsOnProps {
  readonly evaluation: RunEvaluation;
  readonly record: RunRecord;
  readonly of: string;
  readonly working: Working;
}

function StandsOn({ evaluation, record, of, working }: StandsOnProps) {
  const say = useSay();
  return (
    <Sheet component="section" aria-labelledby="stands-on">
      <Typography id="stands-on" variant="h2" sx={{ mb: 1 }}>
        {say`Rests on`}
      </Typography>
      {standsOn(evaluation, record.method, of).map(({ title, text }, i, all) => (
        <Box key={title} sx={{ display: "flex", gap: 1.25, mb: 1.25 }}>
          <Box
            aria-hidden="true"
            sx={{
              mt: 0.75,
              flex: "none",
              width: 13,
              height: 13,
              borderRadius: "50%",
              border: `2.5px solid ${colors.teal}`,
              bgcolor: i === all.length - 1 ? colors.sheet : colors.teal,
            }}
          />
          <Box>
            <Typography sx={{ fontWeight: 700, lineHeight: 1.3 }}>{title}</Typography>
            <Box sx={{ fontFamily: fonts.reading, fontSize: "0.95rem" }}>{say(text)}</Box>
          </Box>
        </Box>
      ))}
      <Footing stage={working.stage} />
      <Implausible stage={working.stage} />
    </Sheet>
  );
}

interface PicksProps {
  readonly stages: readonly ComputedEvaluation[];
  readonly here: (stage: string, trial?: string) => string;
  readonly of: string;
  readonly working: Working;
}

function Picks({ stages, here, of, working }: PicksProps) {
  const say = useSay();
  return (
    <Box
      component="nav"
      aria-label={say`Stage and trial`}
      sx={{ display: "flex", flexWrap: "wrap", gap: 1, mb: 2.5, "@media print": { display: "none" } }}
    >
      {stages.length > 1 &&
        stages.map((s) => (
          <Pick key={s.key} to={here(s.key)} chosen={s.key === of}>
            {s.definition.title}
          </Pick>
        ))}
      <Box sx={{ width: 12 }} />
      {(working.stage.kind === "titration" || working.stage.kind === "curve") &&
        working.stage.trials
          .filter((t) => t.result)
          .map((t) => (
            <Pick key={t.id} to={here(of, t.id)} chosen={t.id === working.trial?.id}>
              {say(t.words)}
            </Pick>
          ))}
    </Box>
  );
}

interface PickProps {
  to: string;
  chosen: boolean;
  children: React.ReactNode;
}

function Pick({ to, chosen, children }: PickProps) {
  return (
    <Button
      component={Link}
      to={to}
      size="small"
      variant={chosen ? "contained" : "outlined"}
      aria-current={chosen ? "true" : undefined}
      preventScrollReset
    >
      {children}
    </Button>
  );
}
