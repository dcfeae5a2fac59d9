import { combineReplicates, type CombinedResult, sharesOfVariance } from "../../judgement";
import { exact, inUnit, type Leaf, type Quantity, type Significant } from "../../quantity";
import { evaluateRelations } from "../../relation";
import { judgeAcceptance } from "./accept";
import { comparedValues, judgeAgreement, referenceAmount } from "../titration/agreement";
import {
  type CompiledMethod,
  type CompiledStage,
  type CompiledTitration,
  type FurtherResultDefinition,
  type Method,
  type TitrationStage,
  perOf,
  resultsOf,
  practiceCautions,
} from "../../method";
import {
  type Earlier,
  type EarlierResult,
  evaluatePreparation,
  evaluateTrial,
  type Known,
  stageFieldStates,
  stageInputs,
  titerAsRead,
} from "./trial";
import {
  type CalibrationEvaluation,
  type ComputedEvaluation,
  type FurtherResult,
  isOnce,
  membersOf,
  type PreparationEvaluation,
  resultQuantity,
  type TitrationEvaluation,
  type TrialEvaluation,
  unjudged,
} from "./evaluation";
import { guide, proposalsFor } from "../titration/guidance";
import { improvementOf } from "../titration/improve";
import { quantityOfInput } from "../../inputs";
import { nextTrialNumber, type StageRecord } from "../../record";
import type { HouseRules } from "../../rules";
import { showQuantity } from "./show";
import { giveVerdict } from "../titration/verdict";

/**
 * Shares of an earlier stage's causes are shown together, as that stage's result. An atomic weight belongs to no stage:
 * it counts to the earlier stage that brought it in, unless this stage uses a molar mass of its own.
 */
export function shareGroups(method: Method, compiled: CompiledStage, earlier: Earlier) {
  const stageKey = compiled.definition.key;
  const ownMolarMass = compiled.lines.some(({ source }) => /\bM\(/.test(source));
  const brings = (results: ReadonlyMap<string, EarlierResult>, leafId: string) =>
    [...results.values()].some(({ quantity }) => quantity.sensitivities.has(leafId));
  const broughtBy = (leafId: string) =>
    ownMolarMass ? undefined : [...earlier].find(([, results]) => brings(results, leafId))?.[0];
  return ({ id, group, stage }: Leaf) => {
    const from = stage ?? broughtBy(id);
    const origin = method.stages.find((s) => s.key === from);
    if (!origin || origin.key === stageKey) return { id: group, label: group };
    const used = compiled.definition.inputs.flatMap((input) =>
      input.is === "result" && input.stage === origin.key ? [input] : [],
    );
    // What that stage only handed on is shown by its own name, and not as the stage's result.
    const handedOn = used.find(({ result }) => {
      const carried = result === undefined ? undefined : earlier.get(origin.key)?.get(result)?.quantity;
      return carried?.sensitivities.has(id) && origin.inputs.some(({ symbol }) => symbol === result);
    });
    if (handedOn) return { id: `stage:${origin.key}:${handedOn.result ?? ""}`, label: handedOn.label };
    if (origin.kind === "calibration") return { id: `stage:${origin.key}`, label: "Calibration line" };
    const [only] = used;
    const named =
      used.length === 1 ? resultsOf(origin).find(({ symbol }) => symbol === only?.result) : undefined;
    return { id: `stage:${origin.key}`, label: named?.name ?? origin.result.name };
  };
}

export interface StageContext {
  readonly method: CompiledMethod;
  readonly rules: HouseRules;
  /** False once the run is finished: then what was presumed was presumed. */
  readonly open: boolean;
  /** Why nothing is computed in this stage: its evaluation failed. */
  readonly suspended?: string;
  readonly earlier: Earlier;
  readonly nextStageTitle: string | null;
  /** Id of the trial in hand; the last one that is not complete where nothing is said. */
  readonly hand?: string;
  /** Calibrations of earlier stages, by key. */
  readonly lines: ReadonlyMap<string, CalibrationEvaluation>;
}

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

/** The poorest place of the members' figures: that of their mean. */
function meanFigures(
  members: readonly TrialEvaluation[],
  symbol: string,
  value: number,
): Significant | undefined {
  const places = members.flatMap(({ significance }) => significance.get(symbol)?.place ?? []);
  return places.length > 0 ? { value, place: Math.max(...places) } : undefined;
}

/** One result of a stage over the trials that agree: the main one, or one beside it. */
export function combineResult(
  members: readonly TrialEvaluation[],
  symbol: string,
  stageKey: string,
  rules: HouseRules,
): CombinedResult | null {
  const values = members.flatMap(({ symbols }) => symbols.get(symbol) ?? []);
  if (values.length === 0 || values.length < members.length) return null;
  return combineReplicates(values, stageKey, Number(rules.priorRepeatabilityPercent || 0) / 100, symbol);
}

export function furtherResults(
  also: readonly FurtherResultDefinition[] | undefined,
  quantityOf: (symbol: string) => readonly [Quantity, Significant | undefined] | null,
  rules: HouseRules,
): FurtherResult[] {
  return (also ?? []).flatMap((definition) => {
    const found = quantityOf(definition.symbol);
    if (!found) return [];
    const [quantity, figures] = found;
    return [{ definition, quantity, shown: showQuantity(quantity, definition, rules, figures) }];
  });
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
          name: current?.name ?? String(nextTrialNumber(record.trials)),
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

/** Something made once: what follows from what was read. */
export function evaluateMade(
  stage: CompiledStage,
  record: StageRecord,
  context: StageContext,
): PreparationEvaluation {
  const { method, rules, earlier } = context;
  const { definition } = stage;
  if (definition.kind !== "preparation") throw new Error("Only a preparation is made once");
  const made = evaluatePreparation(stage, record, earlier, method, context);
  const { quantity, symbols, significance } = made;
  const figures = (symbol: string) => significance.get(symbol);
  return {
    ...made,
    kind: "preparation",
    ...unjudged,
    key: definition.key,
    definition,
    shown: quantity
      ? showQuantity(quantity, definition.result, rules, figures(definition.result.symbol))
      : null,
    also: furtherResults(
      definition.also,
      (symbol) => {
        const q = symbols.get(symbol);
        return q && quantity ? [q, figures(symbol)] : null;
      },
      rules,
    ),
    shares: quantity ? sharesOfVariance(quantity, shareGroups(method.method, stage, earlier)) : [],
  };
}

/** What later stages may use of a stage: each of its results by symbol. */
export function resultsForLater(stage: ComputedEvaluation): Map<string, EarlierResult> {
  const found = new Map<string, EarlierResult>();
  const main = resultQuantity(stage);
  const figuresOf = (symbol: string, q: Quantity) =>
    isOnce(stage) ? stage.significance.get(symbol) : meanFigures(membersOf(stage), symbol, q.value);
  const put = (symbol: string, quantity: Quantity) => {
    const significant = figuresOf(symbol, quantity);
    found.set(symbol, significant ? { quantity, significant } : { quantity });
  };
  if (main) put(stage.definition.result.symbol, main);
  for (const { definition, quantity } of stage.also) put(definition.symbol, quantity);
  return found;
}
