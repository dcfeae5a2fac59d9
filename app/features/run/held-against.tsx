import { useState } from "react";
import { useRunInHand } from "../../entry/run-context";
import { FormDialog } from "../../ui/form-dialog";
import { useSay } from "../../words/text";
import { HeldFields } from "./held-fields";
import { formOf, type HeldForm, stepsFor, wrongIn, yieldedBy } from "./held-form";
import { type StepProblem, useInOrder } from "./in-order";

interface HeldAgainstProps {
  readonly stageKey: string;
  readonly onClose: () => void;
}

/** A known or target value, or a limit, that the result of a stage is held against in this run. */
export function HeldAgainstDialog({ stageKey, onClose }: HeldAgainstProps) {
  const say = useSay();
  const { record } = useRunInHand();
  const inOrder = useInOrder();
  const [form, setForm] = useState(() => formOf(record, stageKey));
  const [problem, setProblem] = useState<StepProblem<keyof HeldForm> | null>(null);
  const stage = record.method.stages.find(({ key }) => key === stageKey);
  if (!stage) return null;
  const from = yieldedBy(record, stage);
  const submit = async () => {
    const wrong = wrongIn(form, from === null);
    if (wrong) return setProblem(wrong);
    const refused = await inOrder(stepsFor(record, stage, form, say));
    if (refused) return setProblem(refused);
    onClose();
  };
  return (
    <FormDialog
      title={say`${stage.title}: held against`}
      submit={say`Use in this run`}
      onSubmit={() => void submit()}
      onClose={onClose}
    >
      <HeldFields
        method={record.method}
        stage={stage}
        form={form}
        problem={problem}
        from={from}
        onChange={(next) => {
          setProblem(null);
          setForm(next);
        }}
      />
    </FormDialog>
  );
}
