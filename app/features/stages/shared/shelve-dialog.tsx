import Alert from "@mui/material/Alert";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import dayjs from "dayjs";
import { useContext, useState } from "react";
import { useRevalidator } from "react-router";
import { substanceOf } from "~/catalog/substances";
import type { RunRecord } from "~/core/run";
import type { ComputedEvaluation } from "~/core/stages";
import type { Phrase } from "~/core/text";
import { concentrationText } from "~/protocol/concentration";
import type { SolutionView } from "~/protocol/shelf";
import { useRunInHand } from "../../../entry/run-context";
import { FormDialog } from "../../../ui/form-dialog";
import { useSay } from "../../../words/text";
import { ShelfContext } from "./shelf-context";

interface ShelveDialogProps {
  stage: ComputedEvaluation;
  formula: string;
  record: RunRecord;
  onClose: () => void;
}

/** To which bottle what a stage has found goes, and until when it holds. */
export function ShelveDialog({ stage, formula, record, onClose }: ShelveDialogProps) {
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
