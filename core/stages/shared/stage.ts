import { type Method, resultsOf, type FurtherResultDefinition } from "../../method";
import { type CompiledStage, type CompiledMethod } from "../compiled";
import type { Earlier, EarlierResult } from "./trial";
import type { Leaf, Quantity, Significant } from "../../quantity";
import type { HouseRules } from "../../rules";
import {
  type CalibrationEvaluation,
  type TrialEvaluation,
  type FurtherResult,
  type ComputedEvaluation,
  resultQuantity,
  isOnce,
  membersOf,
} from "./evaluation";
import { type CombinedResult, combineReplicates, type Share, ownGroup } from "../../judgement";
import { showQuantity } from "./show";
import { msg, type Phrase } from "../../text";

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
  return (cause: Leaf): Pick<Share, "id" | "label" | "from"> => {
    const { id, stage } = cause;
    const from = stage ?? broughtBy(id);
    const origin = method.stages.find((s) => s.key === from);
    if (!origin || origin.key === stageKey) return ownGroup(cause);
    const used = compiled.definition.inputs.flatMap((input) =>
      input.is === "result" && input.stage === origin.key ? [input] : [],
    );
    // What that stage only handed on is shown by its own name, and not as the stage's result.
    const handedOn = used.find(({ result }) => {
      const carried = result === undefined ? undefined : earlier.get(origin.key)?.get(result)?.quantity;
      return carried?.sensitivities.has(id) && origin.inputs.some(({ symbol }) => symbol === result);
    });
    if (handedOn) {
      const symbol = handedOn.result ?? "";
      const from = { stage: origin.key, handedOn: symbol };
      return { id: `stage ${origin.key}, ${symbol}`, label: handedOn.label, from };
    }
    const whole = { id: `stage ${origin.key}`, from: { stage: origin.key, handedOn: null } };
    if (origin.kind === "calibration") return { ...whole, label: msg`Calibration line` };
    const [only] = used;
    const named =
      used.length === 1 ? resultsOf(origin).find(({ symbol }) => symbol === only?.result) : undefined;
    return { ...whole, label: named?.name ?? origin.result.name };
  };
}

export interface StageContext {
  readonly method: CompiledMethod;
  readonly rules: HouseRules;
  /** False once the run is finished: then what was presumed was presumed. */
  readonly open: boolean;
  /** Why nothing is computed in this stage: its evaluation failed. */
  readonly suspended?: Phrase;
  readonly earlier: Earlier;
  readonly nextStageTitle: Phrase | null;
  /** Id of the trial in hand; the last one that is not complete where nothing is said. */
  readonly hand?: string;
  /** Calibrations of earlier stages, by key. */
  readonly lines: ReadonlyMap<string, CalibrationEvaluation>;
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

/** The poorest place of the members' figures: that of their mean. */
export function meanFigures(
  members: readonly TrialEvaluation[],
  symbol: string,
  value: number,
): Significant | undefined {
  const places = members.flatMap(({ significance }) => significance.get(symbol)?.place ?? []);
  return places.length > 0 ? { value, place: Math.max(...places) } : undefined;
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
