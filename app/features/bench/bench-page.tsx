import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { Link, useSearchParams } from "react-router";
import type { RunListItem, RunSearchResult } from "~/protocol/answers";
import type { SolutionView } from "~/protocol/shelf";
import { Sheet } from "../../ui/sheet";
import { When } from "../../ui/when";
import { DueBottles } from "./due-bottles";
import { FinishedRuns } from "./finished-runs";
import { RunCard } from "./run-card";
import { type MethodChoice, StartRunDialog } from "./start-run-dialog";

interface BenchPageProps {
  query: string;
  today: string;
  open: readonly RunListItem[];
  finished: RunSearchResult;
  /** Bottles to standardize anew: past their date, or due within days. */
  due: readonly SolutionView[];
  methods: readonly MethodChoice[];
  /** Id of the method that is offered first. */
  usualMethod: string | null;
  /** What is wrong with the lab's data or backups, a sentence each. */
  troubles: readonly string[];
}

/** Home: the runs in progress with what to do next, a new run, and the finished ones. */
export function BenchPage({
  query,
  today,
  open,
  finished,
  due,
  methods,
  usualMethod,
  troubles,
}: BenchPageProps) {
  // The page of a method sends people here to begin a run by it.
  const [search] = useSearchParams();
  const asked = search.get("start");
  const [starting, setStarting] = useState(asked !== null);
  return (
    <Box component="main" sx={{ maxWidth: 1480, mx: "auto", px: { xs: 2, sm: 3 }, py: 2 }}>
      <Box sx={{ display: "flex", alignItems: "center", gap: 1.5, flexWrap: "wrap", mb: 1.5 }}>
        <Typography variant="h1">On the bench</Typography>
        <Typography color="textSecondary" sx={{ flexGrow: 1 }}>
          <When at={today} as="long" />
        </Typography>
        <Button variant="contained" size="large" onClick={() => setStarting(true)}>
          Start a run
        </Button>
      </Box>
      {troubles.map((trouble) => (
        <Alert key={trouble} severity="warning" sx={{ mb: 1.5 }}>
          {trouble} <Link to="/lab">See the lab</Link>
        </Alert>
      ))}
      <Box
        sx={{
          display: "grid",
          gap: 2,
          gridTemplateColumns: { xs: "minmax(0, 1fr)", lg: "minmax(0, 1fr) 320px" },
          alignItems: "start",
        }}
      >
        <Box component="section" aria-label="Runs in progress" sx={{ display: "grid", gap: 1.75 }}>
          {open.length === 0 && <EmptyBench />}
          {open.map((run) => (
            <RunCard key={run.id} run={run} />
          ))}
        </Box>
        <Box sx={{ display: "grid", gap: 2 }}>
          <DueBottles due={due} />
          <FinishedRuns query={query} finished={finished} />
        </Box>
      </Box>
      <StartRunDialog
        open={starting}
        methods={methods}
        usual={asked ?? usualMethod}
        onClose={() => setStarting(false)}
      />
    </Box>
  );
}

function EmptyBench() {
  return (
    <Sheet sx={{ p: 4, textAlign: "center" }}>
      <Typography variant="h2">Nothing is on the bench</Typography>
      <Typography color="textSecondary" sx={{ mt: 0.5 }}>
        Start a run: pick a method, name the sample, and begin with the first flask.
      </Typography>
    </Sheet>
  );
}
