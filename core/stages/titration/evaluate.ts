import { meanFigures, type StageContext, combineResult, shareGroups, furtherResults } from "../shared/stage";
import { perOf, type TitrationStage, practiceCautions } from "../../method";
import { type CompiledTitration } from "./compile";
import { type KnownQuantities, stageInputs, stageFieldStates } from "../shared/trial";
import { evaluateTrial, titerAsRead } from "./trial";
import {
  type TrialEvaluation,
  type FurtherResult,
  type TitrationEvaluation,
  unjudged,
} from "../shared/evaluation";
import type { HouseRules } from "../../rules";
import { type Quantity, inUnit } from "../../quantity";
import { quantityOfInput } from "../../inputs";
import { combineReplicates, sharesOfVariance } from "../../judgement";
import { showQuantity } from "../shared/show";
import { type ObservationKind, type StageRecord, nextTrialNumber } from "../../record";
import { referenceAmount, comparedValues, judgeAgreement } from "./agreement";
import { evaluateRelations } from "../../relation";
import { judgeAcceptance } from "../shared/accept";
import { giveVerdict } from "./verdict";
import { proposalsFor, guide } from "./guidance";
import { improvementOf } from "./improve";
import { msg } from "../../text";

/** What the trial in hand knows before it is complete: its readings, and the volumes it will probably take. */
function knownSoFar(
  stage: CompiledTitration,
  shared: KnownQuantities,
  current: TrialEvaluation | null,
  proposals: ReadonlyMap<string, string>,
  rules: HouseRules,
): Map<string, Quantity> {
  const known = new Map(current?.symbols ?? shared.quantities);
  for (const input of stage.definition.inputs) {
    const { symbol } = input;
    const proposal = proposals.get(`${symbol}:volume.taken`);
    if (known.has(symbol) || proposal === undefined) continue;
    const read = (kind: string) => (kind === "volume.taken" ? Number(proposal) : null);
    const place = { stage: stage.definition.key, trial: "next", once: perOf(input) === "run" };
    const probable = quantityOfInput(input, read, place, rules);
    if (probable) known.set(symbol, probable);
  }
  for (const computed of [stage.titer, ...stage.lines.map(({ symbol }) => symbol)]) known.delete(computed);
  return known;
}

/**
 * What the flasks of a set know, with the mean of their titers in place of each: null where they are unlike, so that their
 * titers have no common mean.
 */
function meanOfTiters(
  { titer, lines, definition }: CompiledTitration,
  members: readonly TrialEvaluation[],
): Map<string, Quantity> | null {
  const [first] = members;
  if (!first) return null;
  const computed = new Set(lines.map(({ symbol }) => symbol));
  const read = [...first.symbols].filter(([symbol]) => symbol !== titer && !computed.has(symbol));
  const alike = members.every((t) => read.every(([symbol, q]) => t.symbols.get(symbol)?.value === q.value));
  const titers = members.flatMap((t) => t.symbols.get(titer) ?? []);
  if (!alike || titers.length < members.length) return null;
  const { quantity } = combineReplicates(titers, definition.key, 0, titer);
  return new Map([...read, [titer, quantity]]);
}

/** The concentration that a stage gives a solution, in equivalents, where the house wants it beside. */
function normality(
  { result, also = [] }: TitrationStage,
  concentration: Quantity,
  rules: HouseRules,
): FurtherResult[] {
  const { assigns, equivalents } = result;
  if (!rules.words.normality || assigns === undefined || equivalents === undefined) return [];
  // A method that gives the normality itself gives it once.
  if (also.some(({ unit }) => unit === "N")) return [];
  const definition = { symbol: "N", name: msg`Normality, ${equivalents} per mole`, unit: "N" };
  const quantity: Quantity = {
    ...concentration,
    value: concentration.value * equivalents,
    sensitivities: new Map(
      [...concentration.sensitivities].map(([id, s]) => [id, { ...s, by: s.by * equivalents }]),
    ),
  };
  return [{ definition, quantity, shown: showQuantity(quantity, definition, rules) }];
}

/** Trials with what is compared of each, and what should be known of the way they were done. */
function comparedTrials(
  stage: CompiledTitration,
  record: StageRecord,
  shared: KnownQuantities,
  { method, rules, suspended }: StageContext,
) {
  const unscaled = record.trials.map((trial) => evaluateTrial(trial, stage, shared, method, rules));
  const reference = referenceAmount(stage, unscaled);
  const compared = comparedValues(stage, unscaled, reference, rules);
  const practice = (t: TrialEvaluation) => practiceCautions(t, stage.definition, record.timers ?? [], rules);
  const trials = unscaled.map((t) => ({
    ...t,
    compared: compared.values.get(t.id) ?? null,
    cautions: suspended === undefined ? [...t.cautions, ...practice(t)] : [],
  }));
  return { trials, reference, agreement: judgeAgreement(trials, compared, rules) };
}
type Compared = ReturnType<typeof comparedTrials>;

/** What the trials that agree make together: each result, by the mean of results or of titers as the house takes it. */
function combinedOver(
  stage: CompiledTitration,
  members: readonly TrialEvaluation[],
  { method, rules }: StageContext,
) {
  const meanTiter = rules.average === "titers" ? meanOfTiters(stage, members) : null;
  const atMeanTiter = meanTiter && evaluateRelations(stage.lines, meanTiter, method.stoichiometry);
  const combine = (symbol: string) => {
    const found = combineResult(members, symbol, stage.definition.key, rules);
    const value = atMeanTiter?.get(symbol)?.value;
    return found && value !== undefined ? { ...found, quantity: { ...found.quantity, value } } : found;
  };
  const titer = meanTiter?.get(stage.titer);
  const meanTiterMl = meanTiter ? titerAsRead(titer ? inUnit(titer, "mL") : 0, stage, rules) : null;
  return { members, combine, combined: combine(stage.definition.result.symbol), meanTiterMl };
}
type Combined = ReturnType<typeof combinedOver>;

