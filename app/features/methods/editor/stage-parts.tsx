import Box from "@mui/material/Box";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import type { StageDraft } from "./draft-types";

/** A part of the editor of one stage. */
export interface StagePart {
  readonly stage: StageDraft;
  readonly onChange: (changes: Partial<StageDraft>) => void;
}

interface TextOf {
  readonly name: keyof StageDraft;
  readonly label: string;
  readonly help?: string;
  readonly rows?: number;
}

/** A field for one of a stage's texts. */
export function StageText({ stage, onChange, name, label, help, rows = 1 }: StagePart & TextOf) {
  return (
    <TextField
      size="small"
      label={label}
      value={typeof stage[name] === "string" ? stage[name] : ""}
      onChange={(event) => onChange({ [name]: event.target.value })}
      helperText={help}
      multiline={rows > 1}
      minRows={rows}
    />
  );
}

/** A part with its heading. */
export function Part({ title, note, children }: { title: string; note?: string; children: React.ReactNode }) {
  return (
    <Box>
      <Typography variant="h3" sx={{ mb: note ? 0 : 1 }}>
        {title}
      </Typography>
      {note && (
        <Typography variant="body2" color="textSecondary" sx={{ mb: 1 }}>
          {note}
        </Typography>
      )}
      {children}
    </Box>
  );
}
