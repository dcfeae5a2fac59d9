import Box from "@mui/material/Box";
import TextField from "@mui/material/TextField";
import type { ReactNode } from "react";
import { type PaperNote, type SheetStage, timeColumn, withUnit } from "~/core/paper";
import { colors, fonts } from "../../theme/theme";
import { labelTogether } from "../../ui/number-text";
import { onceRow } from "./typed-rows";
import { useSay } from "../../words/text";

export interface WithCells {
  readonly stage: SheetStage;
  readonly cell: (row: string, column: string, label: string, offered?: string) => ReactNode;
}

export function ReadOnce({ stage, cell }: WithCells) {
  const say = useSay();
  return (
    <Box sx={{ display: "flex", flexWrap: "wrap", gap: 2, mt: 1 }}>
      {stage.once.map((column) => (
        <Once key={column.key} label={say(withUnit(column))} written={stage.onceWritten.get(column.key)}>
          {cell(onceRow, column.key, say(column.label))}
        </Once>
      ))}
      {stage.once.some(({ key }) => !stage.onceWritten.has(key)) && (
        <Once label={say`Time`}>{cell(onceRow, timeColumn, say`Time of what is read once`)}</Once>
      )}
    </Box>
  );
}

interface OnceProps {
  readonly label: string;
  readonly written?: string | undefined;
  readonly children: ReactNode;
}

function Once({ label, written, children }: OnceProps) {
  return (
    <Box>
      <Box sx={{ fontSize: "0.92rem", color: colors.inkSoft, mb: 0.25 }}>{labelTogether(label)}</Box>
      {written === undefined ? children : <WrittenCell text={written} />}
    </Box>
  );
}

const WrittenCell = ({ text }: { readonly text: string }) => (
  <Box sx={{ fontFamily: fonts.reading, py: 1, color: colors.tealDeep }}>{text} ✓</Box>
);

export function Rows({ stage, cell }: WithCells) {
  const say = useSay();
  return (
    <Box sx={{ overflowX: "auto", mt: 1.5 }}>
      <Box
        component="table"
        sx={{
          borderCollapse: "collapse",
          "& th, & td": { textAlign: "left", pr: 1.25, py: 0.5, verticalAlign: "top" },
        }}
      >
        <thead>
          <tr>
            <th scope="col">{say`Flask`}</th>
            {stage.columns.map((column) => (
              <Box component="th" key={column.key} scope="col" sx={{ fontWeight: 600, maxWidth: 150 }}>
                {labelTogether(say(withUnit(column)))}
              </Box>
            ))}
            <th scope="col">{say`Time`}</th>
          </tr>
        </thead>
        <tbody>
          {stage.rows.map((row) => (
            <tr key={row.key}>
              <Box component="th" scope="row" sx={{ fontWeight: 600, pt: "14px !important" }}>
                {say(row.name)}
              </Box>
              {stage.columns.map((column) => {
                const written = row.written.get(column.key);
                return (
                  <td key={column.key}>
                    {written === undefined ? (
                      cell(
                        row.key,
                        column.key,
                        say`${row.name}, ${column.label}`,
                        row.offered.get(column.key),
                      )
                    ) : (
                      <WrittenCell text={written} />
                    )}
                  </td>
                );
              })}
              <td>{cell(row.key, timeColumn, say`${row.name}, time`)}</td>
            </tr>
          ))}
        </tbody>
      </Box>
    </Box>
  );
}

interface CellProps {
  readonly label: string;
  readonly text: string;
  readonly offered: string;
  readonly time: boolean;
  readonly note: PaperNote | undefined;
  readonly onType: (text: string) => void;
}

export function Cell({ label, text, offered, time, note, onType }: CellProps) {
  const say = useSay();
  return (
    <TextField
      value={text}
      onChange={(event) => onType(event.target.value)}
      placeholder={time ? "9:40" : offered}
      size="small"
      error={note?.grave === true}
      helperText={note?.message && say(note?.message)}
      slotProps={{
        htmlInput: {
          "aria-label": label,
          inputMode: time ? "text" : "decimal",
          maxLength: 40,
          autoComplete: "off",
          style: { fontFamily: fonts.reading },
        },
        formHelperText: {
          sx: { mx: 0, maxWidth: 150, ...(note && !note.grave ? { color: colors.amberDeep } : {}) },
        },
      }}
      sx={{ width: 124 }}
    />
  );
}
