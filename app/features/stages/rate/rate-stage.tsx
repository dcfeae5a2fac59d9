import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useState } from "react";
import type { CourseEvaluation, RateEvaluation, RunEvaluation } from "~/core/stages";
import { CautionPanel } from "../shared/panels";
import { StrikeDialog } from "../shared/trial-dialogs";
import type { LiveRun } from "../shared/use-run";
import { courseName } from "./course-name";
import { CourseView } from "./course-view";
import { NewCourse } from "./new-course";
import { OrderTable } from "./order-table";
import { RateResult } from "./rate-result";
import { StageFrame } from "../photometer/stage-frame";

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
      <StageFrame run={run} stage={stage} evaluation={evaluation} columns={[8, 4]}>
        <Box sx={{ display: "grid", gap: 2, minWidth: 0 }}>
          <CourseChoice made={made} course={course} setAsked={setAsked} locked={locked} />
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
            <OrderTable
              stage={stage}
              rules={record.houseRules}
              comparison={course.comparison}
              locked={locked}
              send={send}
            />
          )}
        </Box>
        <Box sx={{ display: "grid", gap: 2, minWidth: 0 }}>
          <RateResult run={run} stage={stage} evaluation={evaluation} />
          <CautionPanel definition={stage.definition} />
        </Box>
      </StageFrame>
      {striking && <StrikeDialog trial={striking} send={send} onClose={() => setStriking(null)} />}
    </>
  );
}

interface CourseChoiceProps {
  readonly made: CourseEvaluation[];
  readonly course: CourseEvaluation | null;
  readonly setAsked: (to: string | null) => void;
  readonly locked: boolean;
}

function CourseChoice({ made, course, setAsked, locked }: CourseChoiceProps) {
  return (
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
  );
}
