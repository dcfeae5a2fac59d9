import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { v7 as newId } from "uuid";
import type { ReadingView } from "~/core/record";
import { isTaken } from "../../../live/post";
import { fonts } from "../../../theme/theme";
import { FormDialog, ReasonField } from "../../../ui/form-dialog";
import type { Send } from "../shared/use-run";

export interface ReadingTarget {
  readonly reading: ReadingView;
  readonly flask: string;
  readonly trialId: string | null;
  readonly symbol: string;
}

const strikeReasons = ["fingerprint on the cuvette", "bubble in the light", "read too early", "wrong flask"];
const correctReasons = ["misread", "written wrong", "wrong place"];

interface ReadingDialogProps {
  target: ReadingTarget;
  stageKey: string;
  send: Send;
  onClose: () => void;
}

/** One reading of many: corrected, struck out with the reason, or brought back. The old value stays beneath. */
export function ReadingDialog({ target, stageKey, send, onClose }: ReadingDialogProps) {
  const { reading, flask, trialId, symbol } = target;
  const [text, setText] = useState(reading.text);
  const [reason, setReason] = useState("");
  const [problem, setProblem] = useState<string | null>(null);
  const [id] = useState(() => newId());
  const done = (answer: Awaited<ReturnType<Send>>) =>
    isTaken(answer) ? onClose() : setProblem(answer.message);
  const unchanged = text.trim() === reading.text;
  const submit = () => {
    if (reading.struck) return void send({ intent: "restore-reading", observationId: reading.id }).then(done);
    if (reason.trim() === "")
      return setProblem(unchanged ? "Say why it is struck out" : "Say why it is corrected");
    if (unchanged)
      return void send({ intent: "strike-reading", observationId: reading.id, reason }).then(done);
    void send({
      intent: "observe",
      id,
      stageKey,
      trial: trialId === null ? null : { id: trialId, kind: "fine" },
      symbol,
      kind: reading.unit === "%" ? "transmittance" : "absorbance",
      text,
      supersedes: reading.id,
      reason,
      person: reading.person,
    }).then(done);
  };
  return (
    <FormDialog
      title={`Reading of ${flask}${reading.person ? `, by ${reading.person}` : ""}`}
      submit={reading.struck ? "Bring it back" : unchanged ? "Strike it out" : "Correct it"}
      onSubmit={submit}
      onClose={onClose}
    >
      {reading.struck ? (
        <Typography>
          <span style={{ fontFamily: fonts.reading, textDecoration: "line-through" }}>{reading.text}</span>{" "}
          was struck out: {reading.struck.reason}.{problem && ` ${problem}`}
        </Typography>
      ) : (
        <>
          <TextField
            label={reading.unit === "%" ? "Transmittance, %" : "Absorbance"}
            value={text}
            onChange={(event) => setText(event.target.value)}
            helperText="type another number to correct it; leave it to strike it out"
            slotProps={{ htmlInput: { inputMode: "decimal", style: { fontFamily: fonts.reading } } }}
          />
          <ReasonField
            value={reason}
            usual={unchanged ? strikeReasons : correctReasons}
            problem={problem}
            onChange={setReason}
          />
        </>
      )}
    </FormDialog>
  );
}

interface ReadingChipProps {
  reading: ReadingView;
  off: boolean;
  onOpen: () => void;
  locked: boolean;
}

/** A reading as a button that opens it. */
export function ReadingChip({ reading, off, onOpen, locked }: ReadingChipProps) {
  const struck = reading.struck !== null;
  const said = `${reading.text}${reading.unit}${struck ? ", struck out" : off ? ", off the line" : ""}`;
  const shown = (
    <span
      style={{
        fontFamily: fonts.reading,
        textDecoration: struck ? "line-through" : off ? "underline wavy" : "none",
        opacity: struck ? 0.75 : 1,
      }}
    >
      {reading.text}
      {reading.unit}
    </span>
  );
  if (locked) return shown;
  return (
    <Button
      size="small"
      color={off ? "error" : "secondary"}
      onClick={onOpen}
      aria-label={`Reading ${said}${reading.person ? `, by ${reading.person}` : ""}: change`}
      title={reading.struck ? reading.struck.reason : reading.person}
      sx={{ minWidth: 0, minHeight: 32, px: 0.6, py: 0, fontWeight: 500 }}
    >
      {shown}
    </Button>
  );
}
