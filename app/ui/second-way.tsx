import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import LinearProgress from "@mui/material/LinearProgress";
import Typography from "@mui/material/Typography";
import { type ReactNode, useId } from "react";
import { colors } from "../theme/theme";
import { Sheet } from "./sheet";
import type { WorkerState } from "./use-worker";
import { useSay } from "../words/text";

interface SecondWayProps {
  /** What is drawn at random, in a sentence. */
  what: string;
  state: WorkerState<unknown>;
  /** What progress counts, for those who do not see the bar. */
  counts: string;
  /** The button that begins, and the one that begins anew. */
  begin: string;
  again: string;
  order?: number;
  onStart: () => void;
  onCancel: () => void;
  /** What came of it. */
  children?: ReactNode;
}

/** A ± checked a second way, by drawing at random in a worker: begun, watched and cancelled by hand. */
export function SecondWay({
  what,
  state,
  counts,
  begin,
  again,
  order,
  onStart,
  onCancel,
  children,
}: SecondWayProps) {
  const say = useSay();
  const id = useId();
  return (
    <Sheet
      component="section"
      aria-labelledby={id}
      sx={{
        "@media print": { display: "none" },
        ...(order === undefined ? {} : { order: { xs: order, md: 0 } }),
      }}
    >
      <Typography id={id} variant="h2">
        {say`Check of the ±`}
      </Typography>
      {state.state !== "done" && (
        <Typography color="textSecondary" sx={{ mb: 1 }}>
          {what}
        </Typography>
      )}
      <Box aria-live="polite">
        {state.state === "running" && (
          <LinearProgress
            variant="determinate"
            value={100 * state.part}
            aria-label={counts}
            sx={{ height: 10, borderRadius: 5, mb: 1 }}
          />
        )}
        {state.state === "failed" && (
          <Typography sx={{ color: colors.brick }}>{say(state.message)}.</Typography>
        )}
        {children}
      </Box>
      {state.state === "running" ? (
        <Button variant="outlined" onClick={onCancel}>
          {say`Cancel`}
        </Button>
      ) : (
        <Button variant="outlined" onClick={onStart}>
          {state.state === "done" ? again : begin}
        </Button>
      )}
    </Sheet>
  );
}
