import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { type KeyboardEvent, useMemo, useState } from "react";
import { v7 as newId } from "uuid";
import { changeContext } from "~/core/evaluate";
import { noteKey, type PaperRead, readPaper, type SheetStage, timeColumn } from "~/core/paper";
import type { RunRecord } from "~/core/run";
import { capitalized, counted } from "~/core/text";
import { isTaken } from "../../live/post";
import { serverNow } from "../../live/timers";
import { colors } from "../../theme/theme";
import { Sheet } from "../../ui/sheet";
import type { Send } from "../../entry/use-run";
import { Cell, ReadOnce, Rows } from "./cells";
import { placeOf, type Texts, typedRows } from "./typed-rows";
import { useSay } from "../../words/text";

interface StageEntryProps {
  readonly record: RunRecord;
  readonly stage: SheetStage;
  readonly date: string;
  readonly person: string;
  readonly texts: Texts;
  readonly write: (change: Readonly<Record<string, string | null>>) => void;
  readonly send: Send;
}

/** The readings of one stage as they stand on the sheet, checked while they are typed and entered together. */
export function StageEntry({ record, stage, date, person, texts, write, send }: StageEntryProps) {
  const say = useSay();
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
  const { enter, outcome, busy, forget } = useEntering(read, send, () => {
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
      {stage.definition.kind === "curve" && (
        <Typography color="textSecondary" sx={{ mt: 1 }}>
          {say`Enter these first. The pairs of the curve are then typed or pasted in the run: the chart grows with them.`}
        </Typography>
      )}
      <Box sx={{ display: "flex", flexWrap: "wrap", alignItems: "center", gap: 2, mt: 1.5 }}>
        <Button variant={read.count > 0 ? "contained" : "outlined"} onClick={enter} disabled={busy}>
          {read.count > 0 ? say`Enter ${counted(read.count, "reading")}` : say`Enter the readings`}
        </Button>
        {outcome && (
          <Box
            role={outcome.well ? "status" : "alert"}
            sx={{ color: outcome.well ? colors.tealDeep : colors.brick, fontWeight: 600 }}
          >
            {outcome.text}
          </Box>
        )}
      </Box>
    </Sheet>
  );
}

/** Enters what was read from a form, and says what came of it. */
function useEntering({ request, count, notes }: PaperRead, send: Send, onEntered: () => void) {
  const say = useSay();
  const [outcome, setOutcome] = useState<{ readonly text: string; readonly well: boolean } | null>(null);
  const [busy, setBusy] = useState(false);
  const enter = () => {
    if (!request) {
      const grave = [...notes.values()].some((note) => note.grave);
      const text = grave
        ? say`Fix the marked fields first. Nothing has been entered yet.`
        : say`No readings typed yet`;
      return setOutcome({ text, well: false });
    }
    setBusy(true);
    void send(request).then((answer) => {
      setBusy(false);
      if (!isTaken(answer)) return setOutcome({ text: say(answer.message), well: false });
      onEntered();
      const where =
        answer.status === "waiting" ? say` They wait in this browser until the server answers.` : "";
      const what = capitalized(counted(count, "reading"));
      setOutcome({ text: say`${what} entered, marked as from paper.${where}`, well: true });
    });
  };
  return { enter, outcome, busy, forget: () => setOutcome(null) };
}

/** Enter goes on to the next place, as on the sheet. */
function toNextCell(event: KeyboardEvent<HTMLElement>) {
  if (event.key !== "Enter" || !(event.target instanceof HTMLInputElement)) return;
  event.preventDefault();
  const cells = [...event.currentTarget.querySelectorAll<HTMLElement>("input, button")];
  cells[cells.indexOf(event.target) + 1]?.focus();
}
