import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import dayjs from "dayjs";
import { type KeyboardEvent, type ReactNode, useMemo, useState } from "react";
import { Link } from "react-router";
import { v7 as newId } from "uuid";
import { changeContext } from "~/core/evaluate";
import {
  clockMinutes,
  dataSheet,
  noteKey,
  type PaperNote,
  type PaperRead,
  type PaperRow,
  readPaper,
  type SheetColumn,
  type SheetStage,
  timeColumn,
} from "~/core/paper";
import type { RunRecord } from "~/core/run";
import { capitalized, counted } from "~/core/text";
import type { RunState } from "~/protocol/answers";
import { isTaken } from "../../live/post";
import { serverNow } from "../../live/timers";
import { colors, fonts } from "../../theme/theme";
import { Page } from "../../ui/page";
import { Sheet } from "../../ui/sheet";
import { type Send, useRun } from "../stages/shared/use-run";
import { useTyped } from "./use-typed";

/** The row of what is read once for a stage. */
const onceRow = "once";

/** Where a text of the form is kept. */
const placeOf = (stage: string, row: string, column: string) => `${stage} ${noteKey(row, column)}`;

type Texts = Readonly<Record<string, string>>;
type Write = (change: Readonly<Record<string, string | null>>) => void;

/** What was written on a data sheet, entered later: in the order of the sheet, with the times that stand on it. */
export function PaperPage({ loaded }: { readonly loaded: RunState }) {
  const { record, send } = useRun(loaded);
  const [texts, write] = useTyped(`steady-bead.paper.${record.id}`);
  const today = dayjs().format("YYYY-MM-DD");
  const date = texts.date ?? today;
  const person = texts.person ?? record.bench;
  const stages = useMemo(() => dataSheet(record.method, record.houseRules, record), [record]);
  const open = record.status === "open";
  return (
    <Page
      width={1100}
      title="Enter from paper"
      note={`${record.title}: what stands on the data sheet, with its times. It is marked as from paper in the run and in its trail.`}
      actions={
        <>
          <Button component={Link} to={`/runs/${record.id}/sheet`} variant="outlined">
            Data sheet
          </Button>
          <Button component={Link} to={`/runs/${record.id}`} variant="outlined">
            Back to the run
          </Button>
        </>
      }
    >
      {!open && <Alert severity="info">This run is {record.status}: reopen it to enter more.</Alert>}
      {open && (
        <Box sx={{ display: "grid", gap: 2, gridTemplateColumns: "minmax(0,1fr)" }}>
          <Box sx={{ display: "flex", flexWrap: "wrap", gap: 2 }}>
            <TextField
              type="date"
              label="Date on the sheet"
              value={date}
              onChange={(event) => write({ date: event.target.value })}
              slotProps={{ inputLabel: { shrink: true }, htmlInput: { max: today } }}
              sx={{ width: 220 }}
            />
            <TextField
              label="Read by"
              value={person}
              onChange={(event) => write({ person: event.target.value })}
              slotProps={{ htmlInput: { maxLength: 120 } }}
              sx={{ width: 220 }}
            />
          </Box>
          {stages
            .filter(({ once, columns }) => once.length + columns.length > 0)
            .map((stage) => (
              <StageEntry key={stage.key} {...{ record, stage, date, person, texts, write, send }} />
            ))}
        </Box>
      )}
    </Page>
  );
}

/** The instant of a time on the sheet's day; null where none was written, undefined where what was written is none. */
function instantOf(date: string, time: string): string | null | undefined {
  if (time.trim() === "") return null;
  const minutes = clockMinutes(time);
  const at = dayjs(date)
    .startOf("day")
    .add(minutes ?? NaN, "minute");
  return minutes !== null && at.isValid() ? at.toISOString() : undefined;
}

/** The rows of a stage as they were typed; what is offered counts once something else of its row was typed. */
function typedRows(stage: SheetStage, texts: Texts, date: string): PaperRow[] {
  const text = (row: string, column: string) => texts[placeOf(stage.key, row, column)] ?? "";
  const cells = (row: string, columns: readonly SheetColumn[]) =>
    columns.map((column) => ({ column, text: text(row, column.key), id: newId() }));
  const at = (row: string) => instantOf(date, text(row, timeColumn));
  const once: PaperRow = { key: onceRow, trial: null, at: at(onceRow), cells: cells(onceRow, stage.once) };
  return [
    once,
    ...stage.rows.map(({ key, kind, trialId, offered }): PaperRow => {
      const typed = cells(key, stage.columns);
      const begun = typed.some((cell) => cell.text.trim() !== "");
      return {
        ...{ key, trial: { id: trialId ?? newId(), kind }, at: at(key) },
        cells: begun
          ? typed.map((cell) =>
              cell.text === "" ? { ...cell, text: offered.get(cell.column.key) ?? "" } : cell,
            )
          : typed,
      };
    }),
  ];
}

interface StageEntryProps {
  readonly record: RunRecord;
  readonly stage: SheetStage;
  readonly date: string;
  readonly person: string;
  readonly texts: Texts;
  readonly write: Write;
  readonly send: Send;
}

