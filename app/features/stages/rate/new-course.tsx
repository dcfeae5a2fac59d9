import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { v7 as newId } from "uuid";
import { withPoint, msg, type Phrase, unitText } from "~/core/text";
import { methodOf } from "~/core/run";
import { unitOf } from "~/core/quantity";
import { checkField, fieldKey, trialFields } from "~/core/method";
import {
  compiledMethod,
  type CourseEvaluation,
  type RateEvaluation,
  type RunEvaluation,
  presumedRate,
  usualConstant,
} from "~/core/stages";
import type { Field } from "~/core/inputs";
import { useRunInHand } from "../../../entry/run-context";
import { type RunningCourse, useCourse } from "./use-course";
import { colors, fonts } from "../../../theme/theme";
import { Chart } from "../../../ui/chart/chart";
import { Sheet } from "../../../ui/sheet";
import { courseOption } from "./rate-option";
import { TraceImport } from "../photometer/trace-import";
import { hidden } from "../photometer/use-photometer";
import { useReader, wavelengthOf } from "../photometer/use-reader";
import { useSay } from "../../../words/text";

interface NewCourseProps {
  stage: RateEvaluation;
  evaluation: RunEvaluation;
  onMade: (trialId: string) => void;
}

/** What has to be typed of a cuvette, and its course from the instrument or from a file. */
export function NewCourse({ stage, evaluation, onMade }: NewCourseProps) {
  const say = useSay();
  const { record, send } = useRunInHand();
  const { definition } = stage;
  const [person] = useReader(record.bench);
  const [texts, setTexts] = useState<Readonly<Record<string, string>>>({});
  const [note, setNote] = useState<{ key: string; message: Phrase } | null>(null);
  // The ± of what is stated of a cuvette may stay empty.
  const fields = trialFields(definition, record.houseRules).filter(
    (f) => !f.optional || f.kind === "given.plus-minus",
  );
  const filled = () => fields.filter((f) => !f.optional || (texts[fieldKey(f)] ?? "").trim() !== "");
  const live = useCourse(11 + stage.trials.length);
  const nm = wavelengthOf(evaluation);

  const readings = () => {
    const checked = filled().map((field) => {
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
      setNote({ key: wrong.key, message: wrong.answer.problem.message });
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
    const numbers = filled()
      .filter((f) => !f.optional)
      .map((field) => {
        const value = Number(withPoint(texts[fieldKey(field)]));
        return [field.symbol, value * unitOf(field.unit || "1").factor] as const;
      });
    const method = compiledMethod(methodOf(record));
    const truth = presumedRate(definition) * (1 + 0.15 * hidden(record.id));
    const k = usualConstant(method, definition, new Map(numbers), truth);
    live.start(
      k,
      nm,
      (points) =>
        void keep(
          say`kinetic run ${stage.trials.length + 1}`,
          points.map(([t]) => t),
          points.map(([, a]) => a),
          "instrument",
        ),
    );
  };
  return (
    <Sheet component="section" aria-label={say`New kinetic run`} sx={{ display: "grid", gap: 1.5 }}>
      <Box>
        <Typography variant="h2">{say`New kinetic run, at ${nm} nm`}</Typography>
        <Typography color="textSecondary">
          {say`Mix, put the cuvette in, close the lid. The absorbance is taken each second for 200 s.`}
        </Typography>
      </Box>
      <Box sx={{ display: "flex", gap: 1.5, flexWrap: "wrap" }}>
        {fields.map((field) => {
          const key = fieldKey(field);
          const wrong = note?.key === key;
          return (
            <TextField
              key={key}
              label={say(fieldLabel(field))}
              value={texts[key] ?? ""}
              onChange={(event) => {
                setNote(null);
                setTexts({ ...texts, [key]: event.target.value });
              }}
              error={wrong}
              helperText={wrong ? say(note.message) : undefined}
              sx={{ flex: "0 1 280px" }}
              slotProps={{ htmlInput: { inputMode: "decimal", style: { fontFamily: fonts.reading } } }}
            />
          );
        })}
      </Box>
      {note?.key === "" && (
        <Typography role="alert" sx={{ color: colors.brick }}>
          {say(note.message)}
        </Typography>
      )}
      {live.trouble && <Typography sx={{ color: colors.brick }}>{say(live.trouble)}.</Typography>}
      <TakeCourse live={live} begin={begin} keep={keep} />
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
  readonly keep: (
    name: string,
    x: readonly number[],
    absorbance: readonly number[],
    source: "instrument" | "imported",
  ) => Promise<void>;
}

function TakeCourse({ live, begin, keep }: TakeCourseProps) {
  const say = useSay();
  return (
    <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap", alignItems: "flex-start" }}>
      {live.running ? (
        <Button variant="outlined" onClick={live.stop}>
          {say`Stop, and keep nothing`}
        </Button>
      ) : (
        <Button variant="contained" onClick={begin}>
          {say`Take it with the simulated photometer`}
        </Button>
      )}
      <TraceImport
        kind="s"
        label={say`From a file (CSV, JCAMP-DX)`}
        onRead={([first]) => first && void keep(first.name, first.x, first.absorbance, "imported")}
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
