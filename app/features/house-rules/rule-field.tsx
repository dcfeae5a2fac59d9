import Box from "@mui/material/Box";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import type { ReactNode } from "react";
import { fonts } from "../../theme/theme";
import { Sheet } from "../../ui/sheet";
import type { FormProblems } from "./form.server";

interface Choice {
  readonly value: string | number;
  readonly label: string;
}

interface FieldProps {
  name: string;
  label: string;
  help?: string;
  value: string | number;
  problems: FormProblems;
  choices?: readonly Choice[];
  onChoose?: (value: string) => void;
  /** Across both columns, for choices of many words. */
  wide?: boolean;
}

/** One rule: a number as typed, or a choice, with what is wrong with it beneath. */
export function RuleField({ name, label, help, value, problems, choices, onChoose, wide }: FieldProps) {
  const problem = problems[name];
  return (
    <TextField
      name={name}
      label={label}
      defaultValue={value}
      error={problem !== undefined}
      helperText={problem ?? help}
      select={choices !== undefined}
      id={name}
      sx={wide ? { gridColumn: "1 / -1" } : {}}
      onChange={(event) => onChoose?.(event.target.value)}
      slotProps={{
        htmlInput: choices
          ? { "aria-label": label }
          : { inputMode: "decimal", style: { fontFamily: fonts.reading } },
      }}
    >
      {choices?.map((choice) => (
        <MenuItem key={choice.value} value={choice.value}>
          {choice.label}
        </MenuItem>
      ))}
    </TextField>
  );
}

/** Rules that belong together, with a line on what they are for. */
export function Group({ title, note, children }: { title: string; note: string; children: ReactNode }) {
  return (
    <Sheet component="section" sx={{ p: { xs: 2, sm: 2.5 }, mb: 2, breakInside: "avoid" }}>
      <Typography variant="h2">{title}</Typography>
      <Typography variant="body2" color="textSecondary" sx={{ mb: 2 }}>
        {note}
      </Typography>
      <Box sx={{ display: "grid", gap: 2, gridTemplateColumns: { xs: "1fr", sm: "1fr 1fr" } }}>
        {children}
      </Box>
    </Sheet>
  );
}
