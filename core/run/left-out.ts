import { takenOver } from "../inputs";
import { type ComputedStage, type Method, resultsOf } from "../method";

/* Stages that are not done in a run at all, so that a run may be of one stage of a method. */

const uses = ({ inputs }: ComputedStage, keys: ReadonlySet<string>): boolean =>
  inputs.some((input) => keys.has(takenOver(input)?.stage ?? ""));

/** A method with some of its stages alone: nothing in them is compared with what is not found any more. */
export function withStages(method: Method, stages: readonly ComputedStage[]): Method {
  const isFound = (key: string, symbol: string) =>
    stages.some((stage) => stage.key === key && resultsOf(stage).some((found) => found.symbol === symbol));
  const isThere = (key: string) => stages.some((stage) => stage.key === key);
  return {
    ...method,
    stages: stages.map((stage) => {
      const { expectedFrom, ...others } = { expectedFrom: undefined, ...stage };
      const kept = expectedFrom === undefined || isThere(expectedFrom.stage) ? stage : others;
      const plausible = kept.plausible?.filter(
        (rule) => !("other" in rule) || rule.stage === undefined || isFound(rule.stage, rule.other),
      );
      return plausible ? { ...kept, plausible } : kept;
    }),
  };
}

/** A method without some of its stages, and without what rests on them. One that would be left with nothing stays whole. */
export function withoutStages(method: Method, keys: readonly string[]): Method {
  if (keys.length === 0) return method;
  const left = new Set(keys);
  // From the first one to the last: what uses a stage stands behind it.
  for (const stage of method.stages) if (uses(stage, left)) left.add(stage.key);
  const stages = method.stages.filter(({ key }) => !left.has(key));
  return stages.length === 0 || stages.length === method.stages.length ? method : withStages(method, stages);
}

/** Whether anything is found in a stage, so that a run may be of it alone. */
const finds = ({ kind, relations }: ComputedStage): boolean => kind !== "preparation" || relations.length > 0;

/** Whether a run can do without a stage of its method: something is left to do. */
export function canLeaveOut(method: Method, { key }: ComputedStage): boolean {
  const { stages } = withoutStages(method, [key]);
  return stages.length < method.stages.length && stages.some(finds);
}
