import Box from "@mui/material/Box";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { equivalentsOfResult, type TitrationStage } from "~/core/method";
import { printedUnit } from "~/core/quantity";
import { msg, type Phrase, unitText, withPoint } from "~/core/text";
import { useRunInHand } from "../../../entry/run-context";
import { isTaken } from "../../../live/post";
import { FormDialog } from "../../../ui/form-dialog";
import { NormalityHelp } from "../../../ui/normality-help";
import { useSay } from "../../../words/text";

/** About what a person expects to find: a result, or a titer. Empty: nothing. */
export function ExpectDialog({
  stage,
  onClose,
}: {
  readonly stage: TitrationStage;
  readonly onClose: () => void;
}) {
  const say = useSay();
  const { send, record } = useRunInHand();
  const now = stage.expected ?? null;
  const [text, setText] = useState(now ? String(now.value) : "");
  const [unit, setUnit] = useState<"unit" | "mL">(now?.in ?? "unit");
  const [problem, setProblem] = useState<Phrase | null>(null);
  const type = (typed: string) => {
    setProblem(null);
    setText(typed);
  };
  const submit = () => {
    const typed = withPoint(text.trim());
    const value = Number(typed);
    if (typed !== "" && !(value > 0)) return setProblem(msg`Type a number above zero, or nothing`);
    const expected = typed === "" ? null : { value, in: unit, of: stage.result.symbol };
    void send({ intent: "expect", stageKey: stage.key, expected }).then((answer) =>
      isTaken(answer) ? onClose() : setProblem(answer.message),
    );
  };
  return (
    <FormDialog
      title={say`${stage.title}: what do you expect?`}
      submit={say`Expect it`}
      onSubmit={submit}
      onClose={onClose}
    >
      <Typography color="textSecondary">
        {say`By it the end point is looked for until a trial shows where it is. No result rests on it.`}
      </Typography>
      <Box sx={{ display: "grid", gap: 1.5, gridTemplateColumns: "3fr 2fr" }}>
        <TextField
          label={unit === "mL" ? say`Titer, about` : say`${stage.result.name}, about`}
          value={text}
          autoFocus
          error={problem !== null}
          helperText={say(problem ?? "")}
          onChange={(event) => type(event.target.value)}
          slotProps={{ htmlInput: { inputMode: "decimal", autoComplete: "off", maxLength: 40 } }}
        />
        <TextField
          select
          label={say`in`}
          value={unit}
          onChange={(event) => setUnit(event.target.value === "mL" ? "mL" : "unit")}
          slotProps={{ select: { native: true } }}
        >
          <option value="unit">{say(unitText(printedUnit(stage.result.unit) || stage.result.unit))}</option>
          <option value="mL">{say(msg`${unitText("mL")} of titrant`)}</option>
        </TextField>
      </Box>
      {unit === "unit" && stage.result.unit === "mol/L" && (
        <NormalityHelp {...{ text, equivalents: equivalentsOfResult(record.method, stage), onTake: type }} />
      )}
    </FormDialog>
  );
}
