import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useFetcher } from "react-router";
import type { Method } from "~/core/method";
import type { MethodProblem } from "~/core/stages";
import { methodProblemWords } from "~/words/method-problems";
import type { PathProblem } from "~/formats/validate";
import { colors } from "../../../theme/theme";
import { Sheet } from "../../../ui/sheet";
import { useWhoWhy, WhoWhy } from "../../../ui/who-why";
import { useSay } from "../../../words/text";
import { type Phrase } from "~/core/text";

interface Answer {
  readonly problems: readonly PathProblem[];
}

interface SavePanelProps {
  method: Method;
  /** What the check found, and whether a stage shows it already. */
  problem: MethodProblem | null;
  markedInStage: boolean;
  /** What is still to be filled in, a sentence each. */
  missing: readonly Phrase[];
  /** What does not keep it from being saved, and should be known. */
  unused: readonly Phrase[];
}

const isBy = ({ path }: PathProblem) => path === "person" || path === "reason";

/** Whether the method passes the check, what the server says of it, and how to save it: by whom and why. */
export function SavePanel({ method, problem, markedInStage, missing, unused }: SavePanelProps) {
  const say = useSay();
  const fetcher = useFetcher<Answer>();
  const by = useWhoWhy();
  const { person, reason } = by;
  const save = () => {
    by.remember();
    void fetcher.submit({ method: JSON.stringify(method), person, reason }, { method: "post" });
  };
  const answered = fetcher.state === "idle" ? (fetcher.data?.problems ?? []) : [];
  const unsaid = Object.fromEntries(
    answered
      .filter(isBy)
      .map(({ path, message }) => [
        path,
        by[path as "person" | "reason"].trim() === "" ? message : undefined,
      ]),
  );
  return (
    <Sheet component="section" aria-label={say`Check`} aria-live="polite">
      <Typography variant="h2" sx={{ mb: 1 }}>
        {say`Check`}
      </Typography>
      {problem && (
        <Alert severity="error">
          {markedInStage ? say`Not yet: see the marked stage.` : say`${methodProblemWords(problem)}.`}
        </Alert>
      )}
      {missing.map((gap) => (
        <Box key={say(gap)} sx={{ color: colors.amberDeep, mt: 0.5 }}>
          {say(gap)}.
        </Box>
      ))}
      {!problem && missing.length === 0 && (
        <Typography data-testid="holds">{say`Passed: atoms, charge, units and stages.`}</Typography>
      )}
      {unused.map((words) => (
        <Box key={say(words)} sx={{ color: colors.inkSoft, mt: 0.5 }}>
          {say(words)}.
        </Box>
      ))}
      {answered
        .filter((p) => !isBy(p))
        .map(({ path, message }) => (
          <Alert key={`${path} ${say(message)}`} severity="error" sx={{ mt: 1 }}>
            <b>{path}</b>: {say(message)}
          </Alert>
        ))}
      <Box sx={{ mt: 2 }}>
        <WhoWhy state={by} problems={unsaid} why={say`What changes, and why`} />
      </Box>
      <Button
        variant="contained"
        size="large"
        fullWidth
        sx={{ mt: 1.5 }}
        disabled={problem !== null || missing.length > 0 || fetcher.state !== "idle"}
        onClick={save}
      >
        {say`Save the method`}
      </Button>
    </Sheet>
  );
}
