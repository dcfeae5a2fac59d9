import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import { useMemo } from "react";
import { Link } from "react-router";
import { dataSheet } from "~/core/paper";
import type { RunState } from "~/protocol/answers";
import { Page } from "../../ui/page";
import { useRun } from "../../entry/use-run";
import { StageEntry } from "./stage-entry";
import { today } from "./typed-rows";
import { useTyped } from "./use-typed";
import { useSay } from "../../words/text";

/** What was written on a data sheet, entered later: in the order of the sheet, with the times that stand on it. */
export function PaperPage({ loaded }: { readonly loaded: RunState }) {
  const say = useSay();
  const { record, send } = useRun(loaded);
  const [texts, write] = useTyped(`steady-bead.paper.${record.id}`);
  const date = texts.date ?? today();
  const person = texts.person ?? record.bench;
  const stages = useMemo(() => dataSheet(record.method, record.houseRules, record), [record]);
  const open = record.status === "open";
  return (
    <Page
      width={1100}
      title={say`Enter from paper`}
      note={say`${record.title}: type in the readings from the data sheet, with the times written on it. They are marked as entered from paper.`}
      actions={
        <>
          <Button component={Link} to={`/runs/${record.id}/sheet`} variant="outlined">
            {say`Data sheet`}
          </Button>
          <Button component={Link} to={`/runs/${record.id}`} variant="outlined">
            {say`Back to the run`}
          </Button>
        </>
      }
    >
      {!open && <Alert severity="info">{say`This run is ${record.status}: reopen it to enter more.`}</Alert>}
      {open && (
        <Box sx={{ display: "grid", gap: 2, gridTemplateColumns: "minmax(0,1fr)" }}>
          <Box sx={{ display: "flex", flexWrap: "wrap", gap: 2 }}>
            <TextField
              type="date"
              label={say`Date on the sheet`}
              value={date}
              onChange={(event) => write({ date: event.target.value })}
              slotProps={{ inputLabel: { shrink: true }, htmlInput: { max: today() } }}
              sx={{ width: 220 }}
            />
            <TextField
              label={say`Read by`}
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
