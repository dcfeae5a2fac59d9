import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import { fonts } from "../theme/theme";
import { type Phrase } from "~/core/text";
import { useSay } from "../words/text";

export interface TextInputProps {
  label: string;
  field: {
    readonly name: string;
    readonly value: string;
    readonly problem: Phrase | undefined;
    readonly change: (value: string) => void;
  };
  help?: string | undefined;
  placeholder?: string;
  /** A number: set in the reading face, with a numeric keypad. */
  number?: boolean;
  type?: "text" | "date";
  choices?: readonly { readonly value: string; readonly label: Phrase }[];
  multiline?: boolean;
  /** Of many lines so many are shown at most; the others by scrolling. */
  mostRows?: number;
  autoFocus?: boolean;
}

/** One field of a form, with what is wrong with it beneath. */
export function TextInput(props: TextInputProps) {
  const say = useSay();
  const {
    label,
    field,
    help,
    placeholder,
    number,
    type = "text",
    choices,
    multiline,
    mostRows,
    autoFocus,
  } = props;
  return (
    <TextField
      id={`field-${field.name}`}
      name={field.name}
      label={label}
      value={field.value}
      type={type}
      select={choices !== undefined}
      multiline={multiline ?? false}
      {...(mostRows === undefined ? {} : { maxRows: mostRows })}
      autoFocus={autoFocus ?? false}
      onChange={(event) => field.change(event.target.value)}
      error={field.problem !== undefined}
      helperText={field.problem === undefined ? help : say(field.problem)}
      placeholder={placeholder}
      slotProps={{
        inputLabel:
          type === "date" || placeholder !== undefined || choices !== undefined ? { shrink: true } : {},
        select: { displayEmpty: true },
        htmlInput: number
          ? { ...(multiline ? {} : { inputMode: "decimal" }), style: { fontFamily: fonts.reading } }
          : {},
      }}
    >
      {choices?.map((choice) => (
        <MenuItem key={choice.value} value={choice.value} sx={{ whiteSpace: "normal" }}>
          {say(choice.label)}
        </MenuItem>
      ))}
    </TextField>
  );
}
