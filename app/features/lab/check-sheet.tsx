import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import type { LabView } from "~/protocol/lab";
import { Sheet } from "../../ui/sheet";
import { When } from "../../ui/when";
import type { Ask } from "./ask";
import { useSay } from "../../words/text";

interface CheckSheetProps {
  readonly lab: LabView;
  readonly busy: boolean;
  readonly ask: Ask;
}

/** Whether the data are whole, as far as somebody looked. */
export function CheckSheet({ lab, busy, ask }: CheckSheetProps) {
  const say = useSay();
  return (
    <Sheet component="section" aria-labelledby="check" sx={{ p: { xs: 2, sm: 2.5 } }}>
      <Typography id="check" variant="h2">
        {say`Check`}
      </Typography>
      <Typography color="textSecondary" sx={{ mb: 1.5 }}>
        {say`Counts every row, follows corrections and solutions, and recalculates every result.`}
      </Typography>
      <Findings lab={lab} />
      <Button variant="outlined" disabled={busy} onClick={() => ask({ intent: "check" })}>
        {say`Check everything`}
      </Button>
    </Sheet>
  );
}

/** What the last look found, the serious first. */
function Findings({ lab: { findings, checkedAt } }: { lab: LabView }) {
  const say = useSay();
  const serious = findings.filter(({ kind }) => kind !== "differs");
  const differing = findings.filter(({ kind }) => kind === "differs");
  return (
    <Box sx={{ mb: 1.5 }}>
      {serious.map(({ message, runId, advice }) => (
        <Alert key={message} severity="error" sx={{ mb: 1 }}>
          {message}.{" "}
          {advice ??
            (runId
              ? say`Restore this run from a backup that holds it.`
              : say`Restore the lab from its newest backup.`)}
        </Alert>
      ))}
      {differing.map(({ message }) => (
        <Alert key={message} severity="info" sx={{ mb: 1 }}>
          {message}.
        </Alert>
      ))}
      {checkedAt !== null && (
        <Typography color="textSecondary">
          {say`Last checked`} <When at={checkedAt} as="time" />
          {findings.length === 0 && say`: no problems`}.
        </Typography>
      )}
    </Box>
  );
}
