import TextField from "@mui/material/TextField";
import type { Phrase } from "~/core/text";
import { useSay } from "../../words/text";

interface DilutionFieldProps {
  readonly undiluted: boolean;
  readonly problem: Phrase | null;
  readonly onChange: (undiluted: boolean) => void;
}

/** Whether a sample is diluted, as the method says, or taken as it is. */
export function DilutionField({ undiluted, problem, onChange }: DilutionFieldProps) {
  const say = useSay();
  return (
    <TextField
      select
      label={say`Dilution`}
      value={undiluted ? "undiluted" : ""}
      error={problem !== null}
      helperText={say(problem ?? "")}
      onChange={(event) => onChange(event.target.value !== "")}
      slotProps={{ select: { native: true }, inputLabel: { shrink: true } }}
    >
      <option value="">{say`as the method says`}</option>
      <option value="undiluted">{say`not diluted`}</option>
    </TextField>
  );
}
