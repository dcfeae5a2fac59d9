import Box from "@mui/material/Box";
import type { ReactNode } from "react";
import type { ComputedEvaluation, RunEvaluation } from "~/core/stages";
import { StageReadings } from "../shared/stage-readings";

interface StageFrameProps {
  stage: ComputedEvaluation;
  evaluation: RunEvaluation;
  /** How wide the two columns are, in parts of each other. */
  columns: readonly [number, number];
  /** False where all that is known beforehand is shown further down. */
  readings?: boolean;
  children: ReactNode;
}

/** What every stage on the photometer has: what is read once on top, two columns beneath, one on a phone. */
export function StageFrame({ stage, evaluation, columns, readings = true, children }: StageFrameProps) {
  const [left, right] = columns;
  return (
    <>
      {readings && <StageReadings stage={stage} evaluation={evaluation} />}
      <Box
        sx={{
          display: "grid",
          gap: 2,
          mt: 1.25,
          alignItems: "start",
          gridTemplateColumns: {
            xs: "minmax(0, 1fr)",
            md: `minmax(0, ${left}fr) minmax(0, ${right}fr)`,
          },
        }}
      >
        {children}
      </Box>
    </>
  );
}
