import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import type { Phrase } from "~/core/text";
import { useRunInHand } from "../../entry/run-context";
import { FormDialog } from "../../ui/form-dialog";
import { useSay } from "../../words/text";

/** Title, sample and bench of a run. */
export function RenameDialog({ onClose }: { onClose: () => void }) {
  const say = useSay();
  const run = useRunInHand();
  const { title, sample, bench } = run.record;
  const [form, setForm] = useState({ title, sample, bench });
  const [problem, setProblem] = useState<Phrase | null>(null);
  const submit = () => {
    if (form.title.trim() === "") return setProblem(say`Give the run a title so you can find it again`);
    void run.send({ intent: "rename", ...form }).then((answer) => {
      if (answer.status === "done") onClose();
      else setProblem(answer.message);
    });
  };
  const field = (name: keyof typeof form, label: string) => (
    <TextField
      label={label}
      value={form[name]}
      onChange={(event) => setForm({ ...form, [name]: event.target.value })}
      error={name === "title" && problem !== null}
      helperText={name === "title" && problem !== null ? say(problem) : undefined}
      slotProps={{ htmlInput: { maxLength: 120 } }}
    />
  );
  return (
    <FormDialog title={say`Rename the run`} submit={say`Rename`} onSubmit={submit} onClose={onClose}>
      {field("title", say`Title`)}
      {field("sample", say`Sample`)}
      {field("bench", say`Bench or person`)}
    </FormDialog>
  );
}

interface ArchiveDialogProps {
  readonly onArchive: () => void;
  readonly onClose: () => void;
}

/** Asks before a run leaves the bench. */
export function ArchiveDialog({ onArchive, onClose }: ArchiveDialogProps) {
  const say = useSay();
  return (
    <FormDialog title={say`Archive this run?`} submit={say`Archive`} onSubmit={onArchive} onClose={onClose}>
      <Typography>
        {say`It leaves the bench and keeps all its readings. Find it under “archived runs” on the bench; it can be reopened any time.`}
      </Typography>
    </FormDialog>
  );
}
