import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { useEffect, useState } from "react";
import { sayWho } from "~/protocol/answers";
import type { BackupView, RunInBackup } from "~/protocol/lab";
import { colors } from "../../theme/theme";
import { When } from "../../ui/when";
import { Who, type WhoWhyState } from "../../ui/who-why";
import { FormDialog } from "../../ui/form-dialog";
import type { Ask } from "./ask";
import { useSay } from "../../words/text";
import { type Phrase } from "~/core/text";

interface RunsDialogProps {
  backup: BackupView;
  by: WhoWhyState;
  ask: Ask;
  onClose: () => void;
}

/** The runs that a backup holds; one of them is put back alone. */
export function RunsDialog({ backup, by, ask, onClose }: RunsDialogProps) {
  const say = useSay();
  const [runs, setRuns] = useState<readonly RunInBackup[] | null>(null);
  const [problem, setProblem] = useState<Phrase | null>(null);
  const [chosen, setChosen] = useState("");
  const [unsaid, setUnsaid] = useState<Phrase | undefined>(undefined);
  useEffect(() => {
    const ending = new AbortController();
    fetch(`/lab/runs?backup=${encodeURIComponent(backup.name)}`, { signal: ending.signal })
      .then((response) => response.json() as Promise<{ runs?: RunInBackup[]; message?: string }>)
      .then((found) =>
        found.runs ? setRuns(found.runs) : setProblem(found.message ?? say`The backup cannot be read`),
      )
      .catch((error: Error) => ending.signal.aborted || setProblem(error.message));
    return () => ending.abort();
  }, [backup.name, say]);
  const submit = () => {
    if (chosen === "") return setProblem(say`Choose a run`);
    if (by.person.trim() === "") return setUnsaid(sayWho);
    by.remember();
    ask({ intent: "restore-run", name: backup.name, runId: chosen, person: by.person });
    onClose();
  };
  return (
    <FormDialog
      title={say`Restore one run`}
      submit={say`Restore this run`}
      onSubmit={submit}
      onClose={onClose}
    >
      <Typography>
        {say`The run goes back to`} <When at={backup.at} as="time" />
        {say`; all others stay as they are. The lab is backed up first.`}
      </Typography>
      {problem && <Alert severity="error">{say(problem)}</Alert>}
      {!runs && !problem && <Typography color="textSecondary">{say`The backup is being opened.`}</Typography>}
      <Box role="radiogroup" aria-label={say`Runs in the backup`} sx={{ maxHeight: 320, overflowY: "auto" }}>
        {runs?.map((run) => (
          <RunChoice key={run.id} run={run} chosen={chosen} setChosen={setChosen} setProblem={setProblem} />
        ))}
      </Box>
      <Who by={by} problem={unsaid} />
    </FormDialog>
  );
}

interface RunChoiceProps {
  readonly run: RunInBackup;
  readonly chosen: string;
  readonly setChosen: (to: string) => void;
  readonly setProblem: (to: Phrase | null) => void;
}

function RunChoice({ run, chosen, setChosen, setProblem }: RunChoiceProps) {
  const say = useSay();
  return (
    <Box
      component="label"
      sx={{
        display: "flex",
        gap: 1.25,
        py: 0.75,
        borderTop: `1px solid ${colors.line}`,
        cursor: "pointer",
      }}
    >
      <input
        type="radio"
        name="run"
        value={run.id}
        checked={chosen === run.id}
        onChange={() => {
          setChosen(run.id);
          setProblem(null);
        }}
      />
      <span>
        <b>{run.title}</b>
        <Box component="span" sx={{ color: colors.inkSoft, display: "block" }}>
          {say`${[run.sample, run.bench, run.status].filter(Boolean).join(", ")}, begun`}{" "}
          <When at={run.startedAt} as="time" />
        </Box>
      </span>
    </Box>
  );
}
