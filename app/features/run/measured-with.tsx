import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import {
  balanceDecimals,
  type Input,
  isWay,
  onBalance,
  unwiseBalance,
  type WayToMeasure,
} from "~/core/inputs";
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

/** Decimals of the balance that something is weighed on; null for that of the house, and for what is not weighed. */
const decimalsOf = (input: Input | undefined): number | null =>
  input?.is === "mass" ? (input.decimals ?? null) : null;

const isSame = (a: Input, b: Input): boolean => JSON.stringify(sorted(a)) === JSON.stringify(sorted(b));
const sorted = (input: Input) => Object.entries(input).sort(([a], [b]) => a.localeCompare(b));

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
  const [balances, setBalances] = useState<Readonly<Record<string, number | null>>>(() =>
    Object.fromEntries(measured.map(({ own: { symbol } }) => [symbol, decimalsOf(now(symbol))])),
  );
  const [problem, setProblem] = useState<{ readonly symbol: string; readonly message: Phrase } | null>(null);
  const wayOfSymbol = ({ own, ways }: (typeof measured)[number]) =>
    ways.find(({ key }) => key === chosen[own.symbol]);

  /** What is read of an amount as it is chosen now. */
  const inputOf = (one: (typeof measured)[number]): Input =>
    onBalance(wayOfSymbol(one)?.input ?? one.own, balances[one.own.symbol] ?? null);
  const submit = async () => {
    for (const one of measured) {
      const { symbol } = one.own;
      const input = inputOf(one);
      if (isSame(input, now(symbol) ?? one.own)) continue;
      const answer = await send({
        ...{ intent: "choose-input", stageKey: stage.key, symbol },
        input: isSame(input, one.own) ? null : input,
      });
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
            kept={keptUnder(record, stage.key, one.own, inputOf(one))}
            decimals={balances[symbol] ?? null}
            unwise={wayOfSymbol(one)?.unwise ?? unwiseBalance(inputOf(one), record.houseRules)}
            onBalance={(decimals) => {
              setProblem(null);
              setBalances({ ...balances, [symbol]: decimals });
            }}
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
  /** What speaks against it; null where nothing does. */
  readonly unwise: Phrase | null;
  /** Decimals of the balance that it is weighed on; null for that of the house. */
  readonly decimals: number | null;
  readonly onChoose: (key: string) => void;
  readonly onBalance: (decimals: number | null) => void;
}

/** One amount: what it is measured with, and what speaks against that. */
function WayField(props: WayFieldProps) {
  const say = useSay();
  const { own, ways, chosen, problem, kept, unwise, decimals, onChoose, onBalance: weighOn } = props;
  const field = (
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
  if (own.is !== "mass") return field;
  return (
    <>
      {field}
      <TextField
        select
        label={say`${own.label}: balance`}
        value={decimals === null ? "house" : String(decimals)}
        onChange={(event) => weighOn(event.target.value === "house" ? null : Number(event.target.value))}
        slotProps={{ select: { native: true } }}
      >
        <option value="house">{say`as the house rules say`}</option>
        {balanceDecimals.map((count) => (
          <option key={count} value={count}>
            {say(count === 1 ? msg`1 decimal` : msg`${count} decimals`)}
          </option>
        ))}
      </TextField>
    </>
  );
}
