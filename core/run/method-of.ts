import { amountOf } from "../inputs";
import { type ComputedStage, type Expected, inputOf, type Method } from "../method";
import { heldStage } from "./held-against";
import { isKnowable, type Known, withKnown } from "./known-stage";
import { withoutStages } from "./left-out";
import type { RunRecord } from "./run-record";
import { type Adapted, adaptations } from "./adapted";

type Choices = NonNullable<RunRecord["choices"]>;

/** How a stage is known that is not done in a run; null for one that is done. */
export function knownOf({ choices = [] }: Pick<RunRecord, "choices">, stageKey: string): Known | null {
  for (const choice of choices) if (choice.stageKey === stageKey && "known" in choice) return choice.known;
  return null;
}

/** Whether a stage is done otherwise in a run: not diluted, on dry basis, or not at all. */
export const isAdapted = (
  { choices = [] }: Pick<RunRecord, "choices">,
  stageKey: string,
  adapted: Adapted,
): boolean =>
  choices.some((choice) => choice.stageKey === stageKey && "adapted" in choice && choice.adapted === adapted);

/** Whether what is expected is of the result that a stage is asked for now; of the method's own where nothing is said. */
const isOf = ({ in: unit, of }: Expected, own: ComputedStage, { result }: ComputedStage): boolean =>
  unit === "mL" || (of ?? own.result.symbol) === result.symbol;

const leftOutIn = (choices: Choices): string[] =>
  choices.flatMap((choice) =>
    "adapted" in choice && choice.adapted === "left-out" ? [choice.stageKey] : [],
  );

/** The method of a run without the stages that are left out of it; those that are known stand in it as the method has them. */
export const methodDone = ({ method, choices = [] }: Pick<RunRecord, "method" | "choices">): Method =>
  withoutStages(method, leftOutIn(choices));

/** A stage with its reagents as much as is taken of them in the ways in which its inputs are measured. */
function withAmounts(stage: ComputedStage, own: ComputedStage): ComputedStage {
  if (stage.inputs === own.inputs) return stage;
  const reagents = stage.reagents?.map((reagent) => {
    const input = inputOf(stage, reagent.measured ?? "");
    const taken = input && !own.inputs.includes(input) ? amountOf(input) : null;
    if (!taken) return reagent;
    const { text, unit } = taken;
    return { ...reagent, amount: `${text} ${unit}`, quantity: { most: Number(text), unit } };
  });
  return reagents ? { ...stage, reagents } : stage;
}

/**
 * A method with what was chosen in a run: inputs in place of its own, what results are held against, stages that are known, and stages that
 * are left out. Choices that name none of its stages or inputs change nothing.
 */
export function withChoices(method: Method, choices: Choices): Method {
  const measured = {
    ...method,
    stages: method.stages.map((stage) => {
      const own = choices.flatMap((choice) =>
        choice.stageKey === stage.key && "input" in choice ? [choice.input] : [],
      );
      const chosen = (symbol: string) => own.find((input) => input.symbol === symbol);
      const read =
        own.length === 0
          ? stage
          : { ...stage, inputs: stage.inputs.map((input) => chosen(input.symbol) ?? input) };
      const here = choices.filter(({ stageKey }) => stageKey === stage.key);
      const so = here.reduce((now: ComputedStage, choice) => {
        if ("adapted" in choice) return adaptations[choice.adapted].apply(now);
        return "heldAgainst" in choice ? heldStage(now, choice.heldAgainst) : now;
      }, read);
      const taken = withAmounts(so, stage);
      // Last, since it is of one result: the one that is asked for now.
      const expected = here.flatMap((choice) => ("expected" in choice ? [choice.expected] : []));
      return expected.reduce(
        (now, one) => (isOf(one, stage, now) ? ({ ...now, expected: one } as ComputedStage) : now),
        taken,
      );
    }),
  };
  const known = choices.flatMap((choice) => ("known" in choice ? [choice.stageKey] : []));
  return withoutStages(withKnown(withNamedResults(method, measured), known), leftOutIn(choices));
}

/**
 * Where a run asks a stage for another result than the method does, what other stages take over of it is still what the method meant: its
 * own main result, which they name then.
 */
function withNamedResults(own: Method, chosen: Method): Method {
  const meant = new Map<string, string>();
  own.stages.forEach(({ key, result }, i) => {
    if (chosen.stages[i]?.result.symbol !== result.symbol) meant.set(key, result.symbol);
  });
  if (meant.size === 0) return chosen;
  const named = <T extends { readonly stage: string; readonly result?: string }>(from: T): T => {
    const symbol = from.result ?? meant.get(from.stage);
    return symbol === undefined ? from : { ...from, result: symbol };
  };
  const stages = chosen.stages.map((stage) => {
    const inputs = stage.inputs.map((input) => (input.is === "result" ? named(input) : input));
    return "expectedFrom" in stage && stage.expectedFrom
      ? { ...stage, inputs, expectedFrom: named(stage.expectedFrom) }
      : { ...stage, inputs };
  });
  return { ...chosen, stages };
}

/** Of what was chosen in a run of a method, what another version of it can be had with. */
export const choicesFor = (method: Method, choices: Choices): Choices =>
  choices.filter((choice) => {
    const stage = method.stages.find(({ key }) => key === choice.stageKey);
    if (!stage) return false;
    if ("known" in choice) return isKnowable(method, stage);
    if ("adapted" in choice) return adaptations[choice.adapted].fits(stage, method);
    if ("heldAgainst" in choice || "expected" in choice) return true;
    return inputOf(stage, choice.input.symbol) !== undefined;
  });

const known = new WeakMap<Method, Map<string, Method>>();

/**
 * The method as a run follows it: measured with other glass, weighed another way, stated instead of read, where that was chosen.
 * One object for the same method and choices, by which what follows from it is remembered.
 */
export function methodOf({ method, choices = [] }: Pick<RunRecord, "method" | "choices">): Method {
  if (choices.length === 0) return method;
  const before = known.get(method) ?? new Map<string, Method>();
  known.set(method, before);
  const key = JSON.stringify(choices);
  const there = before.get(key) ?? withChoices(method, choices);
  before.set(key, there);
  return there;
}
