import Alert from "@mui/material/Alert";
import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import MenuItem from "@mui/material/MenuItem";
import Stack from "@mui/material/Stack";
import TextField from "@mui/material/TextField";
import { type FormEvent, useState } from "react";
import { useFetcher } from "react-router";

export interface MethodChoice {
  readonly id: string;
  readonly title: string;
  readonly purpose: string;
}

interface StartRunDialogProps {
  open: boolean;
  methods: readonly MethodChoice[];
  /** Id of the method that is offered first: the one last begun. */
  usual: string | null;
  onClose: () => void;
}

/** The one short dialog that begins a run. */
export function StartRunDialog({ open, methods, usual, onClose }: StartRunDialogProps) {
  const fetcher = useFetcher<{ message: string }>();
  const [methodId, setMethodId] = useState((methods.find((m) => m.id === usual) ?? methods[0])?.id ?? "");
  const [titleMissing, setTitleMissing] = useState(false);
  const chosen = methods.find((m) => m.id === methodId);

  const check = (event: FormEvent<HTMLFormElement>) => {
    const title = new FormData(event.currentTarget).get("title");
    const missing = typeof title !== "string" || title.trim() === "";
    setTitleMissing(missing);
    if (missing) event.preventDefault();
  };

  return (
    <Dialog open={open} onClose={onClose} fullWidth maxWidth="sm" aria-labelledby="start-title">
      <fetcher.Form method="post" action="/?index" onSubmit={check} noValidate>
        <DialogTitle id="start-title">Start a run</DialogTitle>
        <DialogContent>
          <Stack spacing={2} sx={{ pt: 1 }}>
            <input type="hidden" name="intent" value="start" />
            <ChooseMethod methodId={methodId} setMethodId={setMethodId} chosen={chosen} methods={methods} />
            <TextField
              name="title"
              label="Title"
              autoFocus
              error={titleMissing}
              helperText={
                titleMissing
                  ? "Give the run a title, so that it can be found again"
                  : "as it should stand on the bench"
              }
              slotProps={{ htmlInput: { maxLength: 120 } }}
            />
            <TextField
              name="sample"
              label="Sample"
              helperText="its name or number"
              slotProps={{ htmlInput: { maxLength: 120 } }}
            />
            <TextField name="bench" label="Bench or person" slotProps={{ htmlInput: { maxLength: 120 } }} />
            {fetcher.data?.message && <Alert severity="error">{fetcher.data.message}</Alert>}
          </Stack>
        </DialogContent>
        <DialogActions sx={{ px: 3, pb: 2 }}>
          <Button onClick={onClose} color="secondary">
            Cancel
          </Button>
          <Button type="submit" variant="contained" disabled={fetcher.state !== "idle"}>
            Start
          </Button>
        </DialogActions>
      </fetcher.Form>
    </Dialog>
  );
}

interface ChooseMethodProps {
  readonly methodId: string;
  readonly setMethodId: (to: string) => void;
  readonly chosen: MethodChoice | undefined;
  readonly methods: readonly MethodChoice[];
}

function ChooseMethod({ methodId, setMethodId, chosen, methods }: ChooseMethodProps) {
  return (
    <TextField
      select
      name="methodId"
      id="methodId"
      label="Method"
      value={methodId}
      onChange={(event) => setMethodId(event.target.value)}
      helperText={chosen?.purpose}
    >
      {methods.map(({ id, title }) => (
        <MenuItem key={id} value={id} sx={{ whiteSpace: "normal" }}>
          {title}
        </MenuItem>
      ))}
    </TextField>
  );
}
