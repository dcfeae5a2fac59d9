import { inputOf, type Method, type UnknownStage } from "../../method";
import { type Result, success } from "../../result";
import type { CompiledStage } from "../compiled";
import { type MethodProblem, problemOf } from "../problem";
import { assayProblem, type Checked } from "../shared/compile";

/** Where each amount is read off: a line that an earlier stage makes, by an absorbance of this one. */
export function unknownProblem(stage: UnknownStage, method: Method): MethodProblem | null {
  const read = assayProblem(stage, "absorbance");
  if (read) return read;
  const readOff = stage.inputs.flatMap((input) => (input.is === "read-off" ? [input] : []));
  for (const input of readOff) {
    const at = ["inputs", stage.inputs.indexOf(input)] as const;
    const { symbol, reading } = input;
    const line = method.stages.find((s) => s.key === input.stage);
    if (line?.kind !== "calibration") return problemOf("line-missing", { symbol, stage: input.stage }, ...at);
    if (inputOf(stage, reading)?.is !== "absorbance")
      return problemOf("read-off-no-absorbance", { symbol, reading }, ...at);
  }
  return readOff.length > 0 ? null : problemOf("nothing-read-off", {}, "inputs");
}

export const compileUnknown = (
  definition: UnknownStage,
  { lines }: Checked,
): Result<CompiledStage<UnknownStage>, MethodProblem> => success({ definition, lines });
