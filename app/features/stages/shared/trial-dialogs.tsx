import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { v7 as newId } from "uuid";
import type { FieldState, TitrationEvaluation, TrialEvaluation } from "~/core/stages";
import { capitalized } from "~/core/text";
import { checkField, fieldKey } from "~/core/method";
import type { HouseRules } from "~/core/rules";
import { isTaken } from "../../../live/post";
import { fonts } from "../../../theme/theme";
import { FormDialog, ReasonField } from "../../../ui/form-dialog";
import type { Send } from "./use-run";

interface TrialDialogProps {
  trial: Pick<TrialEvaluation, "id" | "name" | "words" | "record">;
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
    <FormDialog title={`Strike out ${trial.words}`} submit="Strike out" onSubmit={submit} onClose={onClose}>
      <Typography color="textSecondary">
        It stays in the ledger, never counts, and can be restored.
      </Typography>
      <ReasonField value={reason} usual={usualReasons} problem={problem} onChange={setReason} />
    </FormDialog>
  );
}

interface BackDialogProps extends TrialDialogProps {
  trial: TrialEvaluation;
  stage: TitrationEvaluation;
  rules: HouseRules;
}

/** An overshot end that was brought back by a known amount: what that took of the titrant is no part of the titer. */
export function BackDialog({ trial, stage, rules, send, onClose }: BackDialogProps) {
  const states = (["back.volume", "back.worth", "burette.final"] as const).flatMap(
    (kind) => trial.fields.find(({ field }) => field.kind === kind && field.symbol === stage.titer) ?? [],
  );
  const [texts, setTexts] = useState(() => states.map(({ present }) => present?.text ?? ""));
  const [problems, setProblems] = useState<readonly (string | null)[]>([]);
  const submit = async () => {
    const changed = states.flatMap((state, i) => {
      const text = texts[i]?.trim() ?? "";
      return text === state.present?.text ? [] : [{ ...state, text, i }];
    });
    const found = problemsIn({ stage, rules, trial, states, texts });
    setProblems(found);
    if (found.some((p) => p !== null)) return;
    for (const { field, present, text, i } of changed) {
      const answer = await send({
        intent: "observe",
        id: newId(),
        stageKey: stage.key,
        trial: { id: trial.id, kind: trial.record.kind },
        symbol: field.symbol,
        kind: field.kind,
        text,
        supersedes: present?.id ?? null,
        reason: present ? "overshot, brought back and gone on" : null,
      });
      if (!isTaken(answer)) {
        return setProblems(states.map((_, j) => (i === j ? answer.message : null)));
      }
    }
    onClose();
  };
  const labels = ["Added back, mL", "Titrant that 1 mL of it takes, mL", "Final reading, after going on, mL"];
  return (
    <FormDialog
      title={`${capitalized(trial.words)}: overshot, brought back`}
      submit="Record it"
      onSubmit={() => void submit()}
      onClose={onClose}
    >
      <Typography color="textSecondary">
        Add a known volume of what is titrated, until the color is gone, and go on to the end. The titer is
        then final minus initial, less what the added volume takes.
      </Typography>
      {states.map(({ field }, i) => (
        <TextField
          key={fieldKey(field)}
          label={labels[i]}
          value={texts[i]}
          autoFocus={i === 0}
          error={problems[i] != null}
          helperText={problems[i] ?? (i === 1 ? "1.00 where both are equally strong" : undefined)}
          onChange={(event) => setTexts(texts.map((text, j) => (i === j ? event.target.value : text)))}
          slotProps={{ htmlInput: { inputMode: "decimal", style: { fontFamily: fonts.reading } } }}
        />
      ))}
    </FormDialog>
  );
}

function problemsIn({
  stage,
  rules,
  trial,
  states,
  texts,
}: {
  readonly stage: TitrationEvaluation;
  readonly rules: HouseRules;
  readonly trial: TrialEvaluation;
  readonly states: FieldState[];
  readonly texts: string[];
}) {
  const context = { stage: stage.definition, houseRules: rules, holder: trial.record };
  return states.map(({ field }, i) => {
    const checked = checkField(field, texts[i] ?? "", context);
    return checked.ok ? null : checked.problem.message;
  });
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
    <FormDialog title={`Name of ${trial.words}`} submit="Rename" onSubmit={submit} onClose={onClose}>
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
