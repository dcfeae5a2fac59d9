import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import type { RunRecord } from "~/core/run";
import type { Phrase } from "~/core/text";
import { useRunInHand } from "../../../entry/run-context";
import { sayWho, sayWhy } from "~/protocol/answers";
import { colors } from "../../../theme/theme";
import { FormDialog } from "../../../ui/form-dialog";
import { useWhoWhy, WhoWhy } from "../../../ui/who-why";
import { useSay } from "../../../words/text";

/** Countersigns a finished run, or reopens a countersigned one. */
export function Countersign({ record }: { readonly record: RunRecord }) {
  const say = useSay();
  const [open, setOpen] = useState(false);
  return (
    <>
      <Button variant="outlined" onClick={() => setOpen(true)}>
        {record.countersigned ? say`Reopen …` : say`Countersign …`}
      </Button>
      {open && (
        <CountersignDialog locked={record.countersigned !== undefined} onClose={() => setOpen(false)} />
      )}
    </>
  );
}

interface CountersignDialogProps {
  readonly locked: boolean;
  readonly onClose: () => void;
}

function CountersignDialog({ locked, onClose }: CountersignDialogProps) {
  const say = useSay();
  const { send } = useRunInHand();
  const by = useWhoWhy();
  const [tried, setTried] = useState(false);
  const [problem, setProblem] = useState<Phrase | null>(null);
  const [person, reason] = [by.person.trim(), by.reason.trim()];
  const submit = () => {
    setTried(true);
    if (person === "" || (locked && reason === "")) return;
    const change = locked
      ? ({ intent: "unlock", person, reason } as const)
      : ({ intent: "countersign", person, note: reason } as const);
    void send(change).then((answer) => {
      if (answer.status !== "done") return setProblem(answer.message);
      by.remember();
      onClose();
    });
  };
  return (
    <FormDialog
      title={locked ? say`Reopen the countersigned run` : say`Countersign the run`}
      submit={locked ? say`Reopen` : say`Countersign`}
      onSubmit={submit}
      onClose={onClose}
      wide
    >
      <Typography>
        {locked
          ? say`This removes the countersignature. Your name and the reason go into the trail.`
          : say`You confirm that you have reviewed the readings, the verdicts and the result. The run is then locked; reopening it needs a reason.`}
      </Typography>
      <WhoWhy
        state={by}
        why={locked ? say`Why` : say`Note (optional)`}
        problems={{
          person: tried && person === "" ? sayWho : undefined,
          reason: tried && locked && reason === "" ? sayWhy : undefined,
        }}
      />
      {problem && (
        <Typography role="alert" sx={{ color: colors.brick, fontWeight: 600 }}>
          {say(problem)}.
        </Typography>
      )}
    </FormDialog>
  );
}
