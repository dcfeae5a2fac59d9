import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { ReactNode } from "react";
import { Link } from "react-router";
import { beadAfter, type ComputedEvaluation, type RunEvaluation } from "~/core/stages";
import { useSay } from "../../../words/text";

interface WayOnProps {
  stage: ComputedEvaluation;
  evaluation: RunEvaluation;
  children?: ReactNode;
}

/** From a stage with a result: to the next one, and to the working. */
export function WayOn({ stage, evaluation, children }: WayOnProps) {
  const say = useSay();
  const next = beadAfter(evaluation, stage.key);
  return (
    <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap", mt: 1.25 }}>
      {next && (
        <Button
          component={Link}
          to={`?stage=${next.key}`}
          variant={stage.done ? "contained" : "outlined"}
          preventScrollReset
        >
          {say`Go on: ${next.title}`}
        </Button>
      )}
      <Button component={Link} to={`working?stage=${stage.key}`} relative="path" variant="outlined">
        {say`Show the working`}
      </Button>
      {children}
    </Box>
  );
}
