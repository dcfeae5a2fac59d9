import { combineReplicates, type CombinedResult, sharesOfVariance } from "../judgement";
import { pipetteVolume } from "../measure";
import { type Leaf, type Quantity, toDecimals } from "../quantity";
import { giveVerdict, judgeAgreement, referenceAmount } from "./agreement";
import { type CompiledMethod, compiledMethod, type CompiledStage } from "./compile";
import { evaluateTrial, stageFieldStates, stageInputs, volumeConditions } from "./evaluate-trial";
import type {
  Bead,
  RunEvaluation,
  StageEvaluation,
  TitrationEvaluation,
  TrialEvaluation,
} from "./evaluation";
import { guide, proposalsFor } from "./guidance";
import type { Method } from "./method";
import { nextTrialNumber, type RunRecord, type StageRecord } from "./record";
import type { HouseRules } from "./rules";
import { showQuantity } from "./show";
import { capitalized, trialWords, uncapitalized } from "./words";

/**
 * Shares of an earlier stage's causes are shown together, as that stage's result. An atomic weight belongs to no stage:
 * it counts to the earlier stage that brought it in, unless this stage uses a molar mass of its own.
 */
function shareGroups(method: Method, compiled: CompiledStage, earlier: ReadonlyMap<string, Quantity>) {
  const stageKey = compiled.definition.key;
  const ownMolarMass = compiled.lines.some(({ source }) => /\bM\(/.test(source));
  const broughtBy = (leafId: string) =>
    ownMolarMass ? undefined : [...earlier].find(([, q]) => q.sensitivities.has(leafId))?.[0];
  return ({ id, group, stage }: Leaf) => {
    const from = stage ?? broughtBy(id);
    const origin = method.stages.find((s) => s.key === from);
    if (!origin || origin.key === stageKey || origin.kind !== "titration") return { id: group, label: group };
    return { id: `stage:${origin.key}`, label: origin.result.name };
  };
}

interface StageContext {
  readonly method: CompiledMethod;
  readonly rules: HouseRules;
  readonly earlier: ReadonlyMap<string, Quantity>;
  readonly nextStageTitle: string | null;
}

/** What the trial in hand knows before it is complete: its readings, and the aliquot it will probably take. */
function knownSoFar(
  stage: CompiledStage,
  shared: ReadonlyMap<string, Quantity>,
  current: TrialEvaluation | null,
  proposals: ReadonlyMap<string, string>,
  rules: HouseRules,
): Map<string, Quantity> {
  const known = new Map(current?.symbols ?? shared);
  for (const input of stage.definition.inputs) {
    const { symbol } = input;
    const proposal = proposals.get(`${symbol}:volume.taken`);
    if (input.is !== "pipette" || known.has(symbol) || proposal === undefined) continue;
    known.set(
      symbol,
      pipetteVolume(
        Number(proposal),
        { stage: stage.definition.key, trial: "next" },
        volumeConditions(rules),
      ),
    );
  }
  for (const computed of [stage.titer, ...stage.lines.map(({ symbol }) => symbol)]) known.delete(computed);
  return known;
}

function evaluateTitration(
  stage: CompiledStage,
  record: StageRecord,
  context: StageContext,
): TitrationEvaluation {
  const { method, rules, earlier, nextStageTitle } = context;
  const { definition } = stage;
  const shared = stageInputs(stage, record, earlier, rules);
  const unscaled = record.trials.map((trial) => evaluateTrial(trial, stage, shared, method, rules));
  const reference = referenceAmount(stage, unscaled);
  const trials = unscaled.map((t) => ({
    ...t,
    compared: t.compared === null ? null : t.compared * reference.amount,
  }));
  const agreement = judgeAgreement(trials, reference, rules);
  const verdict = giveVerdict(trials, agreement, stage, reference, rules, nextStageTitle);

  const set = trials.filter((t) => agreement.members.includes(t.id)).flatMap(({ result }) => result ?? []);
  const combined: CombinedResult | null =
    set.length > 0
      ? combineReplicates(set, definition.key, Number(rules.priorRepeatabilityPercent || 0) / 100)
      : null;

  const current = trials.findLast((t) => t.missing !== null && !t.record.struck) ?? null;
  const others = trials.filter((t) => t !== current);
  const proposals = proposalsFor(definition, others);
  const initial = current?.fields.find((f) => f.field.kind === "burette.initial")?.present?.value ?? null;
  const carried = proposals.get(`${stage.titer}:burette.initial`) ?? null;
  const initialText = initial ?? (current === null ? carried : null);
  const guidance = guide({
    method,
    stage,
    rules,
    trials: others,
    agreement,
    reference,
    known: knownSoFar(stage, shared, current, proposals, rules),
    initialMl: initialText === null ? null : Number(initialText),
    name: current?.name ?? String(nextTrialNumber(record.trials)),
  });

  return {
    kind: "titration",
    key: definition.key,
    definition,
    done: agreement.closed,
    stageFields: stageFieldStates(stage, record, rules),
    trials,
    current,
    agreement,
    combined,
    shown: combined ? showQuantity(combined.quantity, definition.result.unit, rules.plusMinus) : null,
    shares: combined ? sharesOfVariance(combined.quantity, shareGroups(method.method, stage, earlier)) : [],
    verdict,
    guidance,
    proposals,
    cautions: trials.flatMap((t) => (t.record.struck ? [] : t.cautions)),
  };
}

function fact(stage: StageEvaluation): string {
  if (stage.kind === "conclude") return "";
  if (stage.done) return stage.shown?.text ?? "";
  const complete = stage.trials.filter((t) => t.eligible).length;
  if (complete === 0) return stage.trials.length === 0 ? "no trial yet" : "no trial counts yet";
  const { members, needed } = stage.agreement;
  return members.length > 1 ? `${members.length} of ${needed} agree` : `${complete} of ${needed}`;
}

/** What to do next at a stage, in one sentence. */
function nextAction(stage: StageEvaluation, record: RunRecord): string {
  if (stage.kind === "conclude")
    return record.status === "open" ? "Read the result over and finish the run" : "";
  const { current, guidance, trials, verdict, definition } = stage;
  if (current?.missing) {
    const { label, kind } = current.missing;
    const near =
      kind === "burette.final" && guidance?.endNear ? ` (near ${toDecimals(guidance.endNear, 1)})` : "";
    return `${capitalized(uncapitalized(label))} of ${trialWords(current.name)}${near}`;
  }
  if (trials.length === 0) {
    const first = definition.inputs.find((input) => input.per === "trial");
    if (first?.is === "mass") return "Weigh the first flask";
    return first?.is === "pipette" ? "Take the first aliquot" : "Begin the first trial";
  }
  return verdict.next;
}

/**
 * Everything that the screens and the report show of one run. Pure: the same record gives the same evaluation, in the
 * browser at each key press and on the server for what was saved. The record's method must hold together
 * (`compileMethod`); readings must have passed `checkField`.
 */
export function evaluateRun(record: RunRecord): RunEvaluation {
  const method = compiledMethod(record.method);
  const earlier = new Map<string, Quantity>();
  const stages: StageEvaluation[] = [];
  record.method.stages.forEach((definition, i) => {
    if (definition.kind === "conclude") {
      stages.push({ kind: "conclude", key: definition.key, definition, done: record.status !== "open" });
      return;
    }
    const stage = method.stages.get(definition.key);
    const stageRecord = record.stages.find((s) => s.key === definition.key) ?? {
      id: definition.key,
      key: definition.key,
      observations: [],
      trials: [],
    };
    if (!stage) return;
    const evaluated = evaluateTitration(stage, stageRecord, {
      method,
      rules: record.houseRules,
      earlier,
      nextStageTitle: record.method.stages[i + 1]?.title ?? null,
    });
    if (evaluated.combined) earlier.set(definition.key, evaluated.combined.quantity);
    stages.push(evaluated);
  });

  const at = stages.find((s) => !s.done) ?? stages.at(-1);
  const currentStage = at?.key ?? "";
  const chain: Bead[] = stages.map((stage) => ({
    key: stage.key,
    title: stage.definition.title,
    state: stage.done ? "done" : stage.key === currentStage ? "current" : "ahead",
    fact: stage.done || stage.key === currentStage ? fact(stage) : "",
  }));
  const last = stages.findLast((s): s is TitrationEvaluation => s.kind === "titration");
  return {
    stages,
    chain,
    currentStage,
    next: at ? nextAction(at, record) : "",
    state: stateWords(record, stages, at),
    result: last?.shown ?? null,
  };
}

function stateWords(
  record: RunRecord,
  stages: readonly StageEvaluation[],
  at: StageEvaluation | undefined,
): string {
  if (record.status !== "open") return record.status;
  const started = stages.some((s) => s.kind === "titration" && s.trials.length > 0);
  if (!started) return "just begun";
  if (at?.kind === "conclude") return "ready to conclude";
  return `stage ${at ? stages.indexOf(at) + 1 : stages.length} of ${stages.length}`;
}
