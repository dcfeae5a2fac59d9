import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { lazy, Suspense, useState } from "react";
import { capitalized, msg, type Phrase } from "~/core/text";
import type { Condition } from "~/core/method";
import type { StageRecord, TimerRecord } from "~/core/record";
import { clockText, type TimerState, timerState } from "~/core/timing";
import { useServerNow } from "../../../live/timers";
import { colors, fonts } from "../../../theme/theme";
import type { TrialEntry } from "./use-trial-entry";
import { useRunInHand } from "../../../entry/run-context";
import { useSay } from "../../../words/text";

const StaggerDialog = lazy(() => import("./stagger-dialog").then((m) => ({ default: m.StaggerDialog })));

interface FlaskBarProps {
  entry: TrialEntry;
  /** What flasks of this stage stand for; undefined where they do not. */
  standing: Condition | undefined;
}

interface Flask {
  readonly id: string;
  readonly name: Phrase;
  readonly timer: TimerRecord | undefined;
}

/** Flasks that are begun or planned, each with its time: which one is in hand, and how several can be staggered. */
export function FlaskBar({ entry, standing }: FlaskBarProps) {
  const say = useSay();
  const { record: run } = useRunInHand();
  const record = run.stages.find((s) => s.key === entry.stage.key);
  const [staggering, setStaggering] = useState(false);
  const timers = record?.timers ?? [];
  const { flasks, there, planned } = flasksAt(timers, entry, record);
  // Where each flask is weighed or must stand, several may be begun before the first is titrated.
  const weighed = entry.stage.definition.inputs.some((i) => i.is === "mass" && i.per === "trial");
  if (!standing && !(weighed && flasks.length > 0) && flasks.length < 2) return null;
  const inHand = flasks.some((f) => f.id === entry.trialId);
  return (
    <Box
      role="group"
      aria-label={say`Flasks`}
      sx={{ display: "flex", flexWrap: "wrap", alignItems: "center", gap: 0.75 }}
    >
      {flasks.map((flask) => (
        <Chip key={flask.id} flask={flask} on={flask.id === entry.trialId} onTake={entry.takeInHand} />
      ))}
      {flasks.length > 0 && (
        <Button
          size="small"
          variant={inHand ? "text" : "contained"}
          aria-pressed={!inHand}
          onClick={() => entry.takeInHand("next")}
        >
          {inHand ? say`+ Next flask` : say`Next flask`}
        </Button>
      )}
      {standing && (
        <Button size="small" onClick={() => setStaggering(true)} sx={{ ml: "auto" }}>
          {say`Stagger several flasks …`}
        </Button>
      )}
      {staggering && standing && (
        <Suspense>
          <StaggerDialog
            standing={standing}
            stageKey={entry.stage.key}
            first={there.size + planned.length + 1}
            onClose={() => setStaggering(false)}
          />
        </Suspense>
      )}
    </Box>
  );
}

/** The flasks that are begun and those that are planned, each with the timer that runs for it. */
function flasksAt(timers: TimerRecord[], entry: TrialEntry, record: StageRecord | undefined) {
  const timerOf = (id: string) =>
    timers.find((t) => t.trialId === id && t.endedAt === null && t.counts !== "persist");
  const begun: Flask[] = entry.begun.map(({ id, words }) => ({
    id,
    name: capitalized(words),
    timer: timerOf(id),
  }));
  const there = new Set(record?.trials.map((t) => t.id));
  const planned: Flask[] = timers.flatMap((timer) =>
    timer.trialId !== null &&
    timer.outcome !== "dropped" &&
    timer.counts === "for" &&
    !there.has(timer.trialId)
      ? [{ id: timer.trialId, name: capitalized(timer.flask), timer }]
      : [],
  );
  const flasks = [...begun, ...planned];
  return { flasks, there, planned };
}

interface ChipProps {
  flask: Flask;
  on: boolean;
  onTake: (id: string) => void;
}

function Chip({ flask, on, onTake }: ChipProps) {
  const say = useSay();
  return (
    <Button
      size="small"
      variant={on ? "contained" : "outlined"}
      aria-pressed={on}
      onClick={() => onTake(flask.id)}
    >
      {say(flask.name)}
      {flask.timer && <Left timer={flask.timer} on={on} />}
    </Button>
  );
}

/** How a flask stands in time: "4:20", "over by 0:15", "in 1:10", "start it". */
export function timeOfFlask(state: TimerState): Phrase {
  if (state.state === "running")
    return state.left > 0 ? clockText(state.left) : msg`over by ${clockText(-state.left)}`;
  if (state.state !== "planned" || state.toStart === null) return "";
  return state.toStart > 0 ? msg`in ${clockText(state.toStart)}` : msg`start it`;
}

function Left({ timer, on }: { timer: TimerRecord; on: boolean }) {
  const say = useSay();
  const now = useServerNow();
  if (now === null) return null;
  const state = timerState(timer, now);
  return (
    <Box component="span" sx={{ fontFamily: fonts.reading, ml: 1, color: on ? "inherit" : colors.inkSoft }}>
      {say(timeOfFlask(state))}
    </Box>
  );
}
