import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import { useState } from "react";
import { type RunEvaluation, unfinishedWords } from "~/core/stages";
import type { Phrase } from "~/core/text";
import { useRunInHand } from "../../../entry/run-context";
import { useSay } from "../../../words/text";
import { NewerConcentrations } from "../../stages/shared/newer-concentrations";
import { EndOfRun } from "./end-of-run";
import { StageResult } from "./stage-result";
import { StandsOn } from "./stands-on";

const column = { display: "grid", gap: 2, alignContent: "start", minWidth: 0 } as const;

/** The end of a run as one picture: what it was for, how each stage came out, what it rests on, and where to go from here. */
export function ConcludeStageView({ evaluation }: { evaluation: RunEvaluation }) {
  const say = useSay();
  const { record, send } = useRunInHand();
  const [problem, setProblem] = useState<Phrase | null>(null);
  const { stages } = evaluation;
  const main = stages.findLast(({ shown }) => shown !== null) ?? stages.at(-1);
  const others = stages.filter((stage) => stage !== main);
  const open = stages.filter((s) => !s.done);
  const change = (intent: "finish" | "reopen") => () =>
    void send({ intent }).then((answer) => setProblem(answer.status === "done" ? null : answer.message));
  const end = <EndOfRun record={record} stages={stages} change={change} />;
  return (
    <Box sx={{ display: "grid", gap: 2, mt: 2 }}>
      {main && <StageResult stage={main} record={record} main />}
      <NewerConcentrations record={record} />
      {record.status === "open" && open.length > 0 && (
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
      <Box
        sx={{
          display: "grid",
          gap: 2,
          alignItems: "start",
          gridTemplateColumns: { xs: "minmax(0, 1fr)", md: "repeat(2, minmax(0, 1fr))" },
        }}
      >
        <Box sx={{ ...column, order: { xs: 1, md: 0 } }}>
          {others.length > 0
            ? others.map((stage) => (
                <StageResult key={stage.key} stage={stage} record={record} main={false} />
              ))
            : end}
        </Box>
        <Box sx={column}>
          {others.length > 0 && end}
          <StandsOn record={record} evaluation={evaluation} />
        </Box>
      </Box>
    </Box>
  );
}
