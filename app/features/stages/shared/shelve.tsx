import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { lazy, Suspense, useContext, useState } from "react";
import { Link } from "react-router";
import type { ComputedEvaluation } from "~/core/stages";
import type { RunRecord } from "~/core/run";
import { uncapitalized } from "~/core/text";
import { colors } from "../../../theme/theme";
import { ShelfContext } from "./shelf-context";
import { useSay } from "../../../words/text";

const ShelveDialog = lazy(() => import("./shelve-dialog").then((m) => ({ default: m.ShelveDialog })));

interface ShelveButtonProps {
  stage: ComputedEvaluation;
  record: RunRecord;
}

/** What a stage has found, to be put on the shelf: to a bottle there, or to a new one. */
export function ShelveButton({ stage, record }: ShelveButtonProps) {
  const say = useSay();
  const shelf = useContext(ShelfContext);
  const [open, setOpen] = useState(false);
  const { assigns } = stage.definition.result;
  if (assigns === undefined || !stage.done) return null;
  const put = shelf.shelved.filter((s) => s.stageKey === stage.key).at(-1);
  return (
    <>
      {put && (
        <Typography variant="body2" data-testid={`shelved-${stage.key}`}>
          {say`On the shelf:`} <Link to={`/shelf/${put.solutionId}`}>{put.code}</Link> {put.name}
        </Typography>
      )}
      <Button
        variant={put ? "text" : "outlined"}
        size={put ? "small" : "medium"}
        sx={put ? { justifySelf: "start" } : {}}
        onClick={() => setOpen(true)}
      >
        {put ? say`Put it on the shelf again` : say`Put it on the shelf`}
      </Button>
      {open && (
        <Suspense>
          <ShelveDialog stage={stage} formula={assigns} record={record} onClose={() => setOpen(false)} />
        </Suspense>
      )}
    </>
  );
}

/** What this run has fixed and not put on the shelf: said where it is finished. */
export function NotShelved({ stages }: { stages: readonly ComputedEvaluation[] }) {
  const say = useSay();
  const { shelved } = useContext(ShelfContext);
  const waiting = stages.filter(
    (s) =>
      s.done && s.definition.result.assigns !== undefined && !shelved.some((put) => put.stageKey === s.key),
  );
  if (waiting.length === 0) return null;
  const names = waiting.map((s) => uncapitalized(s.definition.result.name)).join("; ");
  return (
    <Box component="span" sx={{ display: "block", color: colors.amberDeep }}>
      {say`Not on the shelf yet: ${names}. Put it there above where other runs are to use it.`}
    </Box>
  );
}
