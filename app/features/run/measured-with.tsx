import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { type Input, isWay, type WayToMeasure } from "~/core/inputs";
import type { ComputedEvaluation } from "~/core/stages";
import { readingsUnder } from "~/core/change";
import type { RunRecord } from "~/core/run";
import { joined, msg, type Phrase } from "~/core/text";
import { useRunInHand } from "../../entry/run-context";
import { isTaken } from "../../live/post";
import { colors } from "../../theme/theme";
import { FormDialog } from "../../ui/form-dialog";
import { useSay } from "../../words/text";
import { measuredIn } from "./measured-in";

/** What is told of readings that were taken the other way; null where none were. */
function keptUnder(record: RunRecord, stageKey: string, own: Input, chosen: Input): Phrase | null {
  const others = (record.choices ?? []).filter(
    (c) => c.stageKey !== stageKey || !("input" in c) || c.input.symbol !== own.symbol,
  );
  const after = { ...record, choices: [...others, { stageKey, input: chosen }] };
  const { kept } = readingsUnder(after, stageKey, own.symbol);
  return kept === 0
    ? null
    : msg`Readings taken the other way are kept (${kept}); they count again when it is measured so.`;
}

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
        const { symbol } = one.own;
        return (
          <WayField
            key={symbol}
            {...one}
            chosen={chosen[symbol] ?? ""}
            problem={problem?.symbol === symbol ? problem.message : null}
            kept={keptUnder(record, stage.key, one.own, wayOfSymbol(one)?.input ?? one.own)}
            onChoose={(key) => {
              setProblem(null);
              setChosen({ ...chosen, [symbol]: key });
            }}
          />
        );
      })}
    </FormDialog>
  );
}

interface WayFieldProps {
  readonly own: Input;
  readonly ways: readonly WayToMeasure[];
  readonly chosen: string;
  readonly problem: Phrase | null;
  /** What is told of readings that were taken another way. */
  readonly kept: Phrase | null;
  readonly onChoose: (key: string) => void;
}

/** One amount: what it is measured with, and what speaks against that. */
function WayField({ own, ways, chosen, problem, kept, onChoose }: WayFieldProps) {
  const say = useSay();
  const unwise = ways.find(({ key }) => key === chosen)?.unwise ?? null;
  return (
    <TextField
      select
      label={own.label}
      value={chosen}
      error={problem !== null}
      helperText={say(
        problem ??
          joined(
            [unwise, kept].filter((words) => words !== null),
            " ",
          ),
      )}
      onChange={(event) => onChoose(event.target.value)}
      slotProps={{ formHelperText: { sx: problem === null ? { color: colors.amberDeep } : {} } }}
    >
      {ways.map((way) => (
        <MenuItem key={way.key} value={way.key}>
          {say(isWay(way, own) ? msg`${way.name}, as the method says` : way.name)}
        </MenuItem>
      ))}
    </TextField>
  );
}
