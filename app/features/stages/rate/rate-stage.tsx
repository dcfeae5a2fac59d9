import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useState } from "react";
import type { CourseEvaluation, RateEvaluation, RunEvaluation } from "~/core/stages";
import { useRunInHand } from "../../../entry/run-context";
import { CautionPanel } from "../shared/caution-panel";
import { StrikeDialog } from "../shared/trial-dialogs";
import { courseName } from "./course-name";
import { CourseView } from "./course-view";
import { NewCourse } from "./new-course";
import { OrderTable } from "./order-table";
import { RateResult } from "./rate-result";
import { StageFrame } from "../photometer/stage-frame";
import { useSay } from "../../../words/text";

interface RateStageProps {
  stage: RateEvaluation;
  evaluation: RunEvaluation;
}

/** Courses of absorbance in time: each with its window, the three orders side by side, and the rate constant. */
export function RateStageView({ stage, evaluation }: RateStageProps) {
  const { record, send } = useRunInHand();
  const locked = record.status !== "open";
  const [asked, setAsked] = useState<string | null>(null);
  const [striking, setStriking] = useState<CourseEvaluation | null>(null);
  const made = stage.trials.filter((t) => t.trace);
  const course = asked === "new" ? null : (made.find((t) => t.id === asked) ?? made.at(-1) ?? null);
  return (
    <>
      <StageFrame stage={stage} evaluation={evaluation} columns={[8, 4]}>
        <Box sx={{ display: "grid", gap: 2, minWidth: 0 }}>
          <CourseChoice made={made} course={course} setAsked={setAsked} />
          {course ? (
            <CourseView
              key={course.id}
              course={course}
              stage={stage}
              title={record.title}
              onStrike={() =>
                course.record.struck
                  ? void send({ intent: "restore", trialId: course.id })
                  : setStriking(course)
              }
            />
          ) : (
            !locked && <NewCourse stage={stage} evaluation={evaluation} onMade={setAsked} />
          )}
          {course?.comparison && <OrderTable stage={stage} comparison={course.comparison} />}
        </Box>
        <Box sx={{ display: "grid", gap: 2, minWidth: 0 }}>
          <RateResult stage={stage} evaluation={evaluation} />
          <CautionPanel definition={stage.definition} />
        </Box>
      </StageFrame>
      {striking && <StrikeDialog trial={striking} onClose={() => setStriking(null)} />}
    </>
  );
}

interface CourseChoiceProps {
  readonly made: CourseEvaluation[];
  readonly course: CourseEvaluation | null;
  readonly setAsked: (to: string | null) => void;
}

function CourseChoice({ made, course, setAsked }: CourseChoiceProps) {
  const say = useSay();
  const { locked } = useRunInHand();
  return (
    <Box role="group" aria-label={say`Kinetic runs`} sx={{ display: "flex", gap: 1, flexWrap: "wrap" }}>
      {made.map((t) => (
        <Button
          key={t.id}
          size="small"
          variant={course?.id === t.id ? "contained" : "outlined"}
          aria-pressed={course?.id === t.id}
          onClick={() => setAsked(t.id)}
          sx={{ textDecoration: t.record.struck ? "line-through" : "none" }}
        >
          {say(courseName(t))}
        </Button>
      ))}
      {!locked && (
        <Button
          size="small"
          variant={course ? "outlined" : "contained"}
          aria-pressed={course === null}
          onClick={() => setAsked("new")}
        >
          {say`New kinetic run`}
        </Button>
      )}
    </Box>
  );
}
