import { meanFigures, type StageContext, combineResult, shareGroups, furtherResults } from "../shared/stage";
import { perOf, type TitrationStage, practiceCautions } from "../../method";
import { type CompiledTitration } from "./compile";
import { type Known, stageInputs, stageFieldStates } from "../shared/trial";
import { evaluateTrial, titerAsRead } from "./trial";
import {
  type TrialEvaluation,
  type FurtherResult,
  type TitrationEvaluation,
  unjudged,
} from "../shared/evaluation";
import type { HouseRules } from "../../rules";
import { type Quantity, inUnit, exact } from "../../quantity";
import { quantityOfInput } from "../../inputs";
import { combineReplicates, sharesOfVariance } from "../../judgement";
import { showQuantity } from "../shared/show";
import { type StageRecord, nextTrialNumber } from "../../record";
import { referenceAmount, comparedValues, judgeAgreement } from "./agreement";
import { evaluateRelations } from "../../relation";
import { judgeAcceptance } from "../shared/accept";
import { giveVerdict } from "./verdict";
import { proposalsFor, guide } from "./guidance";
import { improvementOf } from "./improve";

/** What the trial in hand knows before it is complete: its readings, and the volumes it will probably take. */
function knownSoFar(
  stage: CompiledTitration,
  shared: Known,
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
  const definition = { symbol: "N", name: `Normality, ${equivalents} per mole`, unit: "N" };
  const quantity: Quantity = {
    ...concentration,
    value: concentration.value * equivalents,
    sensitivities: new Map(
      [...concentration.sensitivities].map(([id, s]) => [id, { ...s, by: s.by * equivalents }]),
    ),
  };
  return [{ definition, quantity, shown: showQuantity(quantity, definition, rules) }];
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
  const unscaled = record.trials.map((trial) => evaluateTrial(trial, stage, shared, method, rules));
  const reference = referenceAmount(stage, unscaled);
  const compared = comparedValues(stage, unscaled, reference, rules);
  const trials = unscaled.map((t) => ({
    ...t,
    compared: compared.values.get(t.id) ?? null,
    cautions:
      context.suspended === undefined
        ? [...t.cautions, ...practiceCautions(t, definition, record.timers ?? [], rules)]
        : [],
  }));
  const agreement = judgeAgreement(trials, compared, rules);

  const members = trials.filter((t) => agreement.members.includes(t.id) && t.result);
  const { symbol } = definition.result;
  const meanTiter = rules.average === "titers" ? meanOfTiters(stage, members) : null;
  const atMeanTiter = meanTiter && evaluateRelations(stage.lines, meanTiter, method.stoichiometry);
  const combine = (of: string) => {
    const found = combineResult(members, of, definition.key, rules);
    const value = atMeanTiter?.get(of)?.value;
    return found && value !== undefined ? { ...found, quantity: { ...found.quantity, value } } : found;
  };
  const combined = combine(symbol);
  const acceptance = judgeAcceptance(
    definition,
    combined?.quantity ?? null,
    shared.quantities,
    {
      // A dilution is decided on from its first titration; two that disagree decide nothing.
      agreed:
        definition.accept?.against === "value" && definition.accept.whenOff === "dilution"
          ? agreement.state === "one" || agreement.state === "set"
          : agreement.closed,
      titrations: trials.filter((t) => t.eligible).length,
    },
    rules,
  );
  const verdict = giveVerdict({ trials, agreement, stage, reference, rules, acceptance, nextStageTitle });

  const begun = trials.filter((t) => t.missing !== null && !t.record.struck);
  const { hand } = context;
  const current = (hand === undefined ? begun.at(-1) : begun.find((t) => t.id === hand)) ?? null;
  const others = trials.filter((t) => t !== current);
  const proposals = proposalsFor(definition, others, rules);
  const initial =
    current?.fields.find(({ field }) => field.kind === "burette.initial" && field.symbol === stage.titer)
      ?.present?.value ?? null;
  const carried = proposals.get(`${stage.titer}:burette.initial`) ?? null;
  const initialText = initial ?? (current === null ? carried : null);
  const guidance =
    context.suspended !== undefined
      ? null
      : guide({
          method,
          stage,
          rules,
          trials: others,
          agreement,
          reference,
          known: knownSoFar(stage, shared, current, proposals, rules),
          initialMl: initialText === null ? null : Number(initialText),
          flask: current?.words ?? `trial ${nextTrialNumber(record.trials)}`,
        });
  const shares = combined
    ? sharesOfVariance(combined.quantity, shareGroups(method.method, stage, earlier))
    : [];
  const figures = (of: string, q: Quantity) => meanFigures(members, of, q.value);
  return {
    kind: "titration",
    ...unjudged,
    key: definition.key,
    definition,
    titer: stage.titer,
    done:
      acceptance?.against === "value" && acceptance.decision
        ? acceptance.decision === "accept"
        : agreement.closed,
    stageFields: stageFieldStates(definition, record, rules),
    trials,
    current,
    agreement,
    combined,
    problem: combined ? null : (trials.find((t) => t.problem !== null && !t.record.struck)?.problem ?? null),
    shown: combined
      ? showQuantity(combined.quantity, definition.result, rules, figures(symbol, combined.quantity))
      : null,
    also: [
      ...furtherResults(
        definition.also,
        (of) => {
          const further = combine(of);
          return further && [further.quantity, figures(of, further.quantity)];
        },
        rules,
      ),
      ...(combined ? normality(definition, combined.quantity, rules) : []),
    ],
    meanTiterMl: meanTiter
      ? titerAsRead(inUnit(meanTiter.get(stage.titer) ?? exact(0, "mL"), "mL"), stage, rules)
      : null,
    begun,
    shares,
    improvement: combined
      ? improvementOf(combined.quantity, shares, { method: method.method, stage, rules, members })
      : null,
    acceptance,
    verdict,
    guidance,
    proposals,
    cautions: trials.flatMap((t) => (t.record.struck ? [] : t.cautions)),
  };
}
