import FormControl from "@mui/material/FormControl";
import FormHelperText from "@mui/material/FormHelperText";
import InputLabel from "@mui/material/InputLabel";
import OutlinedInput, { type OutlinedInputProps } from "@mui/material/OutlinedInput";
import { type ReactNode, useId } from "react";

interface LineFieldProps extends Pick<
  OutlinedInputProps,
  "value" | "onChange" | "onKeyDown" | "autoFocus" | "inputProps"
> {
  readonly label: string;
  readonly wrong: boolean;
  /** Below the field. */
  readonly below?: ReactNode;
  readonly grow?: boolean;
}

/** A labelled field of one line. It brings none of the lists that a field may open, so that the screen of a run stays small. */
export function LineField({ label, wrong, below, grow = false, ...input }: LineFieldProps) {
  const id = useId();
  return (
    <FormControl fullWidth error={wrong} sx={grow ? { flex: "1 1 130px" } : undefined}>
      <InputLabel htmlFor={id}>{label}</InputLabel>
      <OutlinedInput id={id} label={label} aria-describedby={below ? `${id}-below` : undefined} {...input} />
      {below && (
        <FormHelperText id={`${id}-below`} component="div">
          {below}
        </FormHelperText>
      )}
    </FormControl>
  );
}
