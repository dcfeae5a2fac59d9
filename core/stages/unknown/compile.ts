import { inputOf, type Method, type UnknownStage } from "../../method";
import { type Problem, type Result, success } from "../../result";
import type { CompiledStage } from "../compiled";
import { acceptanceProblem, assayProblem, type Checked } from "../shared/compile";

/** Where each amount is read off: a line that an earlier stage makes, by an absorbance of this one. */
export function unknownProblem(stage: UnknownStage, method: Method): Problem | null {
  const read = assayProblem(stage, "absorbance");
  if (read) return read;
  const readOff = stage.inputs.flatMap((input) => (input.is === "read-off" ? [input] : []));
  for (const input of readOff) {
    const line = method.stages.find((s) => s.key === input.stage);
    if (line?.kind !== "calibration")
      return { message: `${input.symbol} is to be read off a line, but "${input.stage}" makes none` };
    if (inputOf(stage, input.reading)?.is !== "absorbance")
      return { message: `${input.reading}, by which ${input.symbol} is read off, is no absorbance` };
  }
  return readOff.length > 0 ? null : { message: "An unknown needs an amount that is read off a line" };
}

export function compileUnknown(
  definition: UnknownStage,
  { lines, dimensions }: Checked,
): Result<CompiledStage<UnknownStage>> {
  const wrong = acceptanceProblem(definition, dimensions);
  return wrong ? { ok: false, problem: wrong } : success({ definition, lines });
}
