import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { type Input, isWay } from "~/core/inputs";
import type { ComputedEvaluation } from "~/core/stages";
import { msg, type Phrase } from "~/core/text";
import { useRunInHand } from "../../entry/run-context";
import { isTaken } from "../../live/post";
import { colors } from "../../theme/theme";
import { FormDialog } from "../../ui/form-dialog";
import { useSay } from "../../words/text";
import { measuredIn } from "./measured-in";

interface MeasuredWithProps {
  readonly stage: ComputedEvaluation;
  readonly onClose: () => void;
}

/** The glass and the weighings of a stage, as they are at this bench: chosen before they are read. */
export function MeasuredWithDialog({ stage, onClose }: MeasuredWithProps) {
  const say = useSay();
  const { record, send } = useRunInHand();
  const measured = measuredIn(record, stage.key);
  const now = (symbol: string) => stage.definition.inputs.find((input) => input.symbol === symbol);
  const wayNow = ({ own, ways }: (typeof measured)[number]) =>
    ways.find((way) => isWay(way, now(own.symbol) ?? own))?.key ?? "";
  const [chosen, setChosen] = useState<Readonly<Record<string, string>>>(() =>
    Object.fromEntries(measured.map((one) => [one.own.symbol, wayNow(one)])),
  );
  const [problem, setProblem] = useState<{ readonly symbol: string; readonly message: Phrase } | null>(null);
  const wayOfSymbol = ({ own, ways }: (typeof measured)[number]) =>
    ways.find(({ key }) => key === chosen[own.symbol]);

  const submit = async () => {
    for (const one of measured) {
      const { symbol } = one.own;
      const way = wayOfSymbol(one);
      if (!way || way.key === wayNow(one)) continue;
      const input: Input | null = isWay(way, one.own) ? null : way.input;
      const answer = await send({ intent: "choose-input", stageKey: stage.key, symbol, input });
      if (!isTaken(answer)) return setProblem({ symbol, message: answer.message });
    }
    onClose();
  };
  return (
    <FormDialog
      title={say`${stage.definition.title}: measured with`}
      submit={say`Use in this run`}
      onSubmit={() => void submit()}
      onClose={onClose}
    >
      <Typography color="textSecondary">{say`The fields, their checks and the ± follow.`}</Typography>
      {measured.map((one) => {
        const { own, ways } = one;
        const wrong = problem?.symbol === own.symbol ? problem.message : null;
        const unwise = wayOfSymbol(one)?.unwise ?? null;
        return (
          <TextField
            key={own.symbol}
            select
            label={own.label}
            value={chosen[own.symbol] ?? ""}
            error={wrong !== null}
            helperText={say(wrong ?? unwise ?? "")}
            onChange={(event) => {
              setProblem(null);
              setChosen({ ...chosen, [own.symbol]: event.target.value });
            }}
            slotProps={{ formHelperText: { sx: wrong === null ? { color: colors.amberDeep } : {} } }}
          >
            {ways.map((way) => (
              <MenuItem key={way.key} value={way.key}>
                {say(isWay(way, own) ? msg`${way.name}, as the method says` : way.name)}
              </MenuItem>
            ))}
          </TextField>
        );
      })}
    </FormDialog>
  );
}
