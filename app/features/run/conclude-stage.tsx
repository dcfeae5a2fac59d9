import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { Link } from "react-router";
import { plusMinusWords, type RunEvaluation } from "~/core/stages";
import { colors, fonts } from "../../theme/theme";
import { Sheet } from "../../ui/sheet";
import { When } from "../../ui/when";
import { Footing, Implausible, WholeNumber } from "../stages/shared/footing";
import { NewerConcentrations } from "../stages/shared/newer-concentrations";
import { RateFacts } from "../stages/rate/rate-facts";
import { NotShelved, ShelveButton } from "../stages/shared/shelve";
import type { LiveRun } from "../stages/shared/use-run";

/** The end of a run: its results to read over, and to finish it with. */
export function ConcludeStageView({ run, evaluation }: { run: LiveRun; evaluation: RunEvaluation }) {
  const { record, send } = run;
  const [problem, setProblem] = useState<string | null>(null);
  const stages = evaluation.stages;
  const open = stages.filter((s) => !s.done);
  const finished = record.status !== "open";
  const titrated = stages.some((s) => s.kind === "titration");
  const change = (intent: "finish" | "reopen") => () =>
    void send({ intent }).then((answer) => setProblem(answer.status === "done" ? null : answer.message));
  return (
    <Box sx={{ display: "grid", gap: 2, mt: 2, maxWidth: 860 }}>
      <Sheet component="section" aria-label="Results">
        {stages.map((stage, i) => {
          const last = i === stages.length - 1;
          return (
            <Box key={stage.key} sx={{ py: 1.5, borderTop: i === 0 ? 0 : `1px solid ${colors.line}` }}>
              <Typography variant="h2">{stage.definition.result.name}</Typography>
              <WholeNumber stage={stage} />
              <Box
                data-testid={`result-${stage.key}`}
                sx={{ fontFamily: fonts.reading, fontSize: last ? "2rem" : "1.35rem", lineHeight: 1.3 }}
              >
                {stage.shown?.text ?? "no result yet"}
              </Box>
              {stage.also.map(({ definition: { symbol, name }, shown }) => (
                <Typography key={symbol}>
                  {name}: <span style={{ fontFamily: fonts.reading }}>{shown.text}</span>
                </Typography>
              ))}
              {stage.kind === "rate" && <RateFacts stage={stage} record={record} />}
              {stage.kind !== "titration" && <Footing stage={stage} />}
              <Implausible stage={stage} />
              <Typography color="textSecondary">
                {stage.kind === "titration" && `${stage.verdict.reason} `}
                {stage.kind === "unknown" && stage.agreement.text !== "" && `${stage.agreement.text} `}
                {(stage.kind === "titration" || stage.kind === "unknown") &&
                stage.acceptance &&
                !(stage.kind === "titration" && stage.verdict.reason.includes(stage.acceptance.text))
                  ? `${stage.acceptance.text} `
                  : ""}
                {stage.shown &&
                  stage.shown.plusMinus !== "0" &&
                  `± is ${plusMinusWords[record.houseRules.plusMinus]}.`}
              </Typography>
              {stage.shown && (
                <Button
                  component={Link}
                  to={`working?stage=${stage.key}`}
                  relative="path"
                  size="small"
                  sx={{ ml: -1 }}
                >
                  Show the working
                </Button>
              )}
              <ShelveButton stage={stage} record={record} send={send} />
            </Box>
          );
        })}
      </Sheet>
      <NewerConcentrations record={record} send={send} />
      {!finished && open.length > 0 && (
        <Alert severity="warning">
          {open
            .map((s) =>
              s.implausible.length > 0
                ? `${s.definition.title}: ${s.implausible[0]?.text ?? ""}.`
                : s.kind === "titration"
                  ? `${s.definition.title}: the set is not closed. ${s.verdict.next}.`
                  : `${s.definition.title}: not everything is read yet.`,
            )
            .join(" ")}
        </Alert>
      )}
      {problem && <Alert severity="error">{problem}</Alert>}
      <Sheet sx={{ display: "flex", gap: 2, alignItems: "center", flexWrap: "wrap" }}>
        {finished ? (
          <>
            <Typography sx={{ flexGrow: 1 }}>
              Finished
              {record.finishedAt && (
                <>
                  {" "}
                  on <When at={record.finishedAt} as="time" />
                </>
              )}
              . Its readings are kept as they stand.
            </Typography>
            <Button variant="outlined" onClick={change("reopen")}>
              Reopen the run
            </Button>
          </>
        ) : (
          <>
            <Typography sx={{ flexGrow: 1 }}>
              Clean up: {record.method.waste.join(" ")}{" "}
              {titrated ? "Rinse burette and pipettes." : "Rinse cuvettes and pipettes."}
              <NotShelved stages={stages} />
            </Typography>
            <Button variant="contained" size="large" onClick={change("finish")}>
              Finish the run
            </Button>
          </>
        )}
      </Sheet>
    </Box>
  );
}
