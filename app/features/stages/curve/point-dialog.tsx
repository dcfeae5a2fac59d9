import Typography from "@mui/material/Typography";
import { useState } from "react";
import { meterOf, pointBurette } from "~/core/inputs";
import { fieldKey, trialFields } from "~/core/method";
import type { PointView } from "~/core/record";
import type { CurveEvaluation, CurveStageEvaluation } from "~/core/stages";
import { msg, type Phrase, unitText, withPoint } from "~/core/text";
import { answerIn, confirmAllIn, stateIn, typeIn } from "../../../entry/entry";
import { ReadingTextField } from "../../../entry/reading-text-field";
import { useDialogEntry } from "../../../entry/use-dialog-entry";
import { useRunInHand } from "../../../entry/run-context";
import { isTaken } from "../../../live/post";
import { FormDialog, ReasonField } from "../../../ui/form-dialog";
import { useSay } from "../../../words/text";
import { curveInputOf } from "./use-curve-entry";

interface PointDialogProps {
  readonly stage: CurveStageEvaluation;
  readonly curve: CurveEvaluation;
  readonly point: PointView;
  readonly onClose: () => void;
}

const strikeReasons = [
  msg`taken too soon`,
  msg`bubble at the electrode`,
  msg`stirrer had stopped`,
  msg`drop hung at the tip`,
];
const correctReasons = [msg`misread`, msg`written down wrong`];

/** One point of a curve: corrected, struck out with the reason, or brought back. What stood before stays beneath. */
export function PointDialog(props: PointDialogProps) {
  return props.point.struck ? <StruckPoint {...props} /> : <StandingPoint {...props} />;
}

function StruckPoint({ point, onClose }: PointDialogProps) {
  const say = useSay();
  const { send } = useRunInHand();
  const [problem, setProblem] = useState<Phrase | null>(null);
  const submit = () =>
    void send({ intent: "restore-reading", observationId: point.id }).then((answer) =>
      isTaken(answer) ? onClose() : setProblem(answer.message),
    );
  return (
    <FormDialog
      title={say`Point at ${point.place.burette} ${unitText("mL")}`}
      submit={say`Restore it`}
      onSubmit={submit}
      onClose={onClose}
    >
      <Typography>
        {say`${point.text} was struck out: ${point.struck?.reason ?? ""}.`}
        {problem && say` ${problem}`}
      </Typography>
    </FormDialog>
  );
}

function StandingPoint({ stage, curve, point, onClose }: PointDialogProps) {
  const say = useSay();
  const { send, rules } = useRunInHand();
  const input = curveInputOf(stage);
  const { label, unit } = meterOf(input);
  const burette = pointBurette(input, rules);
  const field = trialFields(stage.definition, rules).find(({ kind }) => kind === "point") ?? burette;
  const trial = { id: curve.id, kind: "fine" } as const;
  const entry = useDialogEntry({
    ...{ stage: stage.definition, trial, observations: [], fields: [burette, field] },
    offered: { [fieldKey(burette)]: point.place.burette, [fieldKey(field)]: point.text },
    place: { burette: point.place.burette },
  });
  const [reason, setReason] = useState("");
  const [problem, setProblem] = useState<Phrase | null>(null);
  const texts = [stateIn(entry, burette).text.trim(), stateIn(entry, field).text.trim()];
  const unchanged = texts[0] === point.place.burette && texts[1] === point.text;
  const submit = async () => {
    if (reason.trim() === "")
      return setProblem(unchanged ? say`Say why it is struck out` : say`Say why it is corrected`);
    setProblem(null);
    if (unchanged) {
      const answer = await send({ intent: "strike-reading", observationId: point.id, reason });
      return isTaken(answer) ? onClose() : setProblem(answer.message);
    }
    const entered = confirmAllIn(entry, [burette, field]);
    if (entered === "held") return;
    const reading = entered.find((one) => one.field === field);
    if (!reading) return;
    const place = { ...point.place, burette: withPoint(texts[0] ?? "") };
    const answer = await send({
      ...{ intent: "observe", id: reading.id, stageKey: stage.key, trial, text: reading.text, reason },
      ...{ symbol: field.symbol, kind: "point", supersedes: point.id, person: point.person, point: place },
    });
    answerIn(entry, entered, answer);
    if (isTaken(answer)) onClose();
    else setProblem(answer.message);
  };
  return (
    <FormDialog
      title={say`Point at ${point.place.burette} ${unitText("mL")}`}
      submit={unchanged ? say`Strike it out` : say`Correct it`}
      onSubmit={() => void submit()}
      onClose={onClose}
    >
      <ReadingTextField
        label={say`Burette, ${unitText("mL")}`}
        state={stateIn(entry, burette)}
        onType={(text) => typeIn(entry, burette, text)}
      />
      <ReadingTextField
        label={unit === "" ? say(label) : say`${label}, ${unitText(unit)}`}
        state={stateIn(entry, field)}
        hint={say`type another number to correct it, or leave both to strike it out`}
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