function StageEntry({ record, stage, date, person, texts, write, send }: StageEntryProps) {
  const read = useMemo(
    () =>
      readPaper(
        record,
        stage.key,
        typedRows(stage, texts, date),
        changeContext({ now: new Date(serverNow()).toISOString(), person, newId: () => newId() }),
      ),
    [record, stage, texts, date, person],
  );
  const { enter, said, busy, forget } = useEntering(read, send, () => {
    const own = Object.keys(texts).filter((key) => key.startsWith(`${stage.key} `));
    write(Object.fromEntries(own.map((key) => [key, null])));
  });
  const cell = (row: string, column: string, label: string, offered = "") => (
    <Cell
      label={label}
      text={texts[placeOf(stage.key, row, column)] ?? ""}
      offered={offered}
      time={column === timeColumn}
      note={read.notes.get(noteKey(row, column))}
      onType={(text) => {
        forget();
        write({ [placeOf(stage.key, row, column)]: text === "" ? null : text });
      }}
    />
  );
  return (
    <Sheet component="section" aria-label={stage.title} onKeyDown={toNextCell} sx={{ minWidth: 0 }}>
      <Typography variant="h2">{stage.title}</Typography>
      {stage.once.length > 0 && <ReadOnce stage={stage} cell={cell} />}
      {stage.columns.length > 0 && <Rows stage={stage} cell={cell} />}
      <Box sx={{ display: "flex", flexWrap: "wrap", alignItems: "center", gap: 2, mt: 1.5 }}>
        <Button variant={read.count > 0 ? "contained" : "outlined"} onClick={enter} disabled={busy}>
          {read.count > 0 ? `Enter ${counted(read.count, "reading")}` : "Enter the readings"}
        </Button>
        {said && (
          <Box
            role={said.well ? "status" : "alert"}
            sx={{ color: said.well ? colors.tealDeep : colors.brick, fontWeight: 600 }}
          >
            {said.text}
          </Box>
        )}
      </Box>
    </Sheet>
  );
}

/** Enters what was read from a form, and says what came of it. */
function useEntering({ request, count, notes }: PaperRead, send: Send, onEntered: () => void) {
  const [said, setSaid] = useState<{ readonly text: string; readonly well: boolean } | null>(null);
  const [busy, setBusy] = useState(false);
  const enter = () => {
    if (!request) {
      const grave = [...notes.values()].some((note) => note.grave);
      const text = grave
        ? "Mend what is marked first: nothing is entered by halves"
        : "Nothing was typed yet";
      return setSaid({ text, well: false });
    }
    setBusy(true);
    void send(request).then((answer) => {
      setBusy(false);
      if (!isTaken(answer)) return setSaid({ text: answer.message, well: false });
      onEntered();
      const where = answer.status === "waiting" ? " They wait in this browser until the server answers." : "";
      const what = capitalized(counted(count, "reading"));
      setSaid({ text: `${what} entered, marked as from paper.${where}`, well: true });
    });
  };
  return { enter, said, busy, forget: () => setSaid(null) };
}

interface WithCells {
  readonly stage: SheetStage;
  readonly cell: (row: string, column: string, label: string, offered?: string) => ReactNode;
}

function ReadOnce({ stage, cell }: WithCells) {
  return (
    <Box sx={{ display: "flex", flexWrap: "wrap", gap: 2, mt: 1 }}>
      {stage.once.map((column) => (
        <Once key={column.key} label={withUnit(column)} written={stage.onceWritten.get(column.key)}>
          {cell(onceRow, column.key, column.label)}
        </Once>
      ))}
      {stage.once.some(({ key }) => !stage.onceWritten.has(key)) && (
        <Once label="Time">{cell(onceRow, timeColumn, "Time of what is read once")}</Once>
      )}
    </Box>
  );
}

const withUnit = ({ label, field: { unit } }: SheetColumn) => (unit === "" ? label : `${label}, ${unit}`);

/** Enter goes on to the next place, as on the sheet. */
function toNextCell(event: KeyboardEvent<HTMLElement>) {
  if (event.key !== "Enter" || !(event.target instanceof HTMLInputElement)) return;
  event.preventDefault();
  const cells = [...event.currentTarget.querySelectorAll<HTMLElement>("input, button")];
  cells[cells.indexOf(event.target) + 1]?.focus();
}

interface OnceProps {
  readonly label: string;
  readonly written?: string | undefined;
  readonly children: ReactNode;
}

function Once({ label, written, children }: OnceProps) {
  return (
    <Box>
      <Box sx={{ fontSize: "0.92rem", color: colors.inkSoft, mb: 0.25 }}>{label}</Box>
      {written === undefined ? children : <Written text={written} />}
    </Box>
  );
}

const Written = ({ text }: { readonly text: string }) => (
  <Box sx={{ fontFamily: fonts.reading, py: 1, color: colors.tealDeep }}>{text} ✓</Box>
);

function Rows({ stage, cell }: WithCells) {
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
            <th scope="col">Flask</th>
            {stage.columns.map((column) => (
              <Box component="th" key={column.key} scope="col" sx={{ fontWeight: 600, maxWidth: 150 }}>
                {withUnit(column)}
              </Box>
            ))}
            <th scope="col">Time</th>
          </tr>
        </thead>
        <tbody>
          {stage.rows.map((row) => (
            <tr key={row.key}>
              <Box component="th" scope="row" sx={{ fontWeight: 600, pt: "14px !important" }}>
                {row.name}
              </Box>
              {stage.columns.map((column) => {
                const written = row.written.get(column.key);
                return (
                  <td key={column.key}>
                    {written === undefined ? (
                      cell(row.key, column.key, `${row.name}, ${column.label}`, row.offered.get(column.key))
                    ) : (
                      <Written text={written} />
                    )}
                  </td>
                );
              })}
              <td>{cell(row.key, timeColumn, `${row.name}, time`)}</td>
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

function Cell({ label, text, offered, time, note, onType }: CellProps) {
  return (
    <TextField
      value={text}
      onChange={(event) => onType(event.target.value)}
      placeholder={time ? "9:40" : offered}
      size="small"
      error={note?.grave === true}
      helperText={note?.message}
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
