import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import type { TitrationEvaluation, TrialEvaluation } from "~/core/stages";
import { capitalized, msg, type Phrase } from "~/core/text";
import { fieldKey } from "~/core/method";
import { useRunInHand } from "../../../entry/run-context";
import { answerIn, confirmAllIn, stateIn, typeIn } from "../../../entry/entry";
import { ReadingTextField } from "../../../entry/reading-text-field";
import { useDialogEntry } from "../../../entry/use-dialog-entry";
import { isTaken } from "../../../live/post";
import { FormDialog, ReasonField } from "../../../ui/form-dialog";
import { useSay } from "../../../words/text";

interface TrialDialogProps {
  trial: Pick<TrialEvaluation, "id" | "name" | "words" | "record">;
  onClose: () => void;
}

const usualReasons = [msg`overshot`, msg`air bubble in the tip`, msg`spilled`, msg`burette ran out`];

/** Strikes a trial out, with the reason. It stays in the ledger and never counts. */
export function StrikeDialog({ trial, onClose }: TrialDialogProps) {
  const say = useSay();
  const { send } = useRunInHand();
  const [reason, setReason] = useState("");
  const [problem, setProblem] = useState<Phrase | null>(null);
  const submit = () => {
    if (reason.trim() === "") return setProblem(say`Say why the trial is struck out`);
    void send({ intent: "strike", trialId: trial.id, reason }).then((answer) => {
      if (answer.status === "done") onClose();
      else setProblem(answer.message);
    });
  };
  return (
    <FormDialog
      title={say`Strike out ${trial.words}`}
      submit={say`Strike out`}
      onSubmit={submit}
      onClose={onClose}
    >
      <Typography color="textSecondary">
        {say`It stays in the ledger, never counts, and can be restored.`}
      </Typography>
      <ReasonField value={reason} usual={usualReasons} problem={problem} onChange={setReason} />
    </FormDialog>
  );
}

interface BackDialogProps extends TrialDialogProps {
  trial: TrialEvaluation;
  stage: TitrationEvaluation;
}

const backLabels = [
  msg`Added back, mL`,
  msg`Titrant equivalent to 1 mL of it, mL`,
  msg`Final reading, after going on, mL`,
];

/** An overshot end that was brought back by a known amount: what that took of the titrant is no part of the titer. */
export function BackDialog({ trial, stage, onClose }: BackDialogProps) {
  const say = useSay();
  const { send } = useRunInHand();
  const states = (["back.volume", "back.worth", "burette.final"] as const).flatMap(
    (kind) => trial.fields.find(({ field }) => field.kind === kind && field.symbol === stage.titer) ?? [],
  );
  const offered = Object.fromEntries(
    states.flatMap(({ field, present }) => (present ? [[fieldKey(field), present.text]] : [])),
  );
  const { id, kind, observations } = trial.record;
  const entry = useDialogEntry({
    ...{ stage: stage.definition, trial: { id, kind }, observations, offered },
    fields: states.map(({ field }) => field),
  });
  const submit = async () => {
    const changed = states.filter(({ field, present }) => stateIn(entry, field).text !== present?.text);
    const entered = confirmAllIn(
      entry,
      changed.map(({ field }) => field),
    );
    if (entered === "held") return;
    for (const reading of entered) {
      const { present } = states.find(({ field }) => field === reading.field) ?? {};
      const answer = await send({
        ...{ intent: "observe", id: reading.id, stageKey: stage.key, trial: { id, kind } },
        ...{ symbol: reading.field.symbol, kind: reading.field.kind, text: reading.text },
        supersedes: present?.id ?? null,
        reason: present ? say`overshot, titrated back and continued` : null,
      });
      answerIn(entry, isTaken(answer) ? [reading] : entered, answer);
      if (!isTaken(answer)) return;
    }
    onClose();
  };
  return (
    <FormDialog
      title={say`${capitalized(trial.words)}: overshot, titrated back`}
      submit={say`Record it`}
      onSubmit={() => void submit()}
      onClose={onClose}
    >
      <Typography color="textSecondary">
        {say`Add a known volume of what is titrated, until the color is gone, and go on to the end. The titer is then final minus initial, less what the added volume takes.`}
      </Typography>
      {states.map(({ field }, i) => (
        <ReadingTextField
          key={fieldKey(field)}
          label={say(backLabels[i] ?? field.label)}
          state={stateIn(entry, field)}
          autoFocus={i === 0}
          hint={i === 1 ? say`1.00 where both are equally strong` : undefined}
          onType={(text) => typeIn(entry, field, text)}
        />
      ))}
    </FormDialog>
  );
}

/** Gives a trial a name of its own. */
export function LabelDialog({ trial, onClose }: TrialDialogProps) {
  const say = useSay();
  const { send } = useRunInHand();
  const [label, setLabel] = useState(trial.record.label ?? "");
  const [problem, setProblem] = useState<Phrase | null>(null);
  const submit = () =>
    void send({ intent: "label", trialId: trial.id, label }).then((answer) => {
      if (answer.status === "done") onClose();
      else setProblem(answer.message);
    });
  return (
    <FormDialog title={say`Name of ${trial.words}`} submit={say`Rename`} onSubmit={submit} onClose={onClose}>
      <TextField
        label={say`Name`}
        value={label}
        autoFocus
        error={problem !== null}
        helperText={say(problem ?? say`empty: its number`)}
        onChange={(event) => setLabel(event.target.value)}
        slotProps={{ htmlInput: { maxLength: 40 } }}
      />
    </FormDialog>
  );
}
