import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { type TrialEvaluation, trialWords } from "~/core/run";
import { FormDialog, ReasonField } from "./correct-dialog";
import type { Send } from "./use-run";

interface TrialDialogProps {
  trial: Pick<TrialEvaluation, "id" | "name" | "record">;
  send: Send;
  onClose: () => void;
}

const usualReasons = ["overshot", "air bubble in the tip", "spilled", "burette ran out"];

/** Strikes a trial out, with the reason. It stays in the ledger and never counts. */
export function StrikeDialog({ trial, send, onClose }: TrialDialogProps) {
  const [reason, setReason] = useState("");
  const [problem, setProblem] = useState<string | null>(null);
  const submit = () => {
    if (reason.trim() === "") return setProblem("Say why the trial is struck out");
    void send({ intent: "strike", trialId: trial.id, reason }).then((answer) => {
      if (answer.status === "done") onClose();
      else setProblem(answer.message);
    });
  };
  return (
    <FormDialog
      title={`Strike out ${trialWords(trial.name)}`}
      submit="Strike out"
      onSubmit={submit}
      onClose={onClose}
    >
      <Typography color="textSecondary">
        It stays in the ledger, never counts, and can be restored.
      </Typography>
      <ReasonField value={reason} usual={usualReasons} problem={problem} onChange={setReason} />
    </FormDialog>
  );
}

/** Gives a trial a name of its own. */
export function LabelDialog({ trial, send, onClose }: TrialDialogProps) {
  const [label, setLabel] = useState(trial.record.label ?? "");
  const [problem, setProblem] = useState<string | null>(null);
  const submit = () =>
    void send({ intent: "label", trialId: trial.id, label }).then((answer) => {
      if (answer.status === "done") onClose();
      else setProblem(answer.message);
    });
  return (
    <FormDialog
      title={`Name of ${trialWords(trial.name)}`}
      submit="Rename"
      onSubmit={submit}
      onClose={onClose}
    >
      <TextField
        label="Name"
        value={label}
        autoFocus
        error={problem !== null}
        helperText={problem ?? "empty: its number"}
        onChange={(event) => setLabel(event.target.value)}
        slotProps={{ htmlInput: { maxLength: 40 } }}
      />
    </FormDialog>
  );
}
