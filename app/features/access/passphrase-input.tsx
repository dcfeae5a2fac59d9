import TextField from "@mui/material/TextField";
import type { Phrase } from "~/core/text";
import { useSay } from "../../words/text";

interface PassphraseInputProps {
  readonly name: string;
  readonly label: string;
  readonly problem: Phrase | undefined;
  readonly help?: string;
  /** What the browser's own store of passphrases is to make of it. */
  readonly known: boolean;
  readonly autoFocus?: boolean;
  /** Without these the form itself holds what is typed. */
  readonly value?: string;
  readonly change?: (value: string) => void;
}

/** A field whose text is not shown. */
export function PassphraseInput(props: PassphraseInputProps) {
  const { name, label, problem, help, known, autoFocus = false, value, change } = props;
  const say = useSay();
  return (
    <TextField
      id={`field-${name}`}
      name={name}
      label={label}
      type="password"
      autoComplete={known ? "current-password" : "new-password"}
      autoFocus={autoFocus}
      {...(value === undefined ? {} : { value })}
      onChange={(event) => change?.(event.target.value)}
      error={problem !== undefined}
      helperText={problem === undefined ? help : say(problem)}
    />
  );
}
