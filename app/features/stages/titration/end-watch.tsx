import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { v7 as newId } from "uuid";
import type { StageRecord, TimerRecord } from "~/core/record";
import { clockText, timerState } from "~/core/timing";
import type { StartTimer } from "~/core/change";
import { serverNow, useServerNow } from "../../../live/timers";
import { colors, fonts } from "../../../theme/theme";
import { useCursor } from "../../../entry/cursor";
import { useRunInHand } from "../../../entry/run-context";
import { useSay } from "../../../words/text";

/** The stopwatch that begins with the end of a trial. */
export const endWatch = (stageKey: string, trialId: string, flask: string, seconds: number): StartTimer => ({
  intent: "start-timer",
  id: newId(),
  stageKey,
  trialId,
  what: "the color of the end must stay",
  flask,
  counts: "persist",
  seconds,
  strict: false,
  inSeconds: null,
});

/** The stopwatch of the end that was written last: does its color stay? */
export function EndWatch({ stage }: { stage: StageRecord | undefined }) {
  const { send } = useRunInHand();
  const toNext = useCursor();
  const timer = stage?.timers?.findLast((t) => t.counts === "persist" && t.endedAt === null);
  const trial = stage?.trials.find((t) => t.id === timer?.trialId);
  if (!stage || !timer || !trial || trial.struck) return null;
  const colorFaded = () => {
    const at = timerState(timer, serverNow());
    const seconds = at.state === "running" ? at.elapsed : 0;
    void send({
      intent: "faded",
      stageKey: stage.key,
      trialId: trial.id,
      markId: newId(),
      seconds: Math.round(seconds),
      timerId: timer.id,
    }).then(toNext);
  };
  const kept = () => void send({ intent: "end-timer", timerId: timer.id, outcome: "kept" }).then(toNext);
  return <Watch timer={timer} onKept={kept} onFaded={colorFaded} />;
}

function Watch({ timer, onKept, onFaded }: { timer: TimerRecord; onKept: () => void; onFaded: () => void }) {
  const say = useSay();
  const now = useServerNow();
  const state = timerState(timer, now ?? 0);
  const left = state.state === "running" ? state.left : 0;
  const over = now !== null && left <= 0;
  return (
    <Box
      role="group"
      aria-label={say`Does the color stay?`}
      sx={{
        display: "flex",
        alignItems: "center",
        flexWrap: "wrap",
        columnGap: 1.5,
        rowGap: 0.75,
        bgcolor: colors.pinkPale,
        border: `2px solid ${colors.pink}`,
        borderRadius: "12px",
        px: 1.75,
        py: 1,
      }}
    >
      <Box
        sx={{ fontFamily: fonts.reading, fontSize: "1.7rem", minWidth: "3.2ch", color: colors.pinkDeep }}
        data-testid="end-watch"
      >
        {now === null ? "" : over ? "0:00" : clockText(left)}
      </Box>
      <Box sx={{ flex: "1 1 160px", lineHeight: 1.3 }}>
        {say`End of ${timer.flask || say`the trial`}:`}{" "}
        <b>{over ? say`the time is over. Did the color stay?` : say`does the color stay?`}</b>
      </Box>
      <Button variant="contained" onClick={onKept}>
        {say`Kept`}
      </Button>
      <Button variant="outlined" onClick={onFaded}>
        {say`Faded: keep titrating`}
      </Button>
    </Box>
  );
}
