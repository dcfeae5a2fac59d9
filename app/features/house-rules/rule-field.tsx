import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import { fonts } from "../../theme/theme";
import type { RuleDefinition } from "~/core/rules";
import { useSay } from "../../words/text";
import { type Phrase } from "~/core/text";

interface RuleFieldProps {
  definition: RuleDefinition;
  value: string;
  problem: Phrase | undefined;
  onChange: (value: string) => void;
}

/** One rule: a number as typed, or a choice; a line on it beneath, or what is wrong with it. */
export function RuleField({ definition, value, problem, onChange }: RuleFieldProps) {
  const say = useSay();
  const { name, label, explain, choices } = definition;
  return (
    <TextField
      name={name}
      label={say(label)}
      value={value}
      error={problem !== undefined}
      helperText={say(problem ?? explain)}
      select={choices !== undefined}
      id={name}
      onChange={(event) => onChange(event.target.value)}
      slotProps={{
        htmlInput: choices
          ? { "aria-label": say(label) }
          : { inputMode: "decimal", style: { fontFamily: fonts.reading } },
        formHelperText: { sx: { mx: 0.5, lineHeight: 1.35 } },
      }}
    >
      {choices?.map(([choice, words]) => (
        <MenuItem key={choice} value={choice}>
          {say(words)}
        </MenuItem>
      ))}
    </TextField>
  );
}
