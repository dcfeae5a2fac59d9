import Box from "@mui/material/Box";
import { withUnit } from "~/core/quantity";
import { useState } from "react";
import type { ComputedStage } from "~/core/method";
import type { FieldState, TrialEvaluation } from "~/core/stages";
import { isPreselected } from "~/core/record";
import { sourceWords, msg, type Phrase, unitText } from "~/core/text";
import { useRunInHand } from "../../../entry/run-context";
import { answerIn, confirmAllIn, stateIn, typeIn } from "../../../entry/entry";
import { ReadingTextField } from "../../../entry/reading-text-field";
import { useDialogEntry } from "../../../entry/use-dialog-entry";
import { isTaken } from "../../../live/post";
import { colors, fonts } from "../../../theme/theme";
import { FormDialog, ReasonField } from "../../../ui/form-dialog";
import { When } from "../../../ui/when";
import { ByInstrument } from "./by-instrument";
import { useSay } from "../../../words/text";

export interface CorrectionTarget {
  readonly trialId: string;
  readonly fieldKey: string;
}

interface CorrectDialogProps {
  state: FieldState;
  /** The ± that belongs to the value, where it has one: typed with it, or left empty. */
  spread?: FieldState | null;
  holder: Pick<TrialEvaluation["record"], "observations">;
  trialId: string | null;
  trialKind: "rough" | "fine";
  stage: ComputedStage;
  onClose: () => void;
}

const usualReasons = [msg`misread`, msg`digits swapped`, msg`written down wrongly`];

/** A correction in the making: what is typed, why, and how it is sent. */
function useCorrection(props: CorrectDialogProps) {
  const say = useSay();
  const { state, spread = null, holder, trialId, trialKind, stage, onClose } = props;
  const { send } = useRunInHand();
  const { field, present } = state;
  const trial = trialId === null ? null : { id: trialId, kind: trialKind };
  const fields = spread ? [field, spread.field] : [field];
  const entry = useDialogEntry({ stage, trial, observations: holder.observations, fields });
  // What an instrument showed is by that instrument as long as nobody writes over it.
  const [shown, setShown] = useState<string | null>(null);
  const [reason, setReason] = useState("");
  const [reasonProblem, setReasonProblem] = useState<Phrase | null>(null);
  // What stood there when it was opened is what is corrected: another device may have corrected it since.
  const [openedId, setOpenedId] = useState(present?.id ?? null);
  const needsReason = present !== null && !isPreselected(present);

  const submit = async () => {
    const missing = needsReason && reason.trim() === "" ? say`Say why the reading is corrected` : null;
    setReasonProblem(missing);
    const asked = fields.filter((f) => f === field || stateIn(entry, f).text !== "");
    const wrong = asked.filter((f) => !entry.check(f, stateIn(entry, f).text).ok);
    const entered = confirmAllIn(entry, missing ? wrong : asked);
    if (missing || entered === "held") return;
    for (const { id, text, field: of } of entered) {
      const isValue = of === field;
      const answer = await send({
        ...{ intent: "observe", id, stageKey: stage.key, trial, text, symbol: of.symbol, kind: of.kind },
        // The ± of the value before went with it: this one is the new value's own.
        supersedes: isValue ? openedId : null,
        reason: isValue && needsReason ? reason.trim() : null,
        source: text === shown ? "instrument" : "typed",
      });
      answerIn(entry, isTaken(answer) ? entered.filter((r) => r.id === id) : entered, answer);
      if (isTaken(answer)) continue;
      // Told of it, the person corrects what stands there now.
      if ("present" in answer && answer.present) setOpenedId(answer.present.id);
      return;
    }
    onClose();
  };
  return { entry, needsReason, reason, setReason, reasonProblem, setShown, submit };
}

/** Corrects one reading: the old value is struck through and kept, with the reason. */
export function CorrectDialog(props: CorrectDialogProps) {
  const say = useSay();
  const { state, spread = null, trialId, stage, onClose } = props;
  const { field } = state;
  const { entry, needsReason, reason, setReason, reasonProblem, setShown, submit } = useCorrection(props);
  return (
    <FormDialog
      title={say(needsReason ? say`Correct: ${field.label}` : field.label)}
      submit={needsReason ? say`Correct` : say`Save`}
      onSubmit={() => void submit()}
      onClose={onClose}
    >
      <History state={state} />
      <ReadingTextField
        label={say(field.unit === "" ? field.label : say`${field.label}, ${unitText(field.unit)}`)}
        state={stateIn(entry, field)}
        autoFocus
        large
        hint={say(field.hint)}
        onType={(text) => typeIn(entry, field, text)}
      />
      {spread && (
        <ReadingTextField
          label={field.unit === "" ? say`± of it` : say`± of it, ${unitText(field.unit)}`}
          state={stateIn(entry, spread.field)}
          hint={say`half the width; empty: not stated, and not counted`}
          onType={(text) => typeIn(entry, spread.field, text)}
        />
      )}
      <ByInstrument
        stage={stage}
        field={field}
        flask={trialId ?? stage.key}
        onTake={(value) => {
          typeIn(entry, field, value);
          setShown(value);
        }}
      />
      {needsReason && (
        <ReasonField value={reason} usual={usualReasons} problem={reasonProblem} onChange={setReason} />
      )}
    </FormDialog>
  );
}

/** All that was ever written in the field, oldest first. */
function History({ state }: { readonly state: FieldState }) {
  const say = useSay();
  const { history, present } = state;
  if (history.length === 0) return null;
  return (
    <Box component="ul" sx={{ m: 0, p: 0, listStyle: "none", color: colors.inkSoft }}>
      {history.map((o) => (
        <Box component="li" key={o.id}>
          <Box
            component="span"
            sx={{
              fontFamily: fonts.reading,
              textDecoration: o.id === present?.id ? "none" : "line-through",
              mr: 1,
            }}
          >
            {o.text ? say(withUnit(o.text, o.unit)) : say`taken back`}
          </Box>
          <When at={o.at} as="time" />
          {say`${o.person && `, ${o.person}`}${sourceWords[o.source]}`}
          {o.reason && `: ${o.reason}`}
        </Box>
      ))}
    </Box>
  );
}
