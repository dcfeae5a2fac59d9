import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useEffect, useState } from "react";
import { Link, useLocation } from "react-router";
import { clockText, timerState } from "~/core/timing";
import type { TimerView } from "~/protocol/answers";
import type { RunRequest } from "~/protocol/requests";
import { readStored, writeStored } from "./browser-store";
import { colors, fonts } from "../theme/theme";
import { alarm } from "./alarm";
import { keep, somethingWaits } from "./outbox";
import { postChange } from "./post";
import { refreshTimers, useServerNow, useTimers } from "./timers";
import { useSay } from "../words/text";

const quietKey = "steady-bead.quiet";

/** Changes a timer from wherever one is; out of reach of the server it waits with the readings of its run. */
async function change(runId: string, request: RunRequest): Promise<void> {
  if (somethingWaits(runId)) await keep(runId, request);
  else {
    const answer = await postChange(runId, request);
    if (answer.status === "unreachable") await keep(runId, request);
  }
  await refreshTimers();
}

/** True once it is time for something: a flask has stood, or should be started. */
function isDue(timer: TimerView, now: number): boolean {
  const state = timerState(timer, now);
  if (state.state === "running") return state.left <= 0;
  return state.state === "planned" && state.toStart !== null && state.toStart <= 0;
}

/** All timers that run, on every screen: what is due stands out, is heard, and can be ended where one is. */
export function TimerDock() {
  const { timers, clock } = useTimers();
  return (
    <>
      {clock && (
        <Box
          role="alert"
          sx={{ bgcolor: colors.amberPale, color: colors.amberDeep, px: 2.5, py: 0.75, fontWeight: 600 }}
        >
          {clock}
        </Box>
      )}
      {timers.length > 0 && <Dock all={timers} />}
    </>
  );
}

/** How long the stopwatch of an end that nobody looks after is shown beyond its time, s. */
const forgottenSeconds = 30;

const dockRow = {
  maxWidth: 1480,
  mx: "auto",
  px: { xs: 1.5, sm: 2.5 },
  py: 0.75,
  display: "flex",
  alignItems: "center",
  gap: 1,
  flexWrap: { xs: "nowrap", sm: "wrap" },
  overflowX: "auto",
} as const;

function Dock({ all }: { all: readonly TimerView[] }) {
  const say = useSay();
  // Timers are asked for once the page has come to life: there is a time then.
  const now = useServerNow() ?? 0;
  const { pathname } = useLocation();
  // The stopwatch of an end has its place beside the readings: here it is shown only where those are not.
  const timers = all.filter(
    (t) => t.counts !== "persist" || (pathname !== `/runs/${t.runId}` && leftOf(t, now) > -forgottenSeconds),
  );
  const [quiet, setQuiet] = useState(() => readStored(quietKey) === "yes");
  const due = timers.filter((t) => isDue(t, now)).map((t) => t.id + (t.startedAt ? say` over` : say` start`));
  const rings = due.join(",");
  useEffect(() => {
    if (rings === "" || quiet) return;
    return alarm();
  }, [rings, quiet]);
  const turn = () => {
    writeStored(quietKey, quiet ? "no" : "yes");
    setQuiet(!quiet);
  };
  if (timers.length === 0) return null;
  // Where more than one run has timers, each says which one it belongs to.
  const several = new Set(timers.map((t) => t.runId)).size > 1;
  const order = [...timers].sort((a, b) => leftOf(a, now) - leftOf(b, now));
  return (
    <Box
      component="section"
      aria-label={say`Timers`}
      sx={{
        position: "sticky",
        top: 0,
        zIndex: 1050,
        bgcolor: colors.sheet,
        borderBottom: `1px solid ${colors.line}`,
        "@media print": { display: "none" },
      }}
    >
      <Box sx={dockRow}>
        {order.map((timer) => (
          <Timer key={timer.id} timer={timer} now={now} named={several} />
        ))}
        <Button
          size="small"
          color="secondary"
          onClick={turn}
          aria-pressed={quiet}
          sx={{ ml: "auto", flexShrink: 0 }}
        >
          {quiet ? say`Sound is off` : say`Sound is on`}
        </Button>
      </Box>
    </Box>
  );
}

function leftOf(timer: TimerView, now: number): number {
  const state = timerState(timer, now);
  if (state.state === "running") return state.left;
  return state.state === "planned" ? (state.toStart ?? Infinity) : Infinity;
}

interface TimerProps {
  timer: TimerView;
  now: number;
  named: boolean;
}

function Timer({ timer, now, named }: TimerProps) {
  const say = useSay();
  const { runId, runTitle, stageKey, flask, what, id } = timer;
  const state = timerState(timer, now);
  const due = isDue(timer, now);
  const planned = state.state === "planned";
  const status = planned ? (due ? say`start it now` : say`start in`) : due ? say`over since` : "";
  return (
    <Box data-due={due} sx={timerStyle(due)}>
      <Box
        sx={{ fontFamily: fonts.reading, fontSize: "1.25rem", color: due ? colors.amberDeep : colors.ink }}
      >
        {clockText(Math.abs(leftOf(timer, now)))}
      </Box>
      <Box sx={{ lineHeight: 1.2, minWidth: 0, fontSize: "0.92rem" }}>
        <Box
          component={Link}
          to={`/runs/${runId}?stage=${stageKey}`}
          sx={{ color: colors.ink, fontWeight: 650, display: "block" }}
          title={runTitle}
        >
          {[flask || runTitle, status].filter(Boolean).join(": ")}
        </Box>
        <Box sx={whatStyle(named)} title={what}>
          {named && flask ? `${runTitle}: ${what}` : what}
        </Box>
      </Box>
      <Button
        size="small"
        variant={due ? "contained" : "outlined"}
        aria-label={`${planned ? say`Start` : say`Done`}: ${[flask, what].filter(Boolean).join(", ")}`}
        onClick={() =>
          void change(
            runId,
            planned
              ? { intent: "begin-timer", timerId: id }
              : { intent: "end-timer", timerId: id, outcome: "done" },
          )
        }
      >
        {planned ? say`Start` : say`Done`}
      </Button>
      <Button
        size="small"
        color="secondary"
        aria-label={say`Drop the timer${flask && say` of ${flask}`}`}
        sx={{ minWidth: 36, px: 0 }}
        onClick={() => void change(runId, { intent: "end-timer", timerId: id, outcome: "dropped" })}
      >
        ✕
      </Button>
    </Box>
  );
}

const timerStyle = (due: boolean) =>
  ({
    display: "flex",
    alignItems: "center",
    gap: 1,
    flexShrink: 0,
    border: `2px solid ${due ? colors.amberDeep : colors.line}`,
    bgcolor: due ? colors.amberPale : colors.ground,
    borderRadius: "10px",
    pl: 1.25,
    pr: 0.5,
    py: 0.25,
    maxWidth: { xs: "86vw", sm: 380 },
    ...(due
      ? {
          "@keyframes due": { "50%": { borderColor: colors.amber } },
          animation: "due 1s steps(2) infinite",
        }
      : {}),
  }) as const;

const whatStyle = (named: boolean) =>
  ({
    color: colors.inkSoft,
    overflow: "hidden",
    textOverflow: "ellipsis",
    whiteSpace: "nowrap",
    maxWidth: { xs: 140, sm: named ? 210 : 150 },
  }) as const;
