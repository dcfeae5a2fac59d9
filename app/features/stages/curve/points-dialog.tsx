import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import Box from "@mui/material/Box";
import { useMemo, useState } from "react";
import { v7 as newId } from "uuid";
import type { Enter } from "~/core/change";
import { meterOf } from "~/core/inputs";
import { dropsPerMl } from "~/core/rules";
import type { CurveEvaluation, CurveStageEvaluation } from "~/core/stages";
import { msg, type Phrase } from "~/core/text";
import { readCurveTable } from "~/formats/curve-table";
import { useRunInHand } from "../../../entry/run-context";
import { isTaken } from "../../../live/post";
import { colors, fonts } from "../../../theme/theme";
import { FormDialog } from "../../../ui/form-dialog";
import { TableFile } from "../shared/table-file";
import { useSay } from "../../../words/text";
import { curveInputOf } from "./use-curve-entry";

interface PointsDialogProps {
  readonly stage: CurveStageEvaluation;
  readonly curve: CurveEvaluation;
  readonly onClose: () => void;
}

/** What the column before the last one of a table is. */
type Column = "readings" | "volumes" | "drops";
const columns: Readonly<Record<Column, Phrase>> = {
  readings: msg`readings of the burette, mL`,
  volumes: msg`volumes added, mL`,
  drops: msg`drops counted`,
};

/** Points that one request takes, and that a curve takes from a table. */
const [perRow, mostPoints] = [200, 1000];

/** A table of points as it is typed, and what becomes of it. */
function usePointsTable({ stage, curve, onClose }: PointsDialogProps) {
  const { send, rules, record } = useRunInHand();
  const [text, setText] = useState("");
  const [column, setColumn] = useState<Column>("readings");
  const [problem, setProblem] = useState<Phrase | null>(null);
  const input = curveInputOf(stage);
  const startMl = curve.startMl ?? 0;
  const table = useMemo(() => {
    const mlEach = column === "drops" ? 1 / Number(dropsPerMl(rules)) : 1;
    return readCurveTable(text, {
      ...{ startMl: column === "readings" ? startMl : 0, mlEach, leastPoints: 1 },
      meter: meterOf(input),
    });
  }, [text, column, rules, startMl, input]);
  const count = table.points.length;
  const take = async () => {
    const [wrong] = table.problems;
    if (wrong !== undefined) return setProblem(wrong);
    if (count === 0) return setProblem(msg`Paste the table first, or choose a file`);
    if (count > mostPoints) return setProblem(msg`A curve takes up to ${mostPoints} points: leave some out`);
    const readings = table.points.map(({ volume }, i) => {
      const read = table.texts[i]?.volume ?? "";
      const burette = column === "readings" ? read : String(Number((startMl + volume).toFixed(4)));
      return {
        ...{ id: newId(), symbol: input.symbol, kind: "point" as const, person: record.bench },
        ...{ text: table.texts[i]?.value ?? "", point: { burette } },
      };
    });
    const trial = { id: curve.id, kind: "fine" } as const;
    const rows: Enter["rows"] = [];
    for (let i = 0; i < readings.length; i += perRow)
      rows.push({ trial, readings: readings.slice(i, i + perRow) });
    const answer = await send({ intent: "enter", stageKey: stage.key, source: "imported", rows });
    if (isTaken(answer)) onClose();
    else setProblem(answer.message);
  };
  const type = (next: string) => {
    setProblem(null);
    setText(next);
  };
  return { text, type, column, setColumn, problems: table.problems, problem, count, take };
}

/** Points of a curve from a table: pasted, or a file of a logger; looked over before they are taken. */
export function PointsDialog(props: PointsDialogProps) {
  const say = useSay();
  const { text, type, column, setColumn, problems, problem, count, take } = usePointsTable(props);
  return (
    <FormDialog
      title={say`Points from a table`}
      submit={count > 0 ? say`Take ${count} points` : say`Take the points`}
      onSubmit={() => void take()}
      onClose={props.onClose}
    >
      <Typography color="textSecondary">
        {say`A line for each point; of more columns the last two count, so that a logger’s times may stand before them. Headings are passed over.`}
      </Typography>
      <TextField
        select
        size="small"
        label={say`First of the two columns`}
        value={column}
        onChange={(event) => setColumn(event.target.value as Column)}
      >
        {Object.entries(columns).map(([key, words]) => (
          <MenuItem key={key} value={key}>
            {say(words)}
          </MenuItem>
        ))}
      </TextField>
      <TextField
        label={say`Table`}
        multiline
        minRows={6}
        maxRows={14}
        value={text}
        autoFocus
        placeholder={"0.00\t2.71\n1.00\t3.02"}
        onChange={(event) => type(event.target.value)}
        slotProps={{
          htmlInput: { style: { fontFamily: fonts.reading, fontSize: "0.92rem", whiteSpace: "pre" } },
          inputLabel: { shrink: true },
        }}
      />
      <TableFile onText={type} />
      {problems.length > 0 && (
        <Box component="ul" sx={{ m: 0, pl: 2.5, color: colors.brick }}>
          {problems.map((one) => (
            <li key={say(one)}>{say(one)}</li>
          ))}
        </Box>
      )}
      {problem && (
        <Typography role="alert" sx={{ color: colors.brick, fontWeight: 600 }}>
          {say(problem)}.
        </Typography>
      )}
    </FormDialog>
  );
}
