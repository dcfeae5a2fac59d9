import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import { useRef } from "react";
import { colors, fonts } from "../../../theme/theme";
import type { Column, Row } from "./row";
import { useSay } from "../../../words/text";
import { type Phrase } from "~/core/text";

interface RowsProps {
  /** What one row is, as its button and its fields name it. */
  name: string;
  rows: readonly Row[];
  columnsOf: (row: Row) => readonly Column[];
  fresh: Row;
  onChange: (rows: readonly Row[]) => void;
  /** What is wrong with a row, below it. */
  problemOf?: (row: Row, index: number) => Phrase | null;
  /** A field was left with another text than it was entered with. */
  onLeave?: (left: { readonly key: string; readonly before: string; readonly after: string }) => unknown;
  /** What follows from a row, below it. */
  below?: (row: Row, index: number) => React.ReactNode;
}

/** Rows of fields: each can be changed, moved up, taken away; one more is a press. */
export function Rows({ name, rows, columnsOf, fresh, onChange, problemOf, onLeave, below }: RowsProps) {
  const say = useSay();
  const change = (index: number, key: string, value: string) =>
    onChange(rows.map((row, i) => (i === index ? { ...row, [key]: value } : row)));
  const up = (index: number) =>
    onChange(
      rows.map((row, i) =>
        i === index - 1 ? (rows[index] ?? row) : i === index ? (rows[index - 1] ?? row) : row,
      ),
    );
  return (
    <Box sx={{ display: "grid", gap: 1.25, gridTemplateColumns: "minmax(0,1fr)" }}>
      {rows.map((row, index) => (
        <Box
          key={index}
          role="group"
          aria-label={`${name} ${index + 1}`}
          sx={{ borderLeft: `3px solid ${colors.line}`, pl: 1.25 }}
        >
          <Box sx={{ display: "grid", gridTemplateColumns: "minmax(0,1fr) auto auto", gap: 0.5 }}>
            <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1, alignItems: "flex-start" }}>
              {columnsOf(row).map((column) => (
                <Cell
                  key={column.key}
                  column={column}
                  row={row}
                  change={change}
                  index={index}
                  name={name}
                  onLeave={onLeave}
                />
              ))}
            </Box>
            <Button
              size="small"
              disabled={index === 0}
              onClick={() => up(index)}
              aria-label={say`${name} ${index + 1}: move up`}
              sx={{ minWidth: 40, px: 0 }}
            >
              ↑
            </Button>
            <Button
              size="small"
              onClick={() => onChange(rows.filter((_, i) => i !== index))}
              aria-label={say`${name} ${index + 1}: remove`}
              sx={{ minWidth: 40, px: 0 }}
            >
              ✕
            </Button>
          </Box>
          <RowProblem problem={problemOf?.(row, index) ?? null} />
          {/* A long equation scrolls by itself on a narrow screen. */}
          {below && <Box sx={{ overflowX: "auto" }}>{below(row, index)}</Box>}
        </Box>
      ))}
      <Box>
        <Button size="small" variant="outlined" onClick={() => onChange([...rows, fresh])}>
          {say`Add ${name.toLowerCase()}`}
        </Button>
      </Box>
    </Box>
  );
}

function RowProblem({ problem }: { readonly problem: Phrase | null }) {
  const say = useSay();
  if (problem === null) return null;
  return (
    <Box role="alert" sx={{ color: colors.brick, fontSize: "0.92rem", mt: 0.5 }}>
      {say(problem)}
    </Box>
  );
}

interface CellProps {
  readonly column: Column;
  readonly row: Row;
  readonly change: (index: number, key: string, value: string) => void;
  readonly index: number;
  readonly name: string;
  readonly onLeave: RowsProps["onLeave"];
}

function Cell({ column, row, change, index, name, onLeave }: CellProps) {
  const say = useSay();
  const entered = useRef<string | null>(null);
  const text = row[column.key] ?? "";
  const leave = () => {
    const before = entered.current;
    entered.current = null;
    if (before !== null && before !== text) onLeave?.({ key: column.key, before, after: text });
  };
  return (
    <TextField
      size="small"
      label={say(column.label)}
      type={column.type ?? "text"}
      select={column.choices !== undefined}
      value={text}
      placeholder={column.placeholder}
      onChange={(event) => change(index, column.key, event.target.value)}
      onFocus={() => (entered.current = text)}
      onBlur={leave}
      sx={{ flex: `${column.wide ?? 1} 1 ${84 * (column.wide ?? 1)}px`, width: "auto" }}
      slotProps={{
        inputLabel: column.type === "color" || column.choices ? { shrink: true } : {},
        select: { displayEmpty: true },
        htmlInput: {
          "aria-label": say`${name} ${index + 1}: ${column.label}`,
          ...(column.reading ? { style: { fontFamily: fonts.reading } } : {}),
        },
      }}
    >
      {column.choices?.map((choice) => (
        <MenuItem key={choice.value} value={choice.value}>
          {say(choice.label)}
        </MenuItem>
      ))}
    </TextField>
  );
}
