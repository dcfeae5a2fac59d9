import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import dayjs from "dayjs";
import { useContext, useState } from "react";
import { Link, useRevalidator } from "react-router";
import type { SolutionView } from "~/protocol/shelf";
import { substanceOf } from "~/catalog/substances";
import type { ComputedEvaluation } from "~/core/stages";
import type { RunRecord } from "~/core/run";
import { uncapitalized, type Phrase } from "~/core/text";
import { concentrationText } from "~/protocol/concentration";
import { useRunInHand } from "../../../entry/run-context";
import { colors } from "../../../theme/theme";
import { FormDialog } from "../../../ui/form-dialog";
import { ShelfContext } from "./shelf-context";
import { useSay } from "../../../words/text";

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
        <ShelveDialog stage={stage} formula={assigns} record={record} onClose={() => setOpen(false)} />
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

interface ShelveDialogProps {
  stage: ComputedEvaluation;
  formula: string;
  record: RunRecord;
  onClose: () => void;
}

function ShelveDialog({ stage, formula, record, onClose }: ShelveDialogProps) {
  const say = useSay();
  const { send } = useRunInHand();
  const { bottles, shelved } = useContext(ShelfContext);
  const { revalidate } = useRevalidator();
  const own = bottles.filter((b) => b.formula === formula && b.form === "solution");
  const substance = record.method.substances[formula] ?? formula;
  const days = substanceOf(formula)?.restandardizeDays;
  // A new bottle unless this run has named one: another one's concentration is not replaced by a mere Enter.
  const [solutionId, setSolutionId] = useState(
    shelved.filter((put) => put.stageKey === stage.key).at(-1)?.solutionId ?? "",
  );
  const chosen = own.find((b) => b.id === solutionId);
  const [name, setName] = useState(substance);
  const [by, setBy] = useState(days === undefined ? "" : dayjs().add(days, "day").format("YYYY-MM-DD"));
  const [problem, setProblem] = useState<Phrase | null>(null);
  const submit = () =>
    void send({
      intent: "shelve",
      stageKey: stage.key,
      solutionId: solutionId || null,
      name,
      restandardizeBy: by,
    }).then((answer) => {
      if (answer.status !== "done") return setProblem(answer.message);
      void revalidate();
      onClose();
    });
  return (
    <FormDialog
      title={say`${stage.shown?.text ?? ""}: onto the shelf`}
      submit={say`Put it on the shelf`}
      onSubmit={submit}
      onClose={onClose}
    >
      <BottleChoice
        solutionId={solutionId}
        setSolutionId={setSolutionId}
        chosen={chosen}
        own={own}
        substance={substance}
      />
      {solutionId === "" && (
        <TextField label={say`Name`} value={name} onChange={(e) => setName(e.target.value)} />
      )}
      <TextField
        label={say`Restandardize by`}
        type="date"
        value={by}
        onChange={(e) => setBy(e.target.value)}
        slotProps={{ inputLabel: { shrink: true } }}
      />
      {problem && <Alert severity="error">{say(problem)}</Alert>}
    </FormDialog>
  );
}

interface BottleChoiceProps {
  readonly solutionId: string;
  readonly setSolutionId: (to: string) => void;
  readonly chosen: SolutionView | undefined;
  readonly own: SolutionView[];
  readonly substance: string;
}

function BottleChoice({ solutionId, setSolutionId, chosen, own, substance }: BottleChoiceProps) {
  const say = useSay();
  return (
    <TextField
      select
      label={say`Bottle`}
      value={solutionId}
      onChange={(e) => setSolutionId(e.target.value)}
      helperText={
        chosen?.current
          ? say`Now ${concentrationText(chosen.current)}: that stays in its history, and finished runs keep it`
          : undefined
      }
      slotProps={{ inputLabel: { shrink: true }, select: { displayEmpty: true } }}
    >
      {own.map((b) => (
        <MenuItem key={b.id} value={b.id} sx={{ whiteSpace: "normal" }}>
          {b.code} {b.name}
        </MenuItem>
      ))}
      <MenuItem value="">{say`a new bottle of ${substance}`}</MenuItem>
    </TextField>
  );
}
