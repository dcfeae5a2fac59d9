import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { lazy, Suspense, useState } from "react";
import { Link, useNavigate, useSearchParams } from "react-router";
import type { MethodChoice, RunListItem, RunSearchResult } from "~/protocol/answers";
import type { SolutionView } from "~/protocol/shelf";
import { pageMargins } from "../../ui/page";
import { When } from "../../ui/when";
import { DueBottles } from "./due-bottles";
import { FinishedRuns } from "./finished-runs";
import { FirstSteps } from "./first-steps";
import { OpenRuns } from "./open-runs";
import { methodsFor, type Way } from "./ways";
import { useSay } from "../../words/text";

// Comes when a run is started.
const StartRunDialog = lazy(() => import("./start-run-dialog").then((m) => ({ default: m.StartRunDialog })));

const columns = {
  display: "grid",
  gap: 2,
  gridTemplateColumns: { xs: "minmax(0, 1fr)", lg: "minmax(0, 1fr) 320px" },
  alignItems: "start",
} as const;

interface BenchPageProps {
  query: string;
  archived: boolean;
  today: string;
  open: readonly RunListItem[];
  finished: RunSearchResult;
  /** Bottles to restandardize: past their date, or due within days. */
  due: readonly SolutionView[];
  methods: readonly MethodChoice[];
  /** The bench or person of the run that is to be begun again. */
  againAt: string;
  /** What is wrong with the lab's data or backups, a sentence each. */
  troubles: readonly string[];
}

/** Home: the runs in progress with what to do next, a new run, and the finished ones. */
export function BenchPage(props: BenchPageProps) {
  const say = useSay();
  const { query, archived, today, open, finished, due, methods, againAt, troubles } = props;
  // The page of a method sends people here to begin a run by it, and a run to begin the next one.
  const [search] = useSearchParams();
  const navigate = useNavigate();
  const asked = search.get("start");
  const [starting, setStarting] = useState<Way | "any" | null>(null);
  const close = () => {
    setStarting(null);
    if (asked !== null) void navigate("/", { replace: true, preventScrollReset: true });
  };
  const shown = methodsFor(methods, starting === "any" ? null : starting);
  return (
    <Box component="main" sx={pageMargins}>
      <Box sx={{ display: "flex", alignItems: "center", gap: 1.5, flexWrap: "wrap", mb: 1.5 }}>
        <Typography variant="h1">{say`On the bench`}</Typography>
        <Typography color="textSecondary" sx={{ flexGrow: 1 }}>
          <When at={today} as="long" />
        </Typography>
        <Button variant="contained" size="large" onClick={() => setStarting("any")}>
          {say`Start a run`}
        </Button>
      </Box>
      {troubles.map((trouble) => (
        <Alert key={trouble} severity="warning" sx={{ mb: 1.5 }}>
          {trouble} <Link to="/lab">{say`See the lab`}</Link>
        </Alert>
      ))}
      <Box sx={columns}>
        <Box component="section" aria-label={say`Runs in progress`} sx={{ display: "grid", gap: 1.75 }}>
          {open.length === 0 ? (
            <FirstSteps
              empty={finished.total === 0 && query === "" && !archived}
              onStart={(way) => setStarting(way ?? "any")}
            />
          ) : (
            <OpenRuns runs={open} />
          )}
        </Box>
        <Box sx={{ display: "grid", gap: 2 }}>
          <DueBottles due={due} />
          <FinishedRuns query={query} archived={archived} finished={finished} />
        </Box>
      </Box>
      {(starting !== null || asked !== null) && (
        <Suspense>
          <StartRunDialog
            methods={starting === null ? methods : shown}
            beginning={
              starting === null && asked !== null
                ? { methodId: asked, bench: againAt, like: search.get("again") ?? "" }
                : null
            }
            onClose={close}
          />
        </Suspense>
      )}
    </Box>
  );
}
