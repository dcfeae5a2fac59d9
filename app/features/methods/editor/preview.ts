import { simulateRun } from "~/core/simulate";
import { failure, type Result, success } from "~/core/result";
import { type Method } from "~/core/method";
import { compileMethod, type MethodProblem, type WorkingStep } from "~/core/stages";
import { evaluateRun } from "~/core/evaluate";
import type { HouseRules } from "~/core/rules";
import type { RunRecord } from "~/core/run";
import { workingOf } from "~/core/working";

export interface Preview {
  readonly record: RunRecord;
  readonly stages: readonly {
    readonly key: string;
    readonly title: string;
    readonly text: string;
    readonly steps: readonly WorkingStep[];
  }[];
}

/** What is missing before a method can be used at all, in words. */
export function gaps({ title, purpose, stages, hazards }: Method): string[] {
  const found: string[] = [];
  if (title === "") found.push("Give the method a title");
  if (purpose === "") found.push("Say what it is for");
  if (hazards.length === 0) found.push("Say what can hurt, if only that the safety data sheets come first");
  for (const stage of stages) {
    if (stage.title === "") found.push("Give every stage a title");
    for (const { symbol, label } of stage.inputs) {
      if (symbol === "") found.push(`${stage.title}: what is read needs a letter`);
      else if (label === "") found.push(`${stage.title}: say what ${symbol} is`);
    }
    for (const { relation, title: name } of stage.relations) {
      if (relation !== "" && name === "") found.push(`${stage.title}: say what "${relation}" computes`);
    }
    if (stage.result.name === "") found.push(`${stage.title}: name the result`);
    if (stage.kind === "calibration" && !(stage.strongest > 0))
      found.push(`${stage.title}: say about what the strongest standard reads`);
    if (stage.kind === "calibration" && stage.series.values.length < 2)
      found.push(`${stage.title}: a series needs two standards at least`);
    if (stage.kind === "titration" && stage.indicator === "")
      found.push(`${stage.title}: name the indicator`);
    if (stage.kind === "titration" && stage.persistence === "")
      found.push(`${stage.title}: say how long the end must stay`);
  }
  return found;
}

/** The first thing that keeps a method from holding together. Never throws on what is half typed. */
export function check(method: Method): MethodProblem | null {
  try {
    const compiled = compileMethod(method);
    return compiled.ok ? null : compiled.problem;
  } catch (error) {
    const message = error instanceof Error ? error.message : "This does not hold together yet";
    return { code: "relations-disagree", path: [], stage: null, facts: { said: { message } } };
  }
}

/** The method carried out on a made-up bench, whose results are what each stage presumes. */
export function preview(method: Method, houseRules: HouseRules): Result<Preview> {
  const results: Record<string, number> = {};
  for (const stage of method.stages) {
    if (stage.kind !== "titration") continue;
    if (stage.presumed === undefined)
      return failure(`${stage.title}: say what result to presume, and made-up readings come here`);
    results[stage.key] = stage.presumed;
  }
  try {
    const simulated = simulateRun({ method, houseRules, truth: { results }, seed: 5 });
    if (!simulated.ok) return simulated;
    const { record } = simulated.value;
    const evaluation = evaluateRun(record);
    return success({
      record,
      stages: evaluation.stages.flatMap((stage) => [
        {
          key: stage.key,
          title: stage.definition.result.name,
          text: stage.shown?.text ?? "no result",
          steps: workingOf(record, evaluation, stage.key, null)?.steps ?? [],
        },
      ]),
    });
  } catch (error) {
    return failure(error instanceof Error ? error.message : "No made-up readings fit these numbers");
  }
}
