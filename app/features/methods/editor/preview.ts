import "~/core/stages/engines";
import { simulateRun } from "~/core/simulate";
import { failure, type Result, success } from "~/core/result";
import { type Method } from "~/core/method";
import { compileMethod, type MethodProblem, type WorkingStep } from "~/core/stages";
import { evaluateRun } from "~/core/evaluate";
import type { HouseRules } from "~/core/rules";
import type { RunRecord } from "~/core/run";
import { workingOf } from "~/core/working";
import { editedKind } from "./kinds/table";
import { msg, type Phrase } from "~/core/text";

export interface Preview {
  readonly record: RunRecord;
  readonly stages: readonly {
    readonly key: string;
    readonly title: string;
    readonly text: Phrase;
    readonly steps: readonly WorkingStep[];
  }[];
}

/** What is missing in a stage, whatever its kind; then what its kind asks for. */
function gapsOfStage(stage: Method["stages"][number]): Phrase[] {
  const { title, inputs, relations, result, reagents = [] } = stage;
  const of = (words: Phrase) => msg`${title}: ${words}`;
  return [
    ...(title === "" ? [msg`Give every stage a title`] : []),
    ...inputs.flatMap(({ symbol, label }) => {
      if (symbol === "") return [of(msg`what is read needs a letter`)];
      return label === "" ? [of(msg`say what ${symbol} is`)] : [];
    }),
    ...relations.flatMap(({ relation, title: name }) =>
      relation !== "" && name === "" ? [of(msg`say what "${relation}" computes`)] : [],
    ),
    ...(result.name === "" ? [of(msg`name the result`)] : []),
    ...reagents.flatMap(({ name, quantity }) =>
      quantity && (!(quantity.most > 0) || (quantity.unit as string) === "")
        ? [
            of(
              msg`give the amount of ${name || msg`the reagent`} as a number above zero with its unit, or leave both out`,
            ),
          ]
        : [],
    ),
    ...editedKind(stage).gaps(stage).map(of),
  ];
}

/** What is missing before a method can be used at all, in words. */
export const gaps = ({ title, purpose, stages, hazards }: Method): Phrase[] => [
  ...(title === "" ? [msg`Give the method a title`] : []),
  ...(purpose === "" ? [msg`Say what it is for`] : []),
  ...(hazards.length === 0 ? [msg`State the hazards, or at least refer to the safety data sheets`] : []),
  ...stages.flatMap(gapsOfStage),
];

/** The first thing that keeps a method from holding together. Never throws on what is half typed. */
export function check(method: Method): MethodProblem | null {
  try {
    const compiled = compileMethod(method);
    return compiled.ok ? null : compiled.problem;
  } catch (error) {
    const message = error instanceof Error ? error.message : msg`The method does not pass the check yet`;
    return { code: "relations-disagree", path: [], stage: null, facts: { detail: { message } } };
  }
}

/** The method carried out on a made-up bench, whose results are what each stage presumes. */
export function preview(method: Method, houseRules: HouseRules): Result<Preview> {
  const results: Record<string, number> = {};
  for (const stage of method.stages) {
    const presumed = editedKind(stage).presumed(stage);
    if (presumed === undefined)
      return failure(msg`${stage.title}: state a presumed result to see made-up readings here`);
    if (presumed !== null) results[stage.key] = presumed;
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
          text: stage.shown?.text ?? msg`no result`,
          steps: workingOf(record, evaluation, stage.key, null)?.steps ?? [],
        },
      ]),
    });
  } catch (error) {
    return failure(error instanceof Error ? error.message : msg`No made-up readings fit these values`);
  }
}
