import { methodOf, dilutionOf } from "../run";
import type { RunChange } from "../change";
import { type ComputedStage, perOf, stageFields, trialFields } from "../method";
import type { Field, Input } from "../inputs";
import type { RandomStream } from "../montecarlo";
import { presentObservation, type StageRecord, type TrialRecord } from "../record";
import type { RunRecord } from "../run";

/** What somebody at the bench might do next, for tests of what changes do. */
export interface RandomSource {
  readonly random: RandomStream;
  /** A new id for a reading, a trial or a timer. */
  readonly newId: () => string;
}

const pick = <T>({ random }: RandomSource, from: readonly T[]): T | undefined =>
  from[Math.floor(random.uniform() * from.length)];

/** A text that often passes the check of its field. */
function textFor(field: Field, { random }: RandomSource): string {
  const { decimals, least = 0, most = 50 } = field.rules;
  const value =
    field.kind === "burette.initial"
      ? 2 * random.uniform()
      : field.kind === "burette.final"
        ? 20 + random.uniform()
        : field.kind.startsWith("mass")
          ? (field.kind === "mass.before" ? 2.6 : 2.1) + 0.01 * random.uniform()
          : least + random.uniform() * (Math.min(most, 30) - least);
  return value.toFixed(decimals ?? 2);
}

type Readable = { readonly definition: ComputedStage; readonly stage: StageRecord };

/** The trial that is read next: one that is there, or another one. */
const trialNext = (there: TrialRecord | undefined, { random, newId }: RandomSource) => ({
  id: there?.id ?? newId(),
  kind: there?.kind ?? (random.uniform() < 0.2 ? ("rough" as const) : ("fine" as const)),
});

/** One of many readings that is struck out, or brought back. */
function ofMany({ stage }: Readable, source: RandomSource): RunChange | null {
  const all = stage.trials.flatMap((t) => t.observations);
  const superseded = new Set(all.map((o) => o.supersedes));
  const last = pick(
    source,
    all.filter((o) => (o.kind === "point" || o.kind === "absorbance") && !superseded.has(o.id)),
  );
  if (!last) return null;
  return last.value === null
    ? { intent: "restore-reading", observationId: last.id }
    : { intent: "strike-reading", observationId: last.id, reason: "read too early" };
}

/** A reading of a stage or of a trial, or the correction of one. */
function reading(record: RunRecord, { definition, stage }: Readable, source: RandomSource): RunChange | null {
  const { random, newId } = source;
  const trials = stage.trials;
  const ofTrial = trialFields(definition, record.houseRules).filter((f) => !f.hidden);
  const begin = trials.length === 0 || random.uniform() < 0.25;
  const there = begin ? undefined : pick(source, trials);
  const once = ofTrial.length === 0 || random.uniform() < 0.15;
  const fields = once ? stageFields(definition, record.houseRules).filter((f) => !f.hidden) : ofTrial;
  const main = fields.filter((f) => !f.outOfTurn);
  const field = pick(source, random.uniform() < 0.85 && main.length > 0 ? main : fields);
  if (!field) return null;
  const holder = once ? stage.observations : (there?.observations ?? []);
  const present = field.many ? null : presentObservation(holder, field.symbol, field.kind);
  const corrects = present !== null && random.uniform() < 0.9;
  return {
    intent: "observe",
    id: newId(),
    stageKey: stage.key,
    trial: once ? null : trialNext(there, source),
    ...{ symbol: field.symbol, kind: field.kind, text: textFor(field, source) },
    supersedes: corrects ? present.id : null,
    reason: corrects ? "misread" : null,
    ...(field.kind === "point" ? { point: { burette: (40 * random.uniform()).toFixed(2) } } : {}),
  };
}

/** A change of a trial that is there, or one that fits no trial any more. */
function ofTrial({ stage }: Readable, source: RandomSource): RunChange | null {
  const trial = pick(source, stage.trials);
  if (!trial) return null;
  const { id: trialId } = trial;
  const all: readonly RunChange[] = [
    trial.struck ? { intent: "restore", trialId } : { intent: "strike", trialId, reason: "overshot" },
    { intent: "mark", trialId, kind: trial.kind === "rough" ? "fine" : "rough" },
    { intent: "label", trialId, label: trial.label === null ? "second bench" : "" },
  ];
  return pick(source, all) ?? null;
}

