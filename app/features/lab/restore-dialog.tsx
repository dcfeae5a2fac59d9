import Typography from "@mui/material/Typography";
import { counted } from "~/core/run";
import type { BackupView } from "~/formats/lab";
import { When } from "../../ui/when";
import { FormDialog } from "../run/correct-dialog";
import type { Ask } from "./ask";

interface RestoreDialogProps {
  backup: BackupView;
  ask: Ask;
  onClose: () => void;
}

/** Says what restoring does before it does it. */
export function RestoreDialog({ backup, ask, onClose }: RestoreDialogProps) {
  return (
    <FormDialog
      title="Restore the whole lab"
      submit="Back up and restore"
      onSubmit={() => {
        ask({ intent: "restore", name: backup.name });
        onClose();
      }}
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
    </FormDialog>
  );
}
