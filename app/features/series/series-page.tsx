import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import { Link, useSearchParams } from "react-router";
import type { SeriesTable } from "~/core/evaluate";
import { msg, unitText } from "~/core/text";
import { Page } from "../../ui/page";
import { Sheet } from "../../ui/sheet";
import { useSay } from "../../words/text";
import { ResultsTable, Scatter } from "./results-table";

interface SeriesPageProps {
  readonly seriesId: string;
  readonly method: { readonly id: string; readonly title: string };
  readonly table: SeriesTable;
}

/** Runs of one method that were begun with or like each other: their results in one table. */
export function SeriesPage({ seriesId, method, table }: SeriesPageProps) {
  const say = useSay();
  const [search, setSearch] = useSearchParams();
  const { rows, name, unit, units } = table;
  const done = rows.filter(({ shown, done: isDone }) => shown && isDone).length;
  const last = rows.at(-1);
  const asked = search.get("unit");
  return (
    <Page
      title={say`Table of results`}
      note={
        <>
          {method.title}, {say(msg`${done} of ${rows.length} with a result`)}
        </>
      }
      actions={
        <>
          {units.length > 1 && (
            <TextField
              select
              size="small"
              label={say`Unit`}
              value={unit}
              onChange={(event) => setSearch({ unit: event.target.value }, { preventScrollReset: true })}
              slotProps={{ select: { native: true } }}
              sx={{ width: 130 }}
            >
              {units.map((one) => (
                <option key={one} value={one}>
                  {say(unitText(one))}
                </option>
              ))}
            </TextField>
          )}
          <Button
            component="a"
            href={`/series/${seriesId}/export${asked === null ? "" : `?unit=${encodeURIComponent(asked)}`}`}
            variant="outlined"
            download
          >
            {say`Save as a table (CSV)`}
          </Button>
          {last && (
            <Button component={Link} to={`/?start=${method.id}&again=${last.runId}`} variant="contained">
              {say`Same again …`}
            </Button>
          )}
        </>
      }
    >
      <Sheet component="section" aria-label={name} sx={{ px: 0, py: 0.5 }}>
        <Box
          sx={{ overflowX: "auto" }}
          role="region"
          aria-label={say`Table of results`}
          // A table that may scroll sideways must be reachable by keyboard.
          tabIndex={0}
        >
          <ResultsTable table={table} />
        </Box>
      </Sheet>
      <Scatter table={table} />
    </Page>
  );
}
