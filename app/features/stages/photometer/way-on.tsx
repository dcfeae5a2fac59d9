import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { ReactNode } from "react";
import { Link } from "react-router";
import type { ComputedEvaluation, RunEvaluation } from "~/core/stages";

interface WayOnProps {
  stage: ComputedEvaluation;
  evaluation: RunEvaluation;
  children?: ReactNode;
}

/** From a stage with a result: to the next one, and to the working. */
export function WayOn({ stage, evaluation, children }: WayOnProps) {
  const next = evaluation.stages[evaluation.stages.findIndex((s) => s.key === stage.key) + 1];
  return (
    <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap", mt: 1.25 }}>
      {next && (
        <Button
          component={Link}
          to={`?stage=${next.key}`}
          variant={stage.done ? "contained" : "outlined"}
          preventScrollReset
        >
          Go on: {next.definition.title}
        </Button>
      )}
      <Button component={Link} to={`working?stage=${stage.key}`} relative="path" variant="outlined">
        Show the working
      </Button>
      {children}
    </Box>
  );
}
