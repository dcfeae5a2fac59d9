import { useContext, useState } from "react";
import { type Observation, type ObservationKind, presentObservation } from "~/core/record";
import { knownStage, type RunRecord } from "~/core/run";
import type { RunChange } from "~/core/change";
import type { Phrase } from "~/core/text";
import { v7 as newId } from "uuid";
import { knowableStages } from "~/protocol/known";
import type { KnownStage } from "~/protocol/requests";
import { useRunInHand } from "../../entry/run-context";
import { isTaken } from "../../live/post";
import { FormDialog } from "../../ui/form-dialog";
import { useSay } from "../../words/text";
import { KnownStageField } from "../known/known-stage-field";
import { ShelfContext } from "../stages/shared/shelf-context";

/** What states a stage anew, beside what was stated of it before. */
function statements(record: RunRecord, known: KnownStage): RunChange[] {
  const { stageKey, assignmentId, value, plusMinus } = known;
  const stage = record.method.stages.find(({ key }) => key === stageKey);
  if (!stage) return [];
  const { symbol } = knownStage(record.method, stage).result;
  const there = record.stages.find(({ key }) => key === stageKey)?.observations ?? [];
  const before = (kind: ObservationKind): Observation | null => presentObservation(there, symbol, kind);
  const because = (standing: Observation | null) => (standing ? "stated anew" : null);
  if (assignmentId !== null) {
    if (before("given")?.assignment === assignmentId) return [];
    return [{ intent: "take", stageKey, symbol, assignmentId, reason: because(before("given")) }];
  }
  return (["given", "given.plus-minus"] as const).flatMap((kind): RunChange[] => {
    const text = (kind === "given" ? value : plusMinus).trim();
    const standing = before(kind);
    if (text === "" || standing?.text === text) return [];
    const [supersedes, reason] = [standing?.id ?? null, because(standing)];
    return [
      { intent: "observe", id: newId(), stageKey, trial: null, symbol, kind, text, supersedes, reason },
    ];
  });
}

/** A stage that need not be done: its result comes from a bottle, or is stated. */
export function KnownDialog({
  stageKey,
  onClose,
}: {
  readonly stageKey: string;
  readonly onClose: () => void;
}) {
  const say = useSay();
  const { record, send } = useRunInHand();
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
    const now = known && { from: known.from };
    const changes = [
      { intent: "know-stage", stageKey, known: now } as const,
      ...(known ? statements(record, known) : []),
    ];
    for (const change of changes) {
      const answer = await send(change);
      if (!isTaken(answer)) return setProblem(answer.message);
    }
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
