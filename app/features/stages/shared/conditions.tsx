import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { type Condition, timedConditions } from "~/core/method";
import type { TimerRecord } from "~/core/record";
import { clockText, timerState } from "~/core/timing";
import { serverNow, useServerNow } from "../../../live/timers";
import { colors, fonts } from "../../../theme/theme";
import { useSay } from "../../../words/text";
import { msg, type Phrase, joined } from "~/core/text";

/** A condition as one reads it at the bench: the number first, then what it is for. */
export function conditionWords({ what, celsius, minutes, strict, counts }: Condition): Phrase {
  const time = minutes === undefined ? null : minutes >= 120 ? msg`${minutes / 60} h` : msg`${minutes} min`;
  const exactly =
    counts === "within" ? msg`within ${time ?? ""}` : strict ? msg`exactly ${time ?? ""}` : time;
  const numbers = joined(
    [celsius && msg`${celsius[0]} to ${celsius[1]} °C`, time && exactly].filter((part) => part != null),
    ", ",
  );
  return numbers === "" ? what : msg`${numbers}: ${what}`;
}

interface KeepToProps {
  conditions: readonly Condition[];
  /** Timers of the flask in hand. */
  timers: readonly TimerRecord[];
  onStart: (condition: Condition) => void;
  onEnd: (timer: TimerRecord) => void;
}

/** What must hold while this flask is titrated, at the place where one looks while doing it; a time has its timer. */
export function KeepTo({ conditions, timers, onStart, onEnd }: KeepToProps) {
  const say = useSay();
  const telling = conditions.filter((c) => c.celsius ?? c.minutes);
  if (telling.length === 0) return null;
  const timed = timedConditions(conditions);
  return (
    <Box
      component="ul"
      aria-label={say`Conditions`}
      sx={{
        listStyle: "none",
        m: 0,
        pl: 1.25,
        py: 0,
        borderLeft: `4px solid ${colors.amber}`,
        color: colors.amberDeep,
      }}
    >
      {telling.map((condition) => {
        const own = timers.filter((t) => t.what === condition.what);
        return (
          <Box
            component="li"
            key={condition.what}
            sx={{
              fontWeight: condition.strict ? 700 : 400,
              display: "flex",
              alignItems: "center",
              flexWrap: "wrap",
              columnGap: 1.5,
            }}
          >
            <span>{say(conditionWords(condition))}</span>
            {timed.includes(condition) && (
              <ConditionTimer timers={own} onStart={() => onStart(condition)} onEnd={onEnd} />
            )}
          </Box>
        );
      })}
    </Box>
  );
}

function ConditionTimer(props: {
  timers: readonly TimerRecord[];
  onStart: () => void;
  onEnd: (timer: TimerRecord) => void;
}) {
  const say = useSay();
  const { timers, onStart, onEnd } = props;
  const running = timers.find((t) => t.endedAt === null && t.startedAt !== null);
  const ended = timers.findLast((t) => t.endedAt !== null && t.outcome !== "dropped");
  if (running) return <Running timer={running} onEnd={() => onEnd(running)} />;
  if (ended) {
    const state = timerState(ended, serverNow());
    return <span>{state.state === "ended" && say`took ${clockText(state.elapsed)}`}</span>;
  }
  return (
    <Button size="small" variant="outlined" onClick={onStart} sx={{ minHeight: 32, py: 0 }}>
      {say`Start the time`}
    </Button>
  );
}

function Running({ timer, onEnd }: { timer: TimerRecord; onEnd: () => void }) {
  const say = useSay();
  const now = useServerNow();
  const state = timerState(timer, now ?? 0);
  return (
    <>
      <Box component="span" sx={{ fontFamily: fonts.reading, fontSize: "1.1rem" }}>
        {now !== null && state.state === "running" && clockText(state.left)}
      </Box>
      <Button size="small" variant="outlined" onClick={onEnd} sx={{ minHeight: 32, py: 0 }}>
        {timer.counts === "for" ? say`It has stood` : say`Done`}
      </Button>
    </>
  );
}
