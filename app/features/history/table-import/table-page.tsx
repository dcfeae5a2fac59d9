import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import LinearProgress from "@mui/material/LinearProgress";
import Typography from "@mui/material/Typography";
import { Link } from "react-router";
import { counted } from "~/core/text";
import { sayWho } from "~/protocol/answers";
import type { LookedTable, TableStage } from "~/protocol/table-import";
import { colors, fonts } from "../../../theme/theme";
import { Page } from "../../../ui/page";
import { Sheet } from "../../../ui/sheet";
import { useWhoWhy, Who } from "../../../ui/who-why";
import { useSay } from "../../../words/text";
import { ColumnsSheet } from "./columns-sheet";
import { SourceSheet } from "./source-sheet";
import { type Progress, type Table, useTable } from "./use-table";

/** Imports the trials of a table: pasted, or from a file of a spreadsheet. */
export function TablePage({ stages }: { readonly stages: readonly TableStage[] }) {
  const say = useSay();
  const table = useTable(stages);
  const { mapping, looked, taken, problem, notice, progress } = table;
  return (
    <Page
      width={1120}
      title={say`Import a table`}
      note={say`Each row is a trial or a flask; rows of the same sample and day become one run. Nothing is imported until you have seen the check.`}
      actions={
        <Button component={Link} to="/history" variant="outlined">
          {say`Back to the history`}
        </Button>
      }
    >
      <Box sx={{ display: "grid", gap: 2, gridTemplateColumns: "minmax(0, 1fr)" }}>
        <SourceSheet table={table} />
        {table.table && mapping && (
          <ColumnsSheet stages={stages} opened={table.table} mapping={mapping} table={table} />
        )}
        {table.table && mapping && table.targets.length > 0 && <Check table={table} looked={looked} />}
        {/* In sight wherever on the page the button was that began it. */}
        <Box role="status" sx={{ display: "grid", gap: 1, position: "sticky", bottom: 16, zIndex: 1 }}>
          {progress && progress.of > 0 && <Working progress={progress} cancel={table.cancel} />}
          {problem && problem !== sayWho && <Alert severity="error">{say(problem)}.</Alert>}
          {notice && <Alert severity="info">{say(notice)}.</Alert>}
          {taken && (
            <Alert
              severity="success"
              action={<Button component={Link} to="/history">{say`To the history`}</Button>}
            >
              {say`Imported: ${counted(taken.runs, "run")}.`}
              {taken.isHere > 0 && ` ${say`${counted(taken.isHere, "run")} were here already.`}`}
            </Alert>
          )}
        </Box>
      </Box>
    </Page>
  );
}

/** How far it has come; it can be stopped. */
function Working({
  progress: { what, done, of },
  cancel,
}: {
  readonly progress: Progress;
  readonly cancel: () => void;
}) {
  const say = useSay();
  return (
    <Sheet sx={{ display: "flex", gap: 2, alignItems: "center" }}>
      <Box sx={{ flex: 1 }}>
        <Typography>
          {what === "reading" ? say`Reading run ${done} of ${of}` : say`Writing run ${done} of ${of}`}
        </Typography>
        <LinearProgress variant="determinate" value={(100 * done) / of} aria-label={say`Progress`} />
      </Box>
      <Button variant="outlined" onClick={cancel}>
        {say`Stop`}
      </Button>
    </Sheet>
  );
}