function ofTimer({ stage }: Readable, { random, newId }: RandomSource): RunChange {
  const running = stage.timers?.find((t) => t.endedAt === null);
  if (running) return { intent: "end-timer", timerId: running.id, outcome: "done" };
  return {
    intent: "start-timer",
    id: newId(),
    stageKey: stage.key,
    trialId: stage.trials.at(-1)?.id ?? null,
    ...{ what: "let it stand", flask: "", counts: "for", strict: false, inSeconds: null },
    seconds: 30 + Math.round(600 * random.uniform()),
  };
}

function ofTrace({ definition, stage }: Readable, source: RandomSource): RunChange {
  const there = stage.traces?.find((t) => t.removed === null);
  if (there) return { intent: "put-away", traceId: there.id, reason: "wrong cuvette" };
  const course = definition.kind === "rate";
  return {
    intent: "trace",
    id: source.newId(),
    stageKey: stage.key,
    trialId: course ? source.newId() : null,
    readings: [],
    name: "first",
    xUnit: course ? "s" : "nm",
    x: [400, 500, 600],
    absorbance: [0.1, 0.4, 0.2],
    source: "instrument",
    person: "",
  };
}

/** An amount that is measured out in another way, or again as the method has it. */
function ofInput({ definition, stage }: Readable, source: RandomSource): RunChange | null {
  const input = pick(source, definition.inputs);
  if (!input) return null;
  const { symbol, label } = input;
  const other: Input = {
    ...{ is: "pipette", symbol, label, per: perOf(input) },
    ...{ of: "sample", presumed: "20" },
  };
  const own = source.random.uniform() < 0.4;
  return { intent: "choose-input", stageKey: stage.key, symbol, input: own ? null : other };
}

/** A stage that is known, or is done after all; one that is not diluted, or left out. Most stages cannot be either. */
function ofKnown({ method, choices = [] }: RunRecord, source: RandomSource): RunChange | null {
  const stage = pick(source, method.stages);
  if (!stage) return null;
  if (dilutionOf(stage)) {
    const undiluted = choices.some((choice) => choice.stageKey === stage.key && "adapted" in choice);
    return { intent: "adapt", stageKey: stage.key, adapted: "undiluted", on: !undiluted };
  }
  if (source.random.uniform() < 0.3) {
    const left = choices.some((c) => c.stageKey === stage.key && "adapted" in c && c.adapted === "left-out");
    return { intent: "adapt", stageKey: stage.key, adapted: "left-out", on: !left };
  }
  const known = choices.some((choice) => choice.stageKey === stage.key && "known" in choice);
  return { intent: "know-stage", stageKey: stage.key, known: known ? null : { from: "a certificate" } };
}

/** Something that is done to a run as it stands; some of it cannot be done, as when two people work at once. */
export function randomChange(record: RunRecord, source: RandomSource): RunChange {
  const rename: RunChange = {
    intent: "rename",
    title: pick(source, ["Rinse acid", "Descaler", "Tank water"]) ?? "",
    sample: "R-1",
    bench: "bench 2",
  };
  const readable = record.stages.flatMap((stage): Readable[] => {
    const definition = methodOf(record).stages.find((s) => s.key === stage.key);
    return definition && "inputs" in definition ? [{ definition, stage }] : [];
  });
  const at = pick(source, readable);
  if (!at) return rename;
  const roll = source.random.uniform();
  const chosen =
    roll < 0.6
      ? reading(record, at, source)
      : roll < 0.68
        ? ofMany(at, source)
        : roll < 0.78
          ? ofTrial(at, source)
          : roll < 0.86
            ? ofTimer(at, source)
            : roll < 0.92
              ? ofTrace(at, source)
              : roll < 0.95
                ? ofInput(at, source)
                : roll < 0.98
                  ? ({ intent: "choose", stageKey: at.stage.key, name: "model", value: "quadratic" } as const)
                  : ofKnown(record, source);
  return chosen ?? rename;
}
