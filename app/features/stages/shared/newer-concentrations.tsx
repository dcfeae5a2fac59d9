import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useContext, useState } from "react";
import { Link, useRevalidator } from "react-router";
import type { RunRecord } from "~/core/run";
import { uncapitalized, type Phrase, unitText } from "~/core/text";
import { useRunInHand } from "../../../entry/run-context";
import { colors, fonts } from "../../../theme/theme";
import { Sheet } from "../../../ui/sheet";
import { When } from "../../../ui/when";
import { ShelfContext } from "./shelf-context";
import { useSay } from "../../../words/text";

/** Bottles that this run used and that have been given another concentration since, and what that would make. */
export function NewerConcentrations({ record }: { record: RunRecord }) {
  const say = useSay();
  const { send } = useRunInHand();
  const { newer, recomputations } = useContext(ShelfContext);
  const { revalidate } = useRevalidator();
  const [problem, setProblem] = useState<Phrase | null>(null);
  if (newer.length + recomputations.length === 0) return null;
  const finished = record.status !== "open";
  return (
    <Sheet
      component="section"
      aria-label={say`Concentrations since`}
      sx={{ borderLeft: `6px solid ${colors.amber}` }}
    >
      {newer.map(({ code, solutionId, name, unit, was, now }) => (
        <Typography key={solutionId}>
          <Link to={`/shelf/${solutionId}`}>{code}</Link>{" "}
          {say`${name} has been restandardized since: ${now} ${unitText(unit)}. This run keeps ${was} ${unitText(unit)}.`}
        </Typography>
      ))}
      {newer.length > 0 && finished && (
        <Button
          variant="outlined"
          sx={{ mt: 1 }}
          onClick={() =>
            void send({ intent: "recompute" }).then((answer) => {
              setProblem(answer.status === "done" ? null : answer.message);
              void revalidate();
            })
          }
        >
          {say`Recalculate with the newest`}
        </Button>
      )}
      {problem && <Alert severity="error">{say(problem)}</Alert>}
      {recomputations.map(({ id, at, changes, replaced }) => (
        <Box key={id} sx={{ mt: 1.5 }}>
          <Typography variant="h3">
            {say`Recalculated`} <When at={at} as="time" /> {say`with ${uncapitalized(replaced.join("; "))}`}
          </Typography>
          {changes.length === 0 && <Typography>{say`No displayed value changes.`}</Typography>}
          {changes.map(({ name, before, after }) => (
            <Typography key={say(name)}>
              {say(name)}: <span style={{ fontFamily: fonts.reading }}>{say(after)}</span> {say`instead of`}{" "}
              <span style={{ fontFamily: fonts.reading }}>{say(before)}</span>
            </Typography>
          ))}
        </Box>
      ))}
    </Sheet>
  );
}
