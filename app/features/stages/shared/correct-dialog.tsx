import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import { useState } from "react";
import { v7 as newId } from "uuid";
import { checkField, type ComputedStage } from "~/core/method";
import type { FieldState, TrialEvaluation } from "~/core/stages";
import type { HouseRules } from "~/core/rules";
import { isPreselected } from "~/core/record";
import { asksBack } from "~/core/measure";
import { sourceWords } from "~/core/text";
import { isTaken } from "../../../live/post";
import { colors, fonts } from "../../../theme/theme";
import { FormDialog, ReasonField } from "../../../ui/form-dialog";
import { When } from "../../../ui/when";
import { ByInstrument } from "./by-instrument";
import type { Send } from "./use-run";

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
  rules: HouseRules;
  send: Send;
  onClose: () => void;
}

const usualReasons = ["misread", "digits swapped", "written down wrongly"];

/** Corrects one reading: the old value is struck through and kept, with the reason. */
export function CorrectDialog({
  state,
  spread = null,
  holder,
  trialId,
  trialKind,
  stage,
  rules,
  send,
  onClose,
}: CorrectDialogProps) {
  const { field, present, history } = state;
  const [text, setText] = useState("");
  // What an instrument showed is by that instrument as long as nobody writes over it.
  const [shown, setShown] = useState<string | null>(null);
  const [reason, setReason] = useState("");
  const [problem, setProblem] = useState<{ message: string; proposal?: string } | null>(null);
  const [reasonProblem, setReasonProblem] = useState<string | null>(null);
  // What stood there when it was opened is what is corrected: another device may have corrected it since.
  const [openedId, setOpenedId] = useState(present?.id ?? null);
  const needsReason = present !== null && !isPreselected(present);
  const [spreadText, setSpreadText] = useState("");
  const [spreadProblem, setSpreadProblem] = useState<string | null>(null);
  // What is asked about is kept when it is sent once more.
  const [keptText, setKeptText] = useState<string | null>(null);

  const submit = () => {
    const checked = checkField(field, text, { stage, houseRules: rules, holder });
    setProblem(checked.ok ? null : checked.problem);
    const missing = needsReason && reason.trim() === "" ? "Say why the reading is corrected" : null;
    setReasonProblem(missing);
    const half =
      spread && spreadText.trim() !== ""
        ? checkField(spread.field, spreadText, { stage, houseRules: rules, holder })
        : null;
    setSpreadProblem(half && !half.ok ? half.problem.message : null);
    if (!checked.ok || missing || (half && !half.ok)) return;
    const asked = checked.value.cautions.find(asksBack);
    if (asked && keptText !== text) {
      setKeptText(text);
      return setProblem({ ...asked, message: `${asked.message} Sent once more, it is kept.` });
    }
    const trial = trialId === null ? null : { id: trialId, kind: trialKind };
    const shared = { intent: "observe", stageKey: stage.key, trial, symbol: field.symbol } as const;
    void send({
      ...shared,
      id: newId(),
      kind: field.kind,
      text,
      supersedes: openedId,
      reason: needsReason ? reason.trim() : null,
      source: text === shown ? "instrument" : "typed",
    }).then((answer) => {
      if (isTaken(answer) && half && spread) {
        // The ± of the value before went with it: this one is the new value's own.
        void send({
          ...shared,
          id: newId(),
          kind: spread.field.kind,
          text: spreadText,
          supersedes: null,
          reason: null,
        });
      }
      if (isTaken(answer)) return onClose();
      setProblem(answer);
      // Told of it, the person corrects what stands there now.
      if ("present" in answer && answer.present) setOpenedId(answer.present.id);
    });
  };

  return (
    <FormDialog
      title={needsReason ? `Correct: ${field.label}` : field.label}
      submit={needsReason ? "Correct" : "Save"}
      onSubmit={submit}
      onClose={onClose}
    >
      {history.length > 0 && (
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
                {o.text || "taken back"} {o.text && o.unit}
              </Box>
              <When at={o.at} as="time" />
              {o.person && `, ${o.person}`}
              {sourceWords[o.source]}
              {o.reason && `: ${o.reason}`}
            </Box>
          ))}
        </Box>
      )}
      <TextField
        label={field.unit === "" ? field.label : `${field.label}, ${field.unit}`}
        value={text}
        autoFocus
        error={problem !== null}
        helperText={problem?.message ?? field.hint}
        onChange={(event) => setText(event.target.value)}
        slotProps={{
          htmlInput: {
            inputMode: "decimal",
            autoComplete: "off",
            style: { fontFamily: fonts.reading, fontSize: "1.4rem" },
          },
        }}
      />
      {spread && (
        <TextField
          label={`± of it, ${field.unit}`.replace(/, $/, "")}
          value={spreadText}
          error={spreadProblem !== null}
          helperText={spreadProblem ?? "half the width; empty: not stated, and not counted"}
          onChange={(event) => setSpreadText(event.target.value)}
          slotProps={{
            htmlInput: { inputMode: "decimal", autoComplete: "off", style: { fontFamily: fonts.reading } },
          }}
        />
      )}
      <ByInstrument
        stage={stage}
        field={field}
        flask={trialId ?? stage.key}
        onTake={(value) => {
          setText(value);
          setShown(value);
        }}
      />
      {problem?.proposal !== undefined && (
        <Button
          variant="outlined"
          size="small"
          onClick={() => setText(problem.proposal ?? "")}
          sx={{ width: "fit-content" }}
        >
          Write {problem.proposal}
        </Button>
      )}
      {needsReason && (
        <ReasonField value={reason} usual={usualReasons} problem={reasonProblem} onChange={setReason} />
      )}
    </FormDialog>
  );
}
