import { takenOver, type Input } from "../inputs";
import { withStages } from "./left-out";
import { type ComputedStage, type Method, type PreparationStage, resultsOf } from "../method";

/* A stage whose result is known already: nothing is done in it, its result is stated or comes from a bottle on the shelf. */

/** Where a stated result is from, in a person's words; empty where nobody said, and where a bottle says it. */
export interface Known {
  readonly from: string;
}

/** Inputs of later stages that take something over from a stage. */
const usesOf = ({ stages }: Method, key: string) =>
  stages.flatMap(({ inputs }) => inputs.map(takenOver)).filter((taken) => taken?.stage === key);

/**
 * The results of a stage that later stages use, the main one first: what has to be known where it is not done. Empty for the last
 * stages of a method, and where a later one reads off its line.
 */
export function resultsUsed(method: Method, stage: ComputedStage) {
  const uses = usesOf(method, stage.key);
  if (uses.some((taken) => taken?.readBy !== undefined)) return [];
  const used = new Set(uses.map((taken) => taken?.result ?? stage.result.symbol));
  return resultsOf(stage).filter(({ symbol }) => used.has(symbol));
}

/** Whether a stage can be known instead of being done: later ones use its result. */
export const isKnowable = (method: Method, stage: ComputedStage): boolean =>
  resultsUsed(method, stage).length > 0;

/** Formula of the solution whose concentration a stage finds, by which a bottle of it is looked for. */
function solutionOf(method: Method, { key, result }: ComputedStage): string | undefined {
  if (result.assigns !== undefined) return result.assigns;
  const after = method.stages.flatMap(({ inputs }) => inputs);
  const use = after.find((input) => {
    const taken = takenOver(input);
    return taken?.stage === key && (taken.result ?? result.symbol) === result.symbol;
  });
  return result.unit === "mol/L" && use && "of" in use && use.of ? use.of : undefined;
}

/** A stage as it is where its result is known: what later stages use of it is stated, or taken from the shelf. */
export function knownStage(method: Method, stage: ComputedStage): PreparationStage {
  const { key, result } = stage;
  const of = solutionOf(method, stage);
  // It assigns nothing: what is known already goes to no bottle.
  const [main = result, ...also] = resultsUsed(method, stage).map(({ symbol, name, unit }) => ({
    ...{ symbol, name, unit },
  }));
  const inputs = [main, ...also].map(({ symbol, name, unit }): Input => {
    const given = { symbol, label: name, is: "given" as const, per: "run" as const, unit };
    return symbol === result.symbol && of !== undefined ? { ...given, of } : given;
  });
  return {
    kind: "preparation",
    key,
    title: stage.title,
    inputs,
    relations: [],
    result: main,
    ...(also.length > 0 ? { also } : {}),
    steps: [],
    cautions: [],
  };
}

/**
 * A method some of whose stages are known. A stage that was done for those alone is left out, and nothing is held against a result
 * that is not found then.
 */
export function withKnown(method: Method, keys: readonly string[]): Method {
  const known = keys.filter((key) =>
    method.stages.some((stage) => stage.key === key && isKnowable(method, stage)),
  );
  if (known.length === 0) return method;
  const users = (key: string) =>
    method.stages.filter(({ inputs }) => inputs.some((input) => takenOver(input)?.stage === key));
  // From the last one to the first: what a stage is for stands behind it.
  const needed = new Set<string>();
  for (const { key } of method.stages.toReversed()) {
    const usedBy = users(key);
    if (usedBy.length === 0 || usedBy.some((user) => needed.has(user.key) && !known.includes(user.key)))
      needed.add(key);
  }
  const stages = method.stages
    .filter(({ key }) => needed.has(key))
    .map((stage) => (known.includes(stage.key) ? knownStage(method, stage) : stage));
  return withStages(method, stages);
}
