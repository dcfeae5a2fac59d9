import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { Link } from "react-router";
import { v7 as newId } from "uuid";
import {
  checkField,
  type CourseEvaluation,
  fieldKey,
  plusMinusWords,
  type RateEvaluation,
  type RunEvaluation,
  trialFields,
} from "~/core/run";
import { colors, fonts } from "../../theme/theme";
import { Chart } from "../../ui/chart/chart";
import { Sheet } from "../../ui/sheet";
import { CautionPanel } from "../run/panels";
import { StageReadings } from "../run/stage-readings";
import { StrikeDialog } from "../run/trial-dialogs";
import type { LiveRun } from "../run/use-run";
import { CourseView } from "./course-view";
import { OrderTable } from "./order-table";
import { courseName } from "./course-name";
import { courseOption } from "./rate-option";
import { TraceImport } from "./trace-import";
import { useCourse } from "./use-course";
import { hidden } from "./use-photometer";
import { useReader, wavelengthOf } from "./use-reader";

interface RateStageProps {
  run: LiveRun;
  stage: RateEvaluation;
  evaluation: RunEvaluation;
}

/** Courses of absorbance in time: each with its window, the three orders side by side, and the rate constant. */
export function RateStageView({ run, stage, evaluation }: RateStageProps) {
  const { record, send } = run;
  const locked = record.status !== "open";
  const [asked, setAsked] = useState<string | null>(null);
  const [striking, setStriking] = useState<CourseEvaluation | null>(null);
  const made = stage.trials.filter((t) => t.trace);
  const course = asked === "new" ? null : (made.find((t) => t.id === asked) ?? made.at(-1) ?? null);
  return (
    <>
      <StageReadings
        stage={stage}
        record={record.stages.find((s) => s.key === stage.key)}
        evaluation={evaluation}
        run={record}
        rules={record.houseRules}
        locked={locked}
        send={send}
      />
      <Box
        sx={{
          display: "grid",
          gap: 2,
          mt: 1.25,
          alignItems: "start",
          gridTemplateColumns: { xs: "minmax(0, 1fr)", md: "minmax(0, 8fr) minmax(0, 4fr)" },
        }}
      >
        <Box sx={{ display: "grid", gap: 2, minWidth: 0 }}>
          <Box role="group" aria-label="Courses" sx={{ display: "flex", gap: 1, flexWrap: "wrap" }}>
            {made.map((t) => (
              <Button
                key={t.id}
                size="small"
                variant={course?.id === t.id ? "contained" : "outlined"}
                aria-pressed={course?.id === t.id}
                onClick={() => setAsked(t.id)}
                sx={{ textDecoration: t.record.struck ? "line-through" : "none" }}
              >
                {courseName(t)}
              </Button>
            ))}
            {!locked && (
              <Button
                size="small"
                variant={course ? "outlined" : "contained"}
                aria-pressed={course === null}
                onClick={() => setAsked("new")}
              >
                New course
              </Button>
            )}
          </Box>
          {course ? (
            <CourseView
              key={course.id}
              course={course}
              stage={stage}
              title={record.title}
              locked={locked}
              send={send}
              onStrike={() =>
                course.record.struck
                  ? void send({ intent: "restore", trialId: course.id })
                  : setStriking(course)
              }
            />
          ) : (
            !locked && <NewCourse run={run} stage={stage} evaluation={evaluation} onMade={setAsked} />
          )}
          {course?.comparison && (
            <OrderTable stage={stage} comparison={course.comparison} locked={locked} send={send} />
          )}
        </Box>
        <Box sx={{ display: "grid", gap: 2, minWidth: 0 }}>
          <RateResult run={run} stage={stage} evaluation={evaluation} />
          <CautionPanel definition={stage.definition} />
        </Box>
      </Box>
      {striking && <StrikeDialog trial={striking} send={send} onClose={() => setStriking(null)} />}
    </>
  );
}

interface NewCourseProps extends RateStageProps {
  onMade: (trialId: string) => void;
}

