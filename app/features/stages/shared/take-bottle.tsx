import Alert from "@mui/material/Alert";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import type { Input } from "~/core/inputs";
import { concentrationText, howWords } from "~/protocol/concentration";
import { type SolutionView } from "~/protocol/shelf";
import { useRunInHand } from "../../../entry/run-context";
import { colors, fonts } from "../../../theme/theme";
import { When } from "../../../ui/when";
import { FormDialog, ReasonField } from "../../../ui/form-dialog";
import { useSay } from "../../../words/text";
import { type Phrase } from "~/core/text";

interface TakeDialogProps {
  input: Input;
  bottles: readonly SolutionView[];
  stageKey: string;
  /** True where something was read already: then a reason is needed. */
  replaces: boolean;
  onClose: () => void;
}

/** Picks a bottle of the shelf: its concentration comes with its ±. */
export function TakeDialog({ input, bottles, stageKey, replaces, onClose }: TakeDialogProps) {
  const say = useSay();
  const { send } = useRunInHand();
  const [chosen, setChosen] = useState(bottles[0]?.id ?? "");
  const [reason, setReason] = useState("");
  const [problem, setProblem] = useState<Phrase | null>(null);
  const bottle = bottles.find((b) => b.id === chosen);
  const submit = () => {
    if (!bottle?.current) return setProblem(say`Choose a bottle`);
    if (replaces && reason.trim() === "") return setProblem(say`Say why another one is taken`);
    void send({
      intent: "take",
      stageKey,
      symbol: input.symbol,
      assignmentId: bottle.current.id,
      reason: replaces ? reason.trim() : null,
    }).then((answer) => (answer.status === "done" ? onClose() : setProblem(answer.message)));
  };
  return (
    <FormDialog
      title={say`${input.label}: from the shelf`}
      submit={say`Take it`}
      onSubmit={submit}
      onClose={onClose}
    >
      <TextField select label={say`Bottle`} value={chosen} onChange={(e) => setChosen(e.target.value)}>
        {bottles.map((b) => (
          <MenuItem key={b.id} value={b.id} sx={{ whiteSpace: "normal" }}>
            {b.code} {b.name}, {b.current && say(concentrationText(b.current))}
          </MenuItem>
        ))}
      </TextField>
      {bottle?.current && (
        <Typography color="textSecondary">
          <span style={{ fontFamily: fonts.reading, color: colors.ink }}>
            {say(concentrationText(bottle.current))}
          </span>
          , {say(howWords[bottle.current.how])} <When at={bottle.current.at} />
        </Typography>
      )}
      {bottle?.state === "past its date" && (
        <Alert severity="warning">{say`Past its date: restandardize before you rely on it.`}</Alert>
      )}
      {replaces && (
        <ReasonField
          value={reason}
          usual={[say`another bottle`, "restandardized", say`wrong bottle chosen`]}
          problem={null}
          onChange={setReason}
        />
      )}
      {problem && <Alert severity="error">{say(problem)}</Alert>}
    </FormDialog>
  );
}
