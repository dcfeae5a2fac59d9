import Box from "@mui/material/Box";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useMemo, useState } from "react";
import { v7 as newId } from "uuid";
import type { Input } from "~/core/inputs";
import { type CalibrationEvaluation, seriesKind, seriesUnit } from "~/core/stages";
import { presentObservation } from "~/core/record";
import { readReadingsTable, type ReadingsTable } from "~/formats/readings-table";
import type { Enter } from "~/core/change";
import { useRunInHand } from "../../../entry/run-context";
import { isTaken } from "../../../live/post";
import { colors, fonts } from "../../../theme/theme";
import { FormDialog } from "../../../ui/form-dialog";
import { TableFile } from "../shared/table-file";
import { useSay } from "../../../words/text";
import { type Phrase, msg, unitText, uncapitalized } from "~/core/text";

interface PasteDialogProps {
  stage: CalibrationEvaluation;
  symbols: { readonly reading: string; readonly blank: string | null };
  onClose: () => void;
}

/** The requests that a table comes to: a row for each flask, those that are there already and new ones. */
function rowsFor(
  { rows }: ReadingsTable,
  stage: CalibrationEvaluation,
  symbols: PasteDialogProps["symbols"],
): Enter["rows"] {
  const { series } = stage.definition;
  const kind = seriesKind(stage.definition);
  return rows.flatMap(({ amount, readings }): Enter["rows"] => {
    if (readings.length === 0) return [];
    const symbol = amount === "blank" ? symbols.blank : symbols.reading;
    if (symbol === null) return [];
    const read = readings.map((r) => ({ id: newId(), symbol, kind: r.kind, text: r.text, person: r.person }));
    if (amount === "blank") return [{ trial: null, readings: read }];
    const there = stage.levels.find(
      (l) =>
        !l.record.struck &&
        Number(presentObservation(l.record.observations, series.symbol, kind)?.value) === Number(amount),
    );
    if (there) return [{ trial: { id: there.id, kind: "fine" }, readings: read }];
    const taken = {
      id: newId(),
      symbol: series.symbol,
      kind,
      text: amount,
      person: readings[0]?.person ?? "",
    };
    return [{ trial: { id: newId(), kind: "fine" }, readings: [taken, ...read] }];
  });
}

/** A class's readings as a table: pasted, or from a file; looked over before they are taken. */
export function PasteDialog({ stage, symbols, onClose }: PasteDialogProps) {
  const say = useSay();
  const { send } = useRunInHand();
  const [text, setText] = useState("");
  const [problem, setProblem] = useState<Phrase | null>(null);
  const [busy, setBusy] = useState(false);
  const unit = seriesUnit(stage.definition);
  const table = useMemo(() => (text.trim() === "" ? null : readReadingsTable(text, unit)), [text, unit]);
  const count = table?.rows.reduce((sum, r) => sum + r.readings.length, 0) ?? 0;
  const input = stage.definition.inputs.find((i) => i.symbol === stage.definition.series.symbol);
  const submit = () => {
    if (!table) return setProblem(say`Paste the table first, or choose a file`);
    if (table.problems.length > 0)
      return setProblem(say`Fix what is marked first; nothing has been entered yet`);
    setBusy(true);
    void send({
      intent: "enter",
      stageKey: stage.key,
      source: "imported",
      rows: rowsFor(table, stage, symbols),
    }).then((answer) => {
      setBusy(false);
      if (isTaken(answer)) onClose();
      else setProblem(answer.message);
    });
  };
  return (
    <FormDialog
      title={say`A class’s readings`}
      submit={table && table.problems.length === 0 ? say`Take ${count} readings` : say`Take the readings`}
      onSubmit={() => !busy && submit()}
      onClose={onClose}
    >
      <HowToPaste input={input} unit={unit} />
      <TextField
        label={say`Table`}
        multiline
        minRows={6}
        maxRows={14}
        value={text}
        autoFocus
        placeholder={say`mL	Bench 1	Bench 2
2.00	0.141	0.139`}
        onChange={(event) => {
          setProblem(null);
          setText(event.target.value);
        }}
        slotProps={{
          htmlInput: { style: { fontFamily: fonts.reading, fontSize: "0.92rem", whiteSpace: "pre" } },
          inputLabel: { shrink: true },
        }}
      />
      <TableFile onText={setText} />
      {table && <Preview table={table} />}
      {problem && (
        <Typography role="alert" sx={{ color: colors.brick, fontWeight: 600 }}>
          {say(problem)}
        </Typography>
      )}
    </FormDialog>
  );
}

function HowToPaste({ input, unit }: { readonly input: Input | undefined; readonly unit: string }) {
  const say = useSay();
  return (
    <Typography color="textSecondary">
      {say`A row for each flask: ${uncapitalized(input?.label ?? msg`amount`)}${unit && msg` in ${unitText(unit)}`}, then one reading of each person. A heading may name them; “blank” is the blank; 62.3 % is a transmittance.`}
    </Typography>
  );
}

function Preview({ table }: { table: ReadingsTable }) {
  const say = useSay();
  const people = [...new Set(table.rows.flatMap((r) => r.readings.map((x) => x.person)))];
  return (
    <Box aria-live="polite">
      {table.problems.length > 0 ? (
        <Box component="ul" data-testid="table-problems" sx={{ m: 0, pl: 2.5, color: colors.brick }}>
          {table.problems.slice(0, 8).map((p) => (
            <li key={`${p.row} ${p.column}`}>{say`Row ${p.row}, column ${p.column}: ${p.message}`}</li>
          ))}
          {table.problems.length > 8 && <li>{say`and ${table.problems.length - 8} more`}</li>}
        </Box>
      ) : (
        <Typography>
          {say`${table.rows.length} flasks, ${people.length} ${people.length === 1 ? say`reader` : say`readers`}: ${people.join(", ")}`}
          {table.empty > 0 && say`; ${table.empty} empty cells skipped`}.
        </Typography>
      )}
    </Box>
  );
}
