import { type Input, presumedOf, statedOf } from "~/core/inputs";
import { presentObservation } from "~/core/record";
import { type ComputedStage, equivalentsIn, type Method } from "~/core/method";
import { isKnowable, knownOf, knownStage, type RunRecord } from "~/core/run";
import type { KnownStage } from "./request-schemas";
import type { SolutionView } from "./shelf";

/* Which bottle of the shelf is taken where a concentration is known already, and how a run that begins may know it. */

/** A bottle this much stronger or weaker than what a method presumes is another solution. Common practice, no source. */
const alike = 2;

/** Less than this is soon gone: one filling of a burette, or a weighing, with what is rinsed. Common practice, no source. */
const little = { mL: 50, g: 1 } as const;

/** Whether a bottle has been found to be about as strong as is presumed, where something is. */
function isAlike({ current }: SolutionView, presumed: number | undefined): boolean {
  if (!current || presumed === undefined) return current !== null;
  const times = Number(current.value) / presumed;
  return times <= alike && times >= 1 / alike;
}

/** Whether hardly anything is left in a bottle, as far as that is kept. */
export const isLittle = ({ amountLeft, amountUnit }: SolutionView): boolean =>
  amountLeft !== null && Number(amountLeft) < little[amountUnit];

/** A bottle that can be taken without a second thought: in date, enough left, and as strong as is presumed. */
const isFit = (bottle: SolutionView, presumed: number | undefined): boolean =>
  bottle.state === "in use" && !isLittle(bottle) && isAlike(bottle, presumed);

/**
 * Bottles that an input can be taken from, the best first: those that fit, then by how lately their concentration was fixed. `presumed`
 * is about how strong the solution is, in the unit of the input.
 */
export function fittingBottles(
  input: Input,
  bottles: readonly SolutionView[],
  presumed: number | undefined = strengthOf(input),
): SolutionView[] {
  const shelf = statedOf(input)?.shelf;
  if (!shelf) return [];
  const fit = (b: SolutionView) => Number(isFit(b, presumed));
  return bottles
    .filter((b) => b.formula === shelf.formula && b.current?.unit === shelf.unit && b.state !== "used up")
    .toSorted((a, b) => fit(b) - fit(a) || Number(b.current?.at) - Number(a.current?.at));
}

/** How strong a method presumes a solution to be, in the unit of the input. */
function strengthOf(input: Input): number | undefined {
  const { given } = presumedOf(input);
  return given === undefined ? undefined : Number(given);
}

/** The best bottle, where it can be taken without a second thought. */
export function bestBottle(
  input: Input,
  bottles: readonly SolutionView[],
  presumed: number | undefined = strengthOf(input),
): SolutionView | undefined {
  const [best] = fittingBottles(input, bottles, presumed);
  return best && isFit(best, presumed) ? best : undefined;
}

/** A stage of a method that need not be done in a run: its result may be known. */
export interface KnowableStage {
  readonly key: string;
  readonly title: string;
  /** What is found in it, and in which unit. */
  readonly name: string;
  readonly unit: string;
  /** Equivalents in a mole of what it is of, by the method; null where that is not told. */
  readonly equivalents: number | null;
  /** Bottles that it can be taken from, the best first. */
  readonly bottles: readonly SolutionView[];
  /** How it is known where nobody says otherwise; null where it is done. */
  readonly usual: KnownStage | null;
}

/** What can be chosen where a run of a method begins. */
export interface StartChoices {
  readonly stages: readonly KnowableStage[];
  /** Unit of what the method finds. */
  readonly unit: string;
}

/** The input by which a stage is stated, or taken from the shelf, where it is known. */
function inputOfKnown(method: Method, stage: ComputedStage): Input | undefined {
  const { inputs, result } = knownStage(method, stage);
  return inputs.find(({ symbol }) => symbol === result.symbol);
}

/** Formulas of the solutions that the stages of a method may be known by. */
export const formulasKnownBy = (method: Method): string[] =>
  method.stages.flatMap((stage) => {
    const input = isKnowable(method, stage) ? inputOfKnown(method, stage) : undefined;
    return (input && statedOf(input)?.shelf?.formula) ?? [];
  });

/**
 * The stages of a method that need not be done in a run, with the bottles that say their results. Usually they are known as in the
 * run that a new one is like; else by a bottle, where one fits without a second thought.
 */
export function knowableStages(
  method: Method,
  bottles: readonly SolutionView[],
  like: RunRecord | null,
): KnowableStage[] {
  const before = like?.method.id === method.id ? knownIn(like) : null;
  return method.stages.flatMap((stage): KnowableStage[] => {
    const input = isKnowable(method, stage) ? inputOfKnown(method, stage) : undefined;
    if (!input) return [];
    const { key: stageKey, title } = stage;
    const presumed = "presumed" in stage ? stage.presumed : undefined;
    const found = fittingBottles(input, bottles, presumed);
    const best = bestBottle(input, bottles, presumed)?.current;
    const known = before?.find((one) => one.stageKey === stageKey) ?? null;
    // The bottle of another run may be used up meanwhile, or have been given another concentration.
    const gone = known?.assignmentId != null && !found.some((b) => b.current?.id === known.assignmentId);
    const byBest = best ? { stageKey, assignmentId: best.id, value: "", plusMinus: "", from: "" } : null;
    const { label: name, unit, of } = input as Extract<Input, { is: "given" }>;
    const equivalents = of === undefined || unit !== "mol/L" ? null : equivalentsIn(method, of);
    const usual = before && !gone ? known : byBest;
    return [{ key: stageKey, title, name, unit, equivalents, bottles: found, usual }];
  });
}

/** How the stages of a run are known that are not done in it. */
export function knownIn(record: RunRecord): KnownStage[] {
  return record.method.stages.flatMap((stage): KnownStage[] => {
    const known = knownOf(record, stage.key);
    if (!known) return [];
    const { symbol } = knownStage(record.method, stage).result;
    const there = record.stages.find((s) => s.key === stage.key)?.observations ?? [];
    const value = presentObservation(there, symbol, "given");
    const assignmentId = value?.assignment ?? null;
    const typed = (text: string | undefined) => (assignmentId === null ? (text ?? "") : "");
    return [
      {
        stageKey: stage.key,
        assignmentId,
        value: typed(value?.text),
        plusMinus: typed(presentObservation(there, symbol, "given.plus-minus")?.text),
        from: known.from,
      },
    ];
  });
}