/** What becomes of the table, and the button that imports it. */
function Check({ table, looked }: { readonly table: Table; readonly looked: LookedTable | null }) {
  const say = useSay();
  const by = useWhoWhy();
  const busy = table.progress !== null;
  const fresh = looked ? looked.runs - looked.isHere : 0;
  const take = () => {
    if (by.person.trim() === "") return table.setProblem(sayWho);
    by.remember();
    void table.take(by.person.trim());
  };
  return (
    <Sheet component="section" aria-labelledby="table-check" sx={{ display: "grid", gap: 1.5, minWidth: 0 }}>
      <Typography id="table-check" variant="h2">
        {say`3. Check and import`}
      </Typography>
      {!looked && (
        <Button
          variant="contained"
          sx={{ justifySelf: "start" }}
          disabled={busy}
          onClick={() => void table.look()}
        >
          {say`Check the table`}
        </Button>
      )}
      {looked && <Found looked={looked} />}
      {looked && looked.problems.length === 0 && fresh > 0 && (
        <Box sx={{ display: "flex", gap: 2, flexWrap: "wrap", alignItems: "flex-start" }}>
          <Box sx={{ width: 260 }}>
            <Who by={by} problem={table.problem === sayWho ? sayWho : undefined} />
          </Box>
          <Button variant="contained" size="large" disabled={busy} onClick={take}>
            {say`Import ${counted(fresh, "run")}`}
          </Button>
        </Box>
      )}
    </Sheet>
  );
}

/** A column as a spreadsheet names it: A to Z, AA to AZ, BA and on. */
const columnName = (column: number): string =>
  (column < 26 ? "" : columnName(Math.floor(column / 26) - 1)) + String.fromCharCode(65 + (column % 26));

function Found({ looked }: { readonly looked: LookedTable }) {
  const say = useSay();
  const { problems, runs, isHere, withoutResult, some } = looked;
  if (problems.length > 0)
    return (
      <Alert severity="error">
        {say`Correct this in the table or in its columns. Nothing is imported until then:`}
        <Box component="ul" sx={{ m: 0, pl: 2.5 }}>
          {problems.map(({ row, column, message }, i) => (
            <li key={i}>
              {column === null ? say`Row ${row}` : say`Row ${row}, column ${columnName(column)}`}:{" "}
              {say(message)}.
            </li>
          ))}
        </Box>
      </Alert>
    );
  return (
    <>
      <Typography>
        {say`The table holds ${counted(runs, "run")}.`}
        {isHere > 0 && ` ${say`${isHere} of them are in the lab already and stay as they are.`}`}
        {withoutResult > 0 && ` ${say`${withoutResult} of them have no result yet and stay open.`}`}
      </Typography>
      <Runs some={some} />
      {runs > some.length && (
        <Typography color="textSecondary">{say`and ${runs - some.length} more`}</Typography>
      )}
    </>
  );
}

/** The runs of a table, the first of them. */
function Runs({ some }: Pick<LookedTable, "some">) {
  const say = useSay();
  const hasLine = some.some(({ flasks }) => flasks.standards + flasks.blanks > 0);
  const counts = hasLine ? [say`Standards`, say`Blanks`, say`Flasks`] : [say`Trials`];
  return (
    <Box sx={{ overflowX: "auto" }} tabIndex={0} role="region" aria-label={say`Runs of the table`}>
      <Box
        component="table"
        sx={{
          ...{ borderCollapse: "collapse", width: 1 },
          "& th, & td": { textAlign: "left", py: 0.5, pr: 2, borderBottom: `1px solid ${colors.line}` },
          // A long reason in the last column leaves names and rows in one line.
          "& td:nth-of-type(1)": { minWidth: "9rem" },
          "& td:nth-of-type(2)": { whiteSpace: "nowrap" },
        }}
      >
        <thead>
          <tr>
            {[say`Run`, say`Rows`, ...counts, say`Result`].map((head) => (
              <th key={head} scope="col">
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {some.map((run, i) => (
            <tr key={i}>
              <td>
                {run.title}
                {run.isHere && ` (${say`here already`})`}
              </td>
              <td>{run.rows[0] === run.rows[1] ? run.rows[0] : `${run.rows[0]}–${run.rows[1]}`}</td>
              {hasLine && (
                <>
                  <td>{run.flasks.standards}</td>
                  <td>{run.flasks.blanks}</td>
                </>
              )}
              <td>{run.trials}</td>
              <td style={{ fontFamily: run.open === null ? fonts.reading : fonts.text }}>
                {run.open === null ? say(run.result ?? "") : say(run.open)}
              </td>
            </tr>
          ))}
        </tbody>
      </Box>
    </Box>
  );
}
