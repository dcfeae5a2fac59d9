import Typography from "@mui/material/Typography";
import { useState } from "react";
import { counted, type Phrase } from "~/core/text";
import { sayWho } from "~/protocol/answers";
import type { BackupView } from "~/protocol/lab";
import { When } from "../../ui/when";
import { Who, type WhoWhyState } from "../../ui/who-why";
import { FormDialog } from "../../ui/form-dialog";
import type { Ask } from "./ask";
import { useSay } from "../../words/text";

interface RestoreDialogProps {
  backup: BackupView;
  by: WhoWhyState;
  ask: Ask;
  onClose: () => void;
}

/** Says what restoring does before it does it. */
export function RestoreDialog({ backup, by, ask, onClose }: RestoreDialogProps) {
  const say = useSay();
  const [unsaid, setUnsaid] = useState<Phrase | undefined>(undefined);
  const submit = () => {
    if (by.person.trim() === "") return setUnsaid(sayWho);
    by.remember();
    ask({ intent: "restore", name: backup.name, person: by.person });
    onClose();
  };
  return (
    <FormDialog
      title={say`Restore the whole lab`}
      submit={say`Back up and restore`}
      onSubmit={submit}
      onClose={onClose}
    >
      <Typography>
        {say`The lab goes back to`} <When at={backup.at} as="time" />
        {say`: ${counted(backup.runs, "run")}. Everything done since then is removed.`}
      </Typography>
      <Typography>
        {say`The current lab is backed up first, so you can undo this. The benches wait a few seconds, then all screens reload.`}
      </Typography>
      <Who by={by} problem={unsaid} />
    </FormDialog>
  );
}