/** The result held against what it should be. */
function acceptedAs(
  definition: TitrationStage,
  { combined }: Combined,
  { trials, agreement }: Compared,
  known: KnownQuantities["quantities"],
  rules: HouseRules,
) {
  const { accept } = definition;
  // A dilution is decided on from its first titration; two that disagree decide nothing.
  const dilution = accept?.against === "value" && accept.whenOff === "dilution";
  const stands = agreement.state === "one" || agreement.state === "set";
  return judgeAcceptance(
    definition,
    combined?.quantity ?? null,
    known,
    { agreed: dilution ? stands : agreement.closed, titrations: trials.filter((t) => t.eligible).length },
    rules,
  );
}

/**
 * Where a trial starts on the burette as it stands, mL. After a refill midway `initialMl` is where it would have begun on this
 * scale, mostly below zero, and `fromMl` is the reading after the refill.
 */
function startOf({ fields }: TrialEvaluation, titer: string) {
  const read = (kind: ObservationKind) => {
    const text = fields.find(({ field }) => field.kind === kind && field.symbol === titer)?.present?.value;
    return text == null ? null : Number(text);
  };
  const initial = read("burette.initial");
  const [before, after] = [read("burette.before-refill"), read("burette.after-refill")];
  if (initial === null || before === null || after === null) return { initialMl: initial, fromMl: initial };
  return { initialMl: after - (before - initial), fromMl: after };
}

/** The trial in hand, and what is known of it before it is complete: its expected end point, what its fields will be. */
function inHand(
  stage: CompiledTitration,
  record: StageRecord,
  shared: KnownQuantities,
  { trials, reference, agreement }: Compared,
  { method, rules, hand, earlier, suspended }: StageContext,
) {
  const begun = trials.filter((t) => t.missing !== null && !t.record.struck);
  const current = (hand === undefined ? begun.at(-1) : begun.find((t) => t.id === hand)) ?? null;
  const others = trials.filter((t) => t !== current);
  const proposals = proposalsFor(stage.definition, others, rules);
  const carried = current === null ? proposals.get(`${stage.titer}:burette.initial`) : undefined;
  const carriedMl = carried === undefined ? null : Number(carried);
  const start = current ? startOf(current, stage.titer) : { initialMl: carriedMl, fromMl: carriedMl };
  if (suspended !== undefined) return { begun, current, proposals, guidance: null };
  const guidance = guide({
    ...{ method, stage, rules, trials: others, agreement, reference, earlier },
    known: knownSoFar(stage, shared, current, proposals, rules),
    ...start,
    flask: current?.words ?? msg`trial ${nextTrialNumber(record.trials)}`,
  });
  return { begun, current, proposals, guidance };
}

/** What is shown of the result: with its ±, its further results, its uncertainty budget, and what halves the largest contribution. */
function resultShown(
  stage: CompiledTitration,
  { members, combine, combined }: Combined,
  { method, rules, earlier }: StageContext,
) {
  const { definition } = stage;
  const figures = (of: string, q: Quantity) => meanFigures(members, of, q.value);
  const also = furtherResults(
    definition.also,
    (of) => {
      const further = combine(of);
      return further && [further.quantity, figures(of, further.quantity)];
    },
    rules,
  );
  if (!combined) return { shown: null, also, shares: [], improvement: null };
  const { quantity } = combined;
  const shares = sharesOfVariance(quantity, shareGroups(method.method, stage, earlier));
  return {
    shown: showQuantity(quantity, definition.result, rules, figures(definition.result.symbol, quantity)),
    also: [...also, ...normality(definition, quantity, rules)],
    shares,
    improvement: improvementOf(quantity, shares, { method: method.method, stage, rules, members }),
  };
}

/** A titration: its trials, whether they agree, what follows, and what to do next. */
export function evaluateTitration(
  stage: CompiledTitration,
  record: StageRecord,
  context: StageContext,
): TitrationEvaluation {
  const { method, rules, earlier, nextStageTitle } = context;
  const { definition } = stage;
  const shared = stageInputs(stage, record, earlier, { ...context, method: method.method });
  const compared = comparedTrials(stage, record, shared, context);
  const { trials, reference, agreement } = compared;
  const members = trials.filter((t) => agreement.members.includes(t.id) && t.result);
  const together = combinedOver(stage, members, context);
  const { combined, meanTiterMl } = together;
  const acceptance = acceptedAs(definition, together, compared, shared.quantities, rules);
  const decision = acceptance?.against === "value" ? acceptance.decision : null;
  const failing = trials.find((t) => t.problem !== null && !t.record.struck);
  return {
    kind: "titration",
    ...unjudged,
    key: definition.key,
    definition,
    titer: stage.titer,
    done: decision ? decision === "accept" : agreement.closed,
    stageFields: stageFieldStates(definition, record, rules),
    trials,
    ...inHand(stage, record, shared, compared, context),
    agreement,
    combined,
    problem: combined ? null : (failing?.problem ?? null),
    ...resultShown(stage, together, context),
    meanTiterMl,
    acceptance,
    verdict: giveVerdict({ trials, agreement, stage, reference, rules, acceptance, nextStageTitle }),
    cautions: trials.flatMap((t) => (t.record.struck ? [] : t.cautions)),
  };
}
