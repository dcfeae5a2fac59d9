import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Slider from "@mui/material/Slider";
import Typography from "@mui/material/Typography";
import { useEffect, useMemo, useRef, useState } from "react";
import { v7 as newId } from "uuid";
import type { TraceRecord, TrialRecord } from "~/core/record";
import type { CourseEvaluation, RateEvaluation } from "~/core/stages";
import { lineOfTrace } from "~/formats/lines/line";
import { useRunInHand } from "../../../entry/run-context";
import { colors } from "../../../theme/theme";
import { Chart } from "../../../ui/chart/chart";
import { Sheet } from "../../../ui/sheet";
import type { Send } from "../../../entry/use-run";
import { courseName } from "./course-name";
import { courseOption } from "./rate-option";
import { SaveLine } from "../shared/save-line";
import { useSay } from "../../../words/text";
import { type Phrase } from "~/core/text";

interface CourseViewProps {
  course: CourseEvaluation;
  stage: RateEvaluation;
  title: string;
  onStrike: () => void;
}

/** How long a handle of the window must stand still before it is saved. */
const restMs = 300;

/** One course with the law fitted to it; the window that is used is dragged beneath the time axis. */
export function CourseView({ course, stage, title, onStrike }: CourseViewProps) {
  const say = useSay();
  const { locked, send } = useRunInHand();
  const { trace, window, record, problem } = course;
  const [from, to] = [trace?.x[0] ?? 0, trace?.x.at(-1) ?? 1];
  const option = useMemo(() => courseOption(course, stage.order, say), [course, stage.order, say]);
  const saved: [number, number] = [window[0] ?? from, window[1] ?? to];
  const { shown, setDragged, settle, setWindow, trouble } = useWindow(saved, stage, course, send);
  return (
    <Sheet component="section" aria-label={say`Run`} sx={{ minWidth: 0 }}>
      <CourseHead course={course} trace={trace} onStrike={onStrike} record={record} />
      {record.struck && (
        <Typography sx={{ color: colors.amberDeep }}>{say`Struck out: ${record.struck.reason}`}</Typography>
      )}
      <Chart
        label={say`Absorbance in time, ${trace?.x.length ?? 0} readings, with the fitted law`}
        option={option}
        height={330}
        fileName={`${title} course`}
        many={(trace?.x.length ?? 0) > 1000}
      />
      <Box sx={{ px: 1, display: "flex", alignItems: "center", gap: 2.5, flexWrap: "wrap" }}>
        <Typography sx={{ whiteSpace: "nowrap" }}>{say`Window ${shown[0]} to ${shown[1]} s`}</Typography>
        <Slider
          value={shown}
          min={from}
          max={to}
          step={(to - from) / Math.max(1, (trace?.x.length ?? 2) - 1) || 1}
          disabled={locked}
          getAriaLabel={(i) => (i === 0 ? say`Window from, s` : say`Window to, s`)}
          onChange={(_event, value) => setDragged(value as [number, number])}
          onChangeCommitted={(_event, value) => settle(value as [number, number])}
          sx={{ flex: "1 1 220px" }}
        />
        {!locked && (saved[0] !== from || saved[1] !== to) && (
          <Button size="small" onClick={() => void setWindow([from, to])}>
            {say`Whole run`}
          </Button>
        )}
      </Box>
      {(problem ?? trouble) && (
        <Typography role="alert" sx={{ color: colors.brick }}>
          {say(problem ?? trouble ?? "")}.
        </Typography>
      )}
    </Sheet>
  );
}

/** The window of the fit: moved by its handles, and saved once they have come to rest. */
function useWindow(saved: [number, number], stage: RateEvaluation, course: CourseEvaluation, send: Send) {
  const say = useSay();
  const [dragged, setDragged] = useState<[number, number] | null>(null);
  const [trouble, setTrouble] = useState<Phrase | null>(null);
  const shown = dragged ?? saved;
  const symbol = stage.definition.inputs.find((i) => i.is === "trace")?.symbol ?? "A";
  const latest = useRef({ course, saved });
  useEffect(() => {
    latest.current = { course, saved };
  });
  const setWindow = async (next: readonly [number, number]) => {
    const before = latest.current;
    for (const [i, kind] of (["window.from", "window.to"] as const).entries()) {
      const value = next[i] ?? 0;
      if (value === before.saved[i]) continue;
      const present = before.course.fields.find((f) => f.field.kind === kind)?.present ?? null;
      const answer = await send({
        intent: "observe",
        id: newId(),
        stageKey: stage.key,
        trial: { id: course.id, kind: "fine" },
        symbol,
        kind,
        text: String(value),
        supersedes: present?.id ?? null,
        reason: present ? say`window moved` : null,
      });
      setTrouble(answer.status === "done" ? null : answer.message);
    }
    setDragged((now) => (now && now[0] === next[0] && now[1] === next[1] ? null : now));
  };
  // A handle moved by keys moves often: it is saved when it has come to rest.
  const rest = useRef<ReturnType<typeof setTimeout> | null>(null);
  const settle = (next: [number, number]) => {
    if (rest.current) clearTimeout(rest.current);
    rest.current = setTimeout(() => void setWindow(next), restMs);
  };
  return { shown, setDragged, settle, setWindow, trouble };
}

interface CourseHeadProps {
  readonly course: CourseEvaluation;
  readonly trace: TraceRecord | null;
  readonly onStrike: () => void;
  readonly record: TrialRecord;
}

function CourseHead({ course, trace, onStrike, record }: CourseHeadProps) {
  const say = useSay();
  const { locked } = useRunInHand();
  return (
    <Box sx={{ display: "flex", alignItems: "center", flexWrap: "wrap", gap: 1, mb: 0.5 }}>
      <Typography variant="h2" sx={{ flexGrow: 1 }}>
        {say(courseName(course))}
      </Typography>
      {trace && <SaveLine line={lineOfTrace(trace)} />}
      {!locked && (
        <Button size="small" onClick={onStrike}>
          {record.struck ? say`Restore` : say`Strike out`}
        </Button>
      )}
    </Box>
  );
}
