import Box from "@mui/material/Box";
import TextField from "@mui/material/TextField";
import type { Phrase } from "~/core/text";
import { useSay } from "../../words/text";
import type { DryForm } from "./dry-chosen";

interface DryFieldProps {
  readonly form: DryForm;
  readonly problem: Phrase | null;
  readonly onChange: (form: DryForm) => void;
}

/** The basis of the result: the sample as it was weighed, or dry, by its moisture. */
export function DryField({ form, problem, onChange }: DryFieldProps) {
  const say = useSay();
  return (
    <Box sx={{ display: "grid", gap: 1.5 }}>
      <TextField
        select
        label={say`Result`}
        value={form.on ? "dry" : ""}
        onChange={(event) => onChange({ ...form, on: event.target.value !== "" })}
        slotProps={{ select: { native: true }, inputLabel: { shrink: true } }}
      >
        <option value="">{say`of the sample as it was weighed`}</option>
        <option value="dry">{say`on dry basis`}</option>
      </TextField>
      {form.on && (
        <Box
          sx={{ display: "grid", gap: 1.5, pl: 2, gridTemplateColumns: { xs: "1fr", sm: "repeat(3, 1fr)" } }}
        >
          <TextField
            size="small"
            label={say`Moisture, %`}
            value={form.moisture}
            error={problem !== null}
            helperText={say(problem ?? "")}
            onChange={(event) => onChange({ ...form, moisture: event.target.value })}
            slotProps={{ inputLabel: { shrink: true }, htmlInput: { inputMode: "decimal" } }}
          />
          <TextField
            size="small"
            label={say`±, % of moisture`}
            value={form.plusMinus}
            onChange={(event) => onChange({ ...form, plusMinus: event.target.value })}
            slotProps={{ inputLabel: { shrink: true }, htmlInput: { inputMode: "decimal" } }}
          />
        </Box>
      )}
    </Box>
  );
}
