import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import type { Field } from "~/core/inputs";
import { type ComputedStage, fieldKey, stageFields, trialFields } from "~/core/method";
import type { ReadingView } from "~/core/record";
import type { HouseRules } from "~/core/rules";
import { answerIn, confirmIn, stateIn, typeIn } from "../../../entry/entry";
import { ReadingTextField } from "../../../entry/reading-text-field";
import { useDialogEntry } from "../../../entry/use-dialog-entry";
import { useRunInHand } from "../../../entry/run-context";
import { isTaken } from "../../../live/post";
import { fonts } from "../../../theme/theme";
import { FormDialog, ReasonField } from "../../../ui/form-dialog";
import { useSay } from "../../../words/text";
import { msg, type Phrase, unitText } from "~/core/text";

export interface ReadingTarget {
  readonly reading: ReadingView;
  readonly flask: string;
  readonly trialId: string | null;
  readonly symbol: string;
}

const strikeReasons = [
  msg`fingerprint on the cuvette`,
  msg`bubble in the light path`,
  msg`read too early`,
  msg`wrong flask`,
];
const correctReasons = [msg`misread`, msg`written down wrong`, msg`wrong place`];

interface ReadingDialogProps {
  target: ReadingTarget;
  stage: ComputedStage;
  onClose: () => void;
}

/** The field that a reading of many was typed in. */
function fieldOf(stage: ComputedStage, rules: HouseRules, { reading, trialId, symbol }: ReadingTarget) {
  const kind = reading.unit === "%" ? "transmittance" : "absorbance";
  const all = (trialId === null ? stageFields : trialFields)(stage, rules);
  return all.find((field) => field.symbol === symbol && field.kind === kind);
}

/** One reading of many: corrected, struck out with the reason, or brought back. The old value stays beneath. */
export function ReadingDialog(props: ReadingDialogProps) {
  const { rules } = useRunInHand();
  const field = fieldOf(props.stage, rules, props.target);
  if (props.target.reading.struck) return <StruckReading {...props} struck={props.target.reading.struck} />;
  return field ? <StandingReading {...props} field={field} /> : null;
}

const titleOf = ({ reading, flask }: ReadingTarget) =>
  msg`Reading of ${flask}${reading.person ? msg`, by ${reading.person}` : ""}`;

function StruckReading(props: ReadingDialogProps & { struck: { readonly reason: string } }) {
  const say = useSay();
  const { target, onClose, struck } = props;
  const { send } = useRunInHand();
  const [problem, setProblem] = useState<Phrase | null>(null);
  const submit = () =>
    void send({ intent: "restore-reading", observationId: target.reading.id }).then((answer) =>
      isTaken(answer) ? onClose() : setProblem(answer.message),
    );
  return (
    <FormDialog title={say(titleOf(target))} submit={say`Restore it`} onSubmit={submit} onClose={onClose}>
      <Typography>
        <span style={{ fontFamily: fonts.reading, textDecoration: "line-through" }}>
          {target.reading.text}
        </span>{" "}
        {say`was struck out: ${struck.reason}.`}
        {problem && say` ${problem}`}
      </Typography>
    </FormDialog>
  );
}

function StandingReading({ target, stage, onClose, field }: ReadingDialogProps & { field: Field }) {
  const say = useSay();
  const { send } = useRunInHand();
  const { reading, trialId } = target;
  const trial = trialId === null ? null : ({ id: trialId, kind: "fine" } as const);
  const offered = { [fieldKey(field)]: reading.text };
  const entry = useDialogEntry({ stage, trial, observations: [], offered, fields: [field] });
  const [reason, setReason] = useState("");
  const [problem, setProblem] = useState<Phrase | null>(null);
  const state = stateIn(entry, field);
  const unchanged = state.text.trim() === reading.text;
  const submit = async () => {
    if (reason.trim() === "")
      return setProblem(unchanged ? say`Say why it is struck out` : say`Say why it is corrected`);
    setProblem(null);
    if (unchanged) {
      const answer = await send({ intent: "strike-reading", observationId: reading.id, reason });
      return isTaken(answer) ? onClose() : setProblem(answer.message);
    }
    const entered = confirmIn(entry, field);
    if (entered === "held") return;
    for (const { id, text } of entered) {
      const answer = await send({
        ...{ intent: "observe", id, stageKey: stage.key, trial, text, reason },
        ...{ symbol: field.symbol, kind: field.kind, supersedes: reading.id, person: reading.person },
      });
      answerIn(entry, entered, answer);
      if (isTaken(answer)) onClose();
    }
  };
  return (
    <FormDialog
      title={say(titleOf(target))}
      submit={unchanged ? say`Strike it out` : say`Correct it`}
      onSubmit={() => void submit()}
      onClose={onClose}
    >
      <ReadingTextField
        label={reading.unit === "%" ? say`Transmittance, %` : say`Absorbance`}
        state={state}
        hint={say`type another number to correct it, or leave it to strike it out`}
        onType={(text) => typeIn(entry, field, text)}
      />
      <ReasonField
        value={reason}
        usual={unchanged ? strikeReasons : correctReasons}
        problem={problem}
        onChange={setReason}
      />
    </FormDialog>
  );
}

interface ReadingChipProps {
  reading: ReadingView;
  off: boolean;
  onOpen: () => void;
}

/** A reading as a button that opens it. */
export function ReadingChip({ reading, off, onOpen }: ReadingChipProps) {
  const say = useSay();
  const { locked } = useRunInHand();
  const struck = reading.struck !== null;
  const label = say`${reading.text}${unitText(reading.unit)}${struck ? msg`, struck out` : off ? msg`, off the line` : ""}`;
  const shown = (
    <span
      style={{
        fontFamily: fonts.reading,
        textDecoration: struck ? "line-through" : off ? "underline wavy" : "none",
        opacity: struck ? 0.75 : 1,
      }}
    >
      {reading.text}
      {say(unitText(reading.unit))}
    </span>
  );
  if (locked) return shown;
  return (
    <Button
      size="small"
      color={off ? "error" : "secondary"}
      onClick={onOpen}
      aria-label={say`Reading ${label}${reading.person ? say`, by ${reading.person}` : ""}: change`}
      title={reading.struck ? reading.struck.reason : reading.person}
      sx={{ minWidth: 0, minHeight: 32, px: 0.6, py: 0, fontWeight: 500 }}
    >
      {shown}
    </Button>
  );
}
