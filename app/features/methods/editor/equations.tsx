import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import ToggleButton from "@mui/material/ToggleButton";
import ToggleButtonGroup from "@mui/material/ToggleButtonGroup";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import {
  balance,
  combineHalfReactions,
  completeHalfReaction,
  describeImbalances,
  equationText,
  imbalances,
  type Medium,
  parseEquation,
} from "~/core/chemistry";
import { problemText } from "~/core/result";
import { fonts } from "../../../theme/theme";
import { EquationLine } from "../../../ui/equation";
import { equationColumns } from "./columns";
import type { Row } from "./row";
import { Rows } from "./rows";
import { useSay } from "../../../words/text";
import { msg, type Phrase } from "~/core/text";

interface EquationsProps {
  rows: readonly Row[];
  onChange: (rows: readonly Row[]) => void;
}

function problemOf(source: string): Phrase | null {
  if (source.trim() === "") return msg`Type the equation: reactants -> products`;
  const read = parseEquation(source);
  if (!read.ok) return problemText(read.problem);
  const wrong = imbalances(read.value);
  return wrong.length > 0 ? msg`It does not balance yet: ${describeImbalances(wrong)}` : null;
}

/** The equation first: typed with or without numbers, and balanced by a press; or put together from two halves. */
export function Equations({ rows, onChange }: EquationsProps) {
  const say = useSay();
  const set = (index: number, equation: string) =>
    onChange(rows.map((row, i) => (i === index ? { ...row, equation } : row)));
  return (
    <>
      <Rows
        name={say`Equation`}
        rows={rows}
        columnsOf={() => equationColumns}
        fresh={{ name: "", equation: "" }}
        onChange={onChange}
        problemOf={(row) => problemOf(row.equation ?? "")}
        below={(row, index) => <Below source={row.equation ?? ""} onBalance={(text) => set(index, text)} />}
      />
      <Halves onUse={(equation) => onChange([...rows, { name: "redox", equation }])} />
    </>
  );
}

function Below({ source, onBalance }: { source: string; onBalance: (text: string) => void }) {
  const say = useSay();
  const read = parseEquation(source);
  if (!read.ok) return null;
  const balanced = balance(read.value);
  const needed = imbalances(read.value).length > 0;
  return (
    <Box sx={{ display: "flex", alignItems: "center", gap: 2, flexWrap: "wrap", mt: 0.5 }}>
      {!needed && <EquationLine source={source} />}
      {needed && balanced.ok && (
        <Button size="small" variant="contained" onClick={() => onBalance(equationText(balanced.value))}>
          {say`Balance it`}
        </Button>
      )}
      {needed && !balanced.ok && (
        <Typography variant="body2">{say(problemText(balanced.problem))}.</Typography>
      )}
    </Box>
  );
}

function Halves({ onUse }: { onUse: (equation: string) => void }) {
  const say = useSay();
  const [taking, setTaking] = useState("");
  const [giving, setGiving] = useState("");
  const [medium, setMedium] = useState<Medium>("acid");
  const a = completeHalfReaction(taking, medium);
  const b = completeHalfReaction(giving, medium);
  const whole = a.ok && b.ok ? combineHalfReactions(a.value, b.value) : null;
  const trouble = [a, b, whole].find((r) => r && !r.ok);
  return (
    <Box component="details" sx={{ mt: 1.5, "& summary": { cursor: "pointer", fontWeight: 650 } }}>
      <summary>{say`From two half-reactions`}</summary>
      <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap", mt: 1.25, alignItems: "center" }}>
        {(
          [
            [say`Takes electrons`, taking, setTaking, "MnO4- -> Mn^2+"],
            [say`Gives electrons`, giving, setGiving, "Fe^2+ -> Fe^3+"],
          ] as const
        ).map(([label, value, change, placeholder]) => (
          <TextField
            key={label}
            size="small"
            label={label}
            value={value}
            placeholder={placeholder}
            onChange={(event) => change(event.target.value)}
            sx={{ flex: "1 1 200px" }}
            slotProps={{ inputLabel: { shrink: true }, htmlInput: { style: { fontFamily: fonts.reading } } }}
          />
        ))}
        <ToggleButtonGroup
          exclusive
          size="small"
          value={medium}
          onChange={(_, chosen: Medium | null) => chosen && setMedium(chosen)}
          aria-label={say`Medium`}
        >
          <ToggleButton value="acid">{say`in acid`}</ToggleButton>
          <ToggleButton value="base">{say`in base`}</ToggleButton>
        </ToggleButtonGroup>
      </Box>
      {taking !== "" && giving !== "" && trouble && !trouble.ok && (
        <Typography variant="body2" sx={{ mt: 0.5 }}>
          {say(problemText(trouble.problem))}.
        </Typography>
      )}
      {whole?.ok && (
        <Box sx={{ display: "flex", gap: 2, alignItems: "center", flexWrap: "wrap", mt: 0.5 }}>
          <EquationLine source={equationText(whole.value)} />
          <Button size="small" variant="outlined" onClick={() => onUse(equationText(whole.value))}>
            {say`Use it`}
          </Button>
        </Box>
      )}
    </Box>
  );
}
