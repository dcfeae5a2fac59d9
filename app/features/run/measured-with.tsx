import Typography from "@mui/material/Typography";
import { useState } from "react";
import { unwise } from "~/core/inputs";
import type { ComputedEvaluation } from "~/core/stages";
import { joined } from "~/core/text";
import { useRunInHand } from "../../entry/run-context";
import { FormDialog } from "../../ui/form-dialog";
import { useSay } from "../../words/text";
import { moistureSymbol } from "~/core/run";
import { useDryChosen } from "./dry-chosen";
import { DryField } from "./dry-field";
import { DilutionField } from "./dilution-field";
import { useInOrder } from "./in-order";
import { WayField } from "./way-field";
import { useWaysChosen, type WayProblem } from "./ways-chosen";

interface MeasuredWithProps {
  readonly stage: ComputedEvaluation;
  readonly onClose: () => void;
}

/** The glass and the weighings of a stage, as they are at this bench: chosen before they are read. */
export function MeasuredWithDialog({ stage, onClose }: MeasuredWithProps) {
  const say = useSay();
  const { record } = useRunInHand();
  const inOrder = useInOrder();
  const { amounts, dilution, undiluted, setUndiluted, steps } = useWaysChosen(record, stage.key);
  const dry = useDryChosen(record, stage.key);
  const [problem, setProblem] = useState<WayProblem | null>(null);
  /** What was wrong may be mended by what is typed. */
  const anew =
    <A extends unknown[]>(act: (...args: A) => void) =>
    (...args: A) => {
      setProblem(null);
      act(...args);
    };
  const submit = async () => {
    const planned = steps();
    const off = "message" in planned ? planned : await inOrder([...planned, ...dry.steps()]);
    if (!off) return onClose();
    setProblem("at" in off ? { symbol: off.at, message: off.message } : off);
  };
  return (
    <FormDialog
      title={say`${stage.definition.title}: measured with`}
      submit={say`Use in this run`}
      wide
      onSubmit={() => void submit()}
      onClose={onClose}
    >
      <Typography color="textSecondary">{say`The fields, their checks and the ± follow.`}</Typography>
      {dilution && (
        <DilutionField
          undiluted={undiluted}
          problem={problem?.symbol === dilution.taken.symbol && undiluted ? problem.message : null}
          onChange={anew(setUndiluted)}
        />
      )}
      {amounts.map((one) => (
        <WayField
          key={one.own.symbol}
          own={one.own}
          ways={one.ways}
          chosen={one.chosen.way}
          details={one.details}
          texts={one.chosen.texts}
          problem={problem?.symbol === one.own.symbol ? problem : null}
          note={joined(
            [unwise(one.input, record.houseRules), one.kept].filter((words) => words !== null),
            " ",
          )}
          onChoose={anew(one.choose)}
          onType={anew(one.type)}
        />
      ))}
      {dry.form && (
        <DryField
          form={dry.form}
          problem={problem?.symbol === moistureSymbol ? problem.message : null}
          onChange={anew(dry.setForm)}
        />
      )}
    </FormDialog>
  );
}
