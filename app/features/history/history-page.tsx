import Button from "@mui/material/Button";
import { useState } from "react";
import { Link, useNavigation } from "react-router";
import { counted } from "~/core/text";
import type { HistoryQuery, HistoryResult, TimedResult } from "~/protocol/history";
import { ForInstructors } from "../../access/viewer";
import { Page } from "../../ui/page";
import { useSay } from "../../words/text";
import { ControlChartSheet } from "./control-chart-sheet";
import { Filters, type FiltersProps } from "./filters";
import { RunsGrid } from "./runs-grid";
import { SelectionBar } from "./selection-bar";

interface HistoryPageProps extends FiltersProps {
  readonly asked: HistoryQuery;
  readonly history: HistoryResult;
  readonly inTime: readonly TimedResult[];
}

/** All runs of the lab: search, control chart, export. */
export function HistoryPage({ asked, history, inTime, methods, results }: HistoryPageProps) {
  const say = useSay();
  const [selected, setSelected] = useState<readonly string[]>([]);
  const navigation = useNavigation();
  const loading = navigation.state === "loading" && navigation.location.pathname === "/history";
  return (
    <Page
      title={say`History`}
      note={say`${counted(history.total, "run")} found. Choose a result for its control chart.`}
      actions={
        <ForInstructors>
          <Button component={Link} to="/history/import" variant="outlined">
            {say`Import …`}
          </Button>
          <Button component="a" href="/history/archive" variant="outlined" download>
            {say`Export the lab (ZIP)`}
          </Button>
        </ForInstructors>
      }
    >
      <Filters methods={methods} results={results} />
      {asked.result && <ControlChartSheet result={asked.result} values={inTime} />}
      <SelectionBar selected={selected} onClear={() => setSelected([])} />
      <RunsGrid
        history={history}
        asked={asked}
        loading={loading}
        selected={selected}
        onSelect={setSelected}
      />
    </Page>
  );
}
