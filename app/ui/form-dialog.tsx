import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import { type FormEvent, type ReactNode, useEffect } from "react";
import { useCursor } from "../entry/cursor";
import { useSay } from "../words/text";
import { LineField } from "./line-field";
import { type Phrase } from "~/core/text";

/** A dialog with one form in it: what is typed stays until it is sent or put away. */
export function FormDialog(props: {
  title: string;
  submit: string;
  /** Room for fields side by side. */
  wide?: boolean;
  children: ReactNode;
  onSubmit: () => void;
  onClose: () => void;
}) {
  const say = useSay();
  // Once it is closed the cursor goes to what is next.
  const toNext = useCursor();
  useEffect(() => toNext, [toNext]);
  const send = (event: FormEvent) => {
    event.preventDefault();
    props.onSubmit();
  };
  return (
    <Dialog
      open
      onClose={props.onClose}
      fullWidth
      maxWidth={props.wide ? "sm" : "xs"}
      aria-labelledby="form-dialog-title"
    >
      <form onSubmit={send} noValidate>
        <DialogTitle id="form-dialog-title">{props.title}</DialogTitle>
        <DialogContent sx={{ display: "grid", gap: 2, pt: "8px !important" }}>{props.children}</DialogContent>
        <DialogActions sx={{ px: 3, pb: 2 }}>
          <Button onClick={props.onClose} color="secondary">
            {say`Cancel`}
          </Button>
          <Button type="submit" variant="contained">
            {props.submit}
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  );
}

/** A reason in a few words, with the usual ones to pick from. */
export function ReasonField(props: {
  value: string;
  usual: readonly Phrase[];
  problem: Phrase | null;
  onChange: (reason: string) => void;
}) {
  const say = useSay();
  return (
    <Box>
      <LineField
        label={say`Reason`}
        value={props.value}
        wrong={props.problem !== null}
        below={say(props.problem ?? say`kept with the old value`)}
        onChange={(event) => props.onChange(event.target.value)}
        inputProps={{ maxLength: 500 }}
      />
      <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap", mt: 1 }}>
        {props.usual.map(say).map((reason) => (
          <Button
            key={reason}
            size="small"
            variant="outlined"
            color="secondary"
            onClick={() => props.onChange(reason)}
          >
            {reason}
          </Button>
        ))}
      </Box>
    </Box>
  );
}
