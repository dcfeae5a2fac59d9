import type { Method } from "../method";
import type { RunRecord } from "./run-record";

type Choices = NonNullable<RunRecord["choices"]>;

/** A method with the inputs that were chosen in place of its own; those that name none of its inputs change nothing. */
export const withChoices = (method: Method, choices: Choices): Method => ({
  ...method,
  stages: method.stages.map((stage) => {
    const own = choices.filter(({ stageKey }) => stageKey === stage.key);
    const chosen = (symbol: string) => own.find(({ input }) => input.symbol === symbol)?.input;
    return own.length === 0
      ? stage
      : { ...stage, inputs: stage.inputs.map((input) => chosen(input.symbol) ?? input) };
  }),
});

/** Of what was chosen in a run of a method, what another version of it can be had with. */
export const choicesFor = (method: Method, choices: Choices): Choices =>
  choices.filter(({ stageKey, input }) =>
    method.stages.some(
      ({ key, inputs }) => key === stageKey && inputs.some((own) => own.symbol === input.symbol),
    ),
  );

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
