import { useContext, useState } from "react";
import { knownStage, type RunRecord } from "~/core/run";
import type { Phrase } from "~/core/text";
import { knowableStages } from "~/protocol/known";
import type { KnownStage } from "~/protocol/requests";
import { useRunInHand } from "../../entry/run-context";
import { FormDialog } from "../../ui/form-dialog";
import { useSay } from "../../words/text";
import { KnownStageField } from "../known/known-stage-field";
import { statedNow, stating, type Step, useInOrder } from "./in-order";
import { ShelfContext } from "../stages/shared/shelf-context";

/** What makes a stage known, or done after all. */
function stepsFor({ method }: RunRecord, stageKey: string, known: KnownStage | null): Step<"known">[] {
  const at = "known";
  const knows: Step<"known"> = {
    at,
    change: () => ({ intent: "know-stage", stageKey, known: known && { from: known.from } }),
  };
  const stage = method.stages.find(({ key }) => key === stageKey);
  if (!known || !stage) return [knows];
  const place = { stageKey, symbol: knownStage(method, stage).result.symbol };
  const { assignmentId } = known;
  if (assignmentId === null)
    return [
      knows,
      { at, change: stating(place, "given", known.value) },
      { at, change: stating(place, "given.plus-minus", known.plusMinus) },
    ];
  const take: Step<"known">["change"] = (record) => {
    const standing = statedNow(record, place, "given");
    if (standing?.assignment === assignmentId) return null;
    return { intent: "take", ...place, assignmentId, reason: standing ? "restated" : null };
  };
  return [knows, { at, change: take }];
}

interface KnownDialogProps {
  readonly stageKey: string;
  readonly onClose: () => void;
}

/** A stage that need not be done: its result comes from a bottle, or is stated. */
export function KnownDialog({ stageKey, onClose }: KnownDialogProps) {
  const say = useSay();
  const { record } = useRunInHand();
  const inOrder = useInOrder();
  const shelf = useContext(ShelfContext);
  const [stage] = useState(() =>
    knowableStages(record.method, shelf.bottles, record).find(({ key }) => key === stageKey),
  );
  const [known, setKnown] = useState<KnownStage | null>(() => {
    const [best] = stage?.bottles ?? [];
    const none = { stageKey, value: "", plusMinus: "", from: "" };
    return stage?.usual ?? { ...none, assignmentId: best?.current?.id ?? null };
  });
  const [problem, setProblem] = useState<Phrase | null>(null);
  if (!stage) return null;
  const submit = async () => {
    const wrong = await inOrder(stepsFor(record, stageKey, known));
    if (wrong) return setProblem(wrong.message);
    onClose();
  };
  return (
    <FormDialog
      title={say`${stage.title}: known already`}
      submit={say`Use in this run`}
      onSubmit={() => void submit()}
      onClose={onClose}
    >
      <KnownStageField
        stage={stage}
        known={known}
        problem={problem}
        onChange={(next) => {
          setProblem(null);
          setKnown(next);
        }}
      />
    </FormDialog>
  );
}
