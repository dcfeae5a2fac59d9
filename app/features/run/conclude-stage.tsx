import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { Link } from "react-router";
import {
  type ComputedEvaluation,
  plusMinusWords,
  reasonsOf,
  type RunEvaluation,
  unfinishedWords,
} from "~/core/stages";
import type { RunRecord } from "~/core/run";
import { listed, type Phrase } from "~/core/text";
import { flasksLeft } from "../stages/titration/due-flasks";
import { useRunInHand } from "../../entry/run-context";
import { colors, fonts } from "../../theme/theme";
import { Sheet } from "../../ui/sheet";
import { When } from "../../ui/when";
import { Implausible, WholeNumber } from "../stages/shared/footing";
import { NewerConcentrations } from "../stages/shared/newer-concentrations";
import { screensOf } from "../stages/table";
import { NotShelved, ShelveButton } from "../stages/shared/shelve";
import { useSay } from "../../words/text";

/** What belongs beside a stage's result, by its kind. */
function StageFacts({ stage, record }: { stage: ComputedEvaluation; record: RunRecord }) {
  const { Facts } = screensOf(stage);
  return <Facts stage={stage} record={record} />;
}

/** The end of a run: its results to read over, and to finish it with. */
export function ConcludeStageView({ evaluation }: { evaluation: RunEvaluation }) {
  const say = useSay();
  const run = useRunInHand();
  const { record, send } = run;
  const [problem, setProblem] = useState<Phrase | null>(null);
  const stages = evaluation.stages;
  const open = stages.filter((s) => !s.done);
  const finished = record.status !== "open";
  const used = new Set(stages.flatMap((s) => screensOf(s).rinse));
  const rinse = used.size === 0 ? say`flasks and pipettes` : listed([...used]);
  const change = (intent: "finish" | "reopen") => () =>
    void send({ intent }).then((answer) => setProblem(answer.status === "done" ? null : answer.message));
  return (
    <Box sx={{ display: "grid", gap: 2, mt: 2, maxWidth: 860 }}>
      <Sheet component="section" aria-label={say`Results`}>
        {stages.map((stage, i) => {
          const last = i === stages.length - 1;
          return <StageResult key={stage.key} i={i} stage={stage} last={last} record={record} />;
        })}
      </Sheet>
      <NewerConcentrations record={record} />
      {!finished && open.length > 0 && (
        <Alert severity="warning">
          {open
            .map((s) =>
              s.implausible.length > 0
                ? say`${s.definition.title}: ${s.implausible[0]?.text ?? ""}.`
                : say`${s.definition.title}: ${unfinishedWords(s)}.`,
            )
            .join(" ")}
        </Alert>
      )}
      {problem && <Alert severity="error">{say(problem)}</Alert>}
      <EndOfRun finished={finished} record={record} change={change} rinse={say(rinse)} stages={stages} />
    </Box>
  );
}

interface StageResultProps {
  readonly i: number;
  readonly stage: ComputedEvaluation;
  readonly last: boolean;
  readonly record: RunRecord;
}

function StageResult({ i, stage, last, record }: StageResultProps) {
  const say = useSay();
  return (
    <Box sx={{ py: 1.5, borderTop: i === 0 ? 0 : `1px solid ${colors.line}` }}>
      <Typography variant="h2">{stage.definition.result.name}</Typography>
      <WholeNumber stage={stage} />
      <Box
        data-testid={`result-${stage.key}`}
        sx={{ fontFamily: fonts.reading, fontSize: last ? "2rem" : "1.35rem", lineHeight: 1.3 }}
      >
        {say(stage.shown?.text ?? say`no result yet`)}
      </Box>
      {stage.also.map(({ definition: { symbol, name }, shown }) => (
        <Typography key={symbol}>
          {say(name)}: <span style={{ fontFamily: fonts.reading }}>{say(shown.text)}</span>
        </Typography>
      ))}
      <StageFacts stage={stage} record={record} />
      <Implausible stage={stage} />
      <Typography color="textSecondary">
        {reasonsOf(stage).map((reason) => say`${reason} `)}
        {stage.shown &&
          stage.shown.plusMinus !== "0" &&
          say`± is ${plusMinusWords[record.houseRules.plusMinus]}.`}
      </Typography>
      {stage.shown && (
        <Button
          component={Link}
          to={`working?stage=${stage.key}`}
          relative="path"
          size="small"
          sx={{ ml: -1 }}
        >
          {say`Show the working`}
        </Button>
      )}
      <ShelveButton stage={stage} record={record} />
    </Box>
  );
}

interface EndOfRunProps {
  readonly finished: boolean;
  readonly record: RunRecord;
  readonly change: (intent: "finish" | "reopen") => () => undefined;
  readonly rinse: string;
  readonly stages: readonly ComputedEvaluation[];
}

function EndOfRun({ finished, record, change, rinse, stages }: EndOfRunProps) {
  const say = useSay();
  const left = stages.reduce((sum, stage) => {
    const timers = record.stages.find((s) => s.key === stage.key)?.timers ?? [];
    return sum + (stage.kind === "titration" ? flasksLeft(timers, stage) : 0);
  }, 0);
  return (
    <Sheet sx={{ display: "flex", gap: 2, alignItems: "center", flexWrap: "wrap" }}>
      {finished ? (
        <>
          <Typography sx={{ flexGrow: 1 }}>
            {say`Finished`}
            {record.finishedAt && (
              <>
                {" "}
                {say`on`} <When at={record.finishedAt} as="time" />
              </>
            )}
            {say`. Its readings are kept as they stand.`}
          </Typography>
          <Button
            component={Link}
            to={`/?start=${record.method.id}&again=${record.id}`}
            variant="contained"
            size="large"
          >
            {say`Same again: next sample`}
          </Button>
          <Button variant="outlined" onClick={change("reopen")}>
            {say`Reopen the run`}
          </Button>
        </>
      ) : (
        <>
          <Typography sx={{ flexGrow: 1 }}>
            {say`Clean up: ${record.method.waste.join(" ")} Rinse ${rinse}.`}
            <NotShelved stages={stages} />
            {left > 0 && (
              <b>
                {" "}
                {say`${left === 1 ? say`One flask is` : say`${left} flasks are`} still waiting to be titrated.`}
              </b>
            )}
          </Typography>
          <Button variant="contained" size="large" onClick={change("finish")}>
            {say`Finish the run`}
          </Button>
        </>
      )}
    </Sheet>
  );
}
