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
        The lab goes back to <When at={backup.at} as="time" />: {counted(backup.runs, "run")}. Everything done
        since then is removed.
      </Typography>
      <Typography>
        The current lab is backed up first, so you can undo this. The benches wait a few seconds, then all
        screens reload.
      </Typography>
      <Who by={by} problem={unsaid} />
    </FormDialog>
  );
}
