import { withPoint, msg } from "../text";
import { endOfCorrections, isTakenBack, type Observation, takenBack } from "../record";
import { type Result, success } from "../result";
import type { RunRecord } from "../run";
import { type ChangeContext, type ChangeProblem, malformed } from "./change";
import type { Inverse } from "./inverse";
import { holderOf, inHolder, inStage, inTrial } from "./place";

type Of<D extends Inverse["do"]> = Extract<Inverse, { do: D }>;

function supersede(record: RunRecord, inverse: Of<"supersede">, context: ChangeContext) {
  const holder = holderOf(record, inverse.observationId);
  // The field may have been corrected and restored since: what stands last is what is taken back.
  const last = holder && endOfCorrections(holder.observations, inverse.observationId);
  if (!holder || !last) return malformed(msg`The change to undo is no longer there`);
  const { symbol, kind, unit, source } = last;
  // A point that is taken back keeps its place: brought back, it is where it was.
  const point = inverse.point ?? last.point;
  const back: Observation = {
    ...{ symbol, kind, unit, source },
    id: context.newId(last.id),
    text: inverse.by ?? "",
    value: inverse.by === null ? null : withPoint(inverse.by),
    person: context.person,
    at: context.now,
    supersedes: last.id,
    reason: inverse.reason ?? (inverse.by === null ? takenBack : "correction taken back"),
    ...(inverse.assignment == null ? {} : { assignment: inverse.assignment }),
    ...(point ? { point } : {}),
  };
  return success(inHolder(record, holder, (observations) => [...observations, back]));
}

function choose(record: RunRecord, { stageId, name, value }: Of<"choose">): RunRecord {
  const { key } = record.stages.find((s) => s.id === stageId) ?? {};
  return inStage(record, key ?? "", (stage) => ({
    ...stage,
    choices: withChoice(stage.choices, name, value),
  }));
}

/** The choices of a stage with one of them made, or taken out. */
export function withChoice(
  choices: Readonly<Record<string, string>> | undefined,
  name: string,
  value: string | null,
): Record<string, string> {
  const others = Object.fromEntries(Object.entries(choices ?? {}).filter(([key]) => key !== name));
  return value === null ? others : { ...others, [name]: value };
}

/** A trial of which everything was taken back gives up its number: the next one is called by it. */
const withNumbersGivenUp = (record: RunRecord): RunRecord => ({
  ...record,
  stages: record.stages.map((stage) =>
    stage.trials.some((t) => t.number !== null && isTakenBack(t, stage))
      ? { ...stage, trials: stage.trials.map((t) => (isTakenBack(t, stage) ? { ...t, number: null } : t)) }
      : stage,
  ),
});

/** A record with a change taken back. */
export function takeBack(
  record: RunRecord,
  inverse: Inverse,
  context: ChangeContext,
): Result<RunRecord, ChangeProblem> {
  const taken = applyInverse(record, inverse, context);
  return taken.ok ? success(withNumbersGivenUp(taken.value)) : taken;
}

/** One step of it, with the numbers of trials as they are. */
export function applyInverse(
  record: RunRecord,
  inverse: Inverse,
  context: ChangeContext,
): Result<RunRecord, ChangeProblem> {
  const everyStage = (of: (stage: RunRecord["stages"][number]) => RunRecord["stages"][number]) =>
    success({ ...record, stages: record.stages.map(of) });
  switch (inverse.do) {
    case "several":
      return inverse.of.reduce<Result<RunRecord, ChangeProblem>>(
        (so, one) => (so.ok ? applyInverse(so.value, one, context) : so),
        success(record),
      );
    case "supersede":
      return supersede(record, inverse, context);
    // A signature is not taken back; changes that could are passed over by undo.
    case "countersign":
      return success(record);
    case "trial": {
      const { trialId, do: _, ...before } = inverse;
      return success(inTrial(record, trialId, (trial) => ({ ...trial, ...before })));
    }
    case "choose":
      return success(choose(record, inverse));
    case "inputs":
      return success({ ...record, choices: inverse.choices });
    case "rules":
      return success({ ...record, houseRules: inverse.rules });
    case "timer": {
      const { timerId, do: _, ...before } = inverse;
      return everyStage((stage) =>
        stage.timers
          ? { ...stage, timers: stage.timers.map((t) => (t.id === timerId ? { ...t, ...before } : t)) }
          : stage,
      );
    }
    case "trace": {
      const { traceId, removed } = inverse;
      return everyStage((stage) =>
        stage.traces
          ? { ...stage, traces: stage.traces.map((t) => (t.id === traceId ? { ...t, removed } : t)) }
          : stage,
      );
    }
    case "run": {
      const { title, sample, bench } = inverse;
      return success({ ...record, title, sample, bench });
    }
    case "status": {
      const { status, finishedAt } = inverse;
      return success({ ...record, status, finishedAt });
    }
  }
}
