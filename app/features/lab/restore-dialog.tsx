import Typography from "@mui/material/Typography";
import { useState } from "react";
import { counted } from "~/core/text";
import { sayWho } from "~/protocol/answers";
import type { BackupView } from "~/protocol/lab";
import { When } from "../../ui/when";
import { Who, type WhoWhyState } from "../../ui/who-why";
import { FormDialog } from "../../ui/form-dialog";
import type { Ask } from "./ask";

interface RestoreDialogProps {
  backup: BackupView;
  by: WhoWhyState;
  ask: Ask;
  onClose: () => void;
}

/** Says what restoring does before it does it. */
export function RestoreDialog({ backup, by, ask, onClose }: RestoreDialogProps) {
  const [unsaid, setUnsaid] = useState<string | undefined>(undefined);
  const submit = () => {
    if (by.person.trim() === "") return setUnsaid(sayWho);
    by.remember();
    ask({ intent: "restore", name: backup.name, person: by.person });
    onClose();
  };
  return (
    <FormDialog
      title="Restore the whole lab"
      submit="Back up and restore"
      onSubmit={submit}
      onClose={onClose}
    >
      <Typography>
        The lab becomes what it was on <When at={backup.at} as="time" />: {counted(backup.runs, "run")}.
        Everything that was done since then is no longer in it.
      </Typography>
      <Typography>
        What is here now is backed up first, so that this can be taken back. The benches wait for some
        seconds, and all screens load anew.
      </Typography>
      <Who by={by} problem={unsaid} />
    </FormDialog>
  );
}