/** What has to be typed of a cuvette, and its course from the instrument or from a file. */
function NewCourse({ run, stage, evaluation, onMade }: NewCourseProps) {
  const { record, send } = run;
  const { definition } = stage;
  const [person] = useReader(record.bench);
  const [texts, setTexts] = useState<Readonly<Record<string, string>>>({});
  const [note, setNote] = useState<{ key: string; message: string } | null>(null);
  const fields = trialFields(definition, record.houseRules).filter((f) => !f.optional);
  const live = useCourse(11 + stage.trials.length);
  const nm = wavelengthOf(evaluation);

  const readings = () => {
    const checked = fields.map((field) => {
      const key = fieldKey(field);
      const answer = checkField(field, texts[key] ?? "", {
        stage: definition,
        houseRules: record.houseRules,
        holder: { observations: [] },
      });
      return { field, key, answer };
    });
    const wrong = checked.find(({ answer }) => !answer.ok);
    if (wrong && !wrong.answer.ok) {
      setNote({ key: wrong.key, message: wrong.answer.check.message });
      return null;
    }
    return checked.map(({ field, key }) => ({
      id: newId(),
      symbol: field.symbol,
      kind: field.kind,
      text: texts[key] ?? "",
    }));
  };
  const keep = async (
    name: string,
    x: readonly number[],
    absorbance: readonly number[],
    source: "instrument" | "imported",
  ) => {
    const typed = readings();
    if (!typed) return;
    const trialId = newId();
    const answer = await send({
      intent: "trace",
      id: newId(),
      stageKey: stage.key,
      trialId,
      readings: typed,
      name,
      xUnit: "s",
      x: [...x],
      absorbance: [...absorbance],
      source,
      person,
    });
    if (answer.status === "done") onMade(trialId);
    else setNote({ key: "", message: answer.message });
  };
  const begin = () => {
    if (!readings()) return;
    setNote(null);
    const excess = definition.inputs.find((i) => i.symbol === definition.rate.excess);
    const amount = excess ? Number((texts[`${excess.symbol}:given`] ?? "").replace(",", ".")) : 1;
    const k = definition.presumed * (1 + 0.15 * hidden(record.id)) * amount;
    live.start(
      k,
      nm,
      (points) =>
        void keep(
          `course ${stage.trials.length + 1}`,
          points.map(([t]) => t),
          points.map(([, a]) => a),
          "instrument",
        ),
    );
  };
  return (
    <Sheet component="section" aria-label="New course" sx={{ display: "grid", gap: 1.5 }}>
      <Box>
        <Typography variant="h2">New course, at {nm} nm</Typography>
        <Typography color="textSecondary">
          Mix, put the cuvette in, close the lid. The absorbance is taken each second for 200 s.
        </Typography>
      </Box>
      <Box sx={{ display: "flex", gap: 1.5, flexWrap: "wrap" }}>
        {fields.map((field) => {
          const key = fieldKey(field);
          const wrong = note?.key === key;
          return (
            <TextField
              key={key}
              label={field.unit === "" ? field.label : `${field.label}, ${field.unit}`}
              value={texts[key] ?? ""}
              onChange={(event) => {
                setNote(null);
                setTexts({ ...texts, [key]: event.target.value });
              }}
              error={wrong}
              helperText={wrong ? note.message : undefined}
              sx={{ flex: "0 1 280px" }}
              slotProps={{ htmlInput: { inputMode: "decimal", style: { fontFamily: fonts.reading } } }}
            />
          );
        })}
      </Box>
      {note?.key === "" && (
        <Typography role="alert" sx={{ color: colors.brick }}>
          {note.message}
        </Typography>
      )}
      {live.trouble && <Typography sx={{ color: colors.brick }}>{live.trouble}.</Typography>}
      <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap", alignItems: "flex-start" }}>
        {live.running ? (
          <Button variant="outlined" onClick={live.stop}>
            Stop, and keep nothing
          </Button>
        ) : (
          <Button variant="contained" onClick={begin}>
            Take it with the simulated photometer
          </Button>
        )}
        <TraceImport
          kind="s"
          label="From a file (CSV, JCAMP-DX)"
          onRead={([first]) => first && void keep(first.name, first.x, first.absorbance, "imported")}
        />
      </Box>
      {live.points.length > 0 && (
        <Chart
          label={`Absorbance in time, ${live.points.length} readings so far`}
          option={courseOption(emptyCourse(stage), 1, live.points)}
          height={300}
          fileName="course"
        />
      )}
    </Sheet>
  );
}

/** A course that is still being taken: nothing is fitted to it yet. */
const emptyCourse = ({ definition }: RateEvaluation): CourseEvaluation => ({
  id: "live",
  record: { id: "live", number: null, label: null, kind: "fine", struck: null, observations: [] },
  name: definition.title,
  fields: [],
  missing: null,
  eligible: false,
  symbols: new Map(),
  titerMl: null,
  result: null,
  shownResult: null,
  compared: null,
  significance: new Map(),
  problem: null,
  cautions: [],
  trace: null,
  window: [null, null],
  comparison: null,
});

function RateResult({ run, stage, evaluation }: RateStageProps) {
  const { shown, combined, dependence, definition, problem } = stage;
  const order = evaluation.stages.findIndex((s) => s.key === stage.key);
  const next = evaluation.stages[order + 1];
  return (
    <Sheet
      component="section"
      aria-label="Result"
      sx={stage.done ? { borderColor: colors.teal, borderWidth: 2 } : {}}
    >
      <Typography data-testid="next-reading" sx={{ fontWeight: 700, color: colors.tealDeep, mb: 0.5 }}>
        {stage.next}.
      </Typography>
      <Typography color="textSecondary">{definition.result.name}</Typography>
      <Box data-testid="result" sx={{ fontFamily: fonts.reading, fontSize: "1.6rem", lineHeight: 1.25 }}>
        {shown?.text ?? "–"}
      </Box>
      {shown && combined && (
        <Typography variant="body2" color="textSecondary">
          {combined.count === 1 ? "from one course" : `mean of ${combined.count} courses`}, ± is{" "}
          {plusMinusWords[run.record.houseRules.plusMinus]}.
        </Typography>
      )}
      {problem && <Typography sx={{ color: colors.brick }}>{problem}.</Typography>}
      {dependence && (
        <Typography data-testid="dependence" sx={{ mt: 1 }}>
          {dependence.ok ? dependence.value.text : `${dependence.problem.message}.`}
        </Typography>
      )}
      {shown && (
        <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap", mt: 1.25 }}>
          {next && (
            <Button component={Link} to={`?stage=${next.key}`} variant="contained" preventScrollReset>
              Go on: {next.definition.title}
            </Button>
          )}
          <Button component={Link} to={`working?stage=${stage.key}`} relative="path" variant="outlined">
            Show the working
          </Button>
        </Box>
      )}
    </Sheet>
  );
}
