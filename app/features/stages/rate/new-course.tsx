import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import type { Field } from "~/core/inputs";
import { fieldKey } from "~/core/method";
import type { CourseEvaluation, RateEvaluation, RunEvaluation } from "~/core/stages";
import { msg, type Phrase, unitText } from "~/core/text";
import { cursorTarget, useCursor, useCursorOn } from "../../../entry/cursor";
import { ReadingTextField } from "../../../entry/reading-text-field";
import { colors } from "../../../theme/theme";
import { Chart } from "../../../ui/chart/chart";
import { Sheet } from "../../../ui/sheet";
import { useSay } from "../../../words/text";
import { TraceImport } from "../photometer/trace-import";
import { wavelengthOf } from "../photometer/use-reader";
import { courseOption } from "./rate-option";
import type { RunningCourse } from "./use-course";
import { type TakenCourse, useNewCourse } from "./use-new-course";

interface NewCourseProps {
  stage: RateEvaluation;
  evaluation: RunEvaluation;
  onMade: (trialId: string) => void;
}

/** What has to be typed of a cuvette, and its course from the instrument or from a file. */
export function NewCourse({ stage, evaluation, onMade }: NewCourseProps) {
  const say = useSay();
  const entry = useNewCourse(stage, evaluation, onMade);
  const { live, trouble } = entry;
  useCursorOn(stage.trials.length);
  const toNext = useCursor();
  const begin = () => {
    entry.begin();
    toNext();
  };
  return (
    <Sheet component="section" aria-label={say`New kinetic run`} sx={{ display: "grid", gap: 1.5 }}>
      <Box>
        <Typography variant="h2">{say`New kinetic run, at ${wavelengthOf(evaluation)} nm`}</Typography>
        <Typography color="textSecondary">
          {say`Mix, put the cuvette in, close the lid. The absorbance is taken each second for 200 s.`}
        </Typography>
      </Box>
      <Box sx={{ display: "flex", gap: 1.5, flexWrap: "wrap" }}>
        {entry.fields.map((field) => (
          <Box key={fieldKey(field)} sx={{ flex: "0 1 280px" }}>
            <ReadingTextField
              label={say(fieldLabel(field))}
              state={entry.stateOf(field)}
              next={field === entry.next}
              fixed={live.running}
              onType={(text) => entry.type(field, text)}
            />
          </Box>
        ))}
      </Box>
      {trouble && (
        <Typography role="alert" sx={{ color: colors.brick }}>
          {say(trouble)}
        </Typography>
      )}
      <TakeCourse live={live} begin={begin} next={entry.next === null} keep={entry.keep} />
      {live.points.length > 0 && (
        <Chart
          label={say`Absorbance in time, ${live.points.length} readings so far`}
          option={courseOption(emptyCourse(stage), 1, say, live.points)}
          height={300}
          fileName="course"
        />
      )}
    </Sheet>
  );
}

interface TakeCourseProps {
  readonly live: RunningCourse;
  readonly begin: () => void;
  /** True where all that is needed is typed. */
  readonly next: boolean;
  readonly keep: (course: TakenCourse) => Promise<void>;
}

function TakeCourse({ live, begin, next, keep }: TakeCourseProps) {
  const say = useSay();
  return (
    <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap", alignItems: "flex-start" }}>
      {live.running ? (
        <Button variant="outlined" onClick={live.stop}>
          {say`Stop, and keep nothing`}
        </Button>
      ) : (
        <Button variant="contained" onClick={begin} {...(next ? cursorTarget : {})}>
          {say`Take it with the simulated photometer`}
        </Button>
      )}
      <TraceImport
        kind="s"
        label={say`From a file (CSV, JCAMP-DX)`}
        onRead={([first]) => first && void keep({ ...first, source: "imported" })}
      />
    </Box>
  );
}

/** What a field asks for, with its unit. */
const fieldLabel = ({ kind, label, unit }: Field): Phrase => {
  const what = kind === "given.plus-minus" ? msg`± of it` : label;
  return unit === "" ? what : msg`${what}, ${unitText(unit)}`;
};

/** A course that is still being taken: nothing is fitted to it yet. */
const emptyCourse = ({ definition }: RateEvaluation): CourseEvaluation => ({
  id: "live",
  record: { id: "live", number: null, label: null, kind: "fine", struck: null, observations: [] },
  name: definition.title,
  words: definition.title,
  fields: [],
  missing: null,
  eligible: false,
  symbols: new Map(),
  titerMl: null,
  overshot: false,
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
