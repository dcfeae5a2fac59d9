import { inputOf, type TitrationStage } from "../../method";
import { dimensionless, multiplyDimensions, sameDimension, unitOf } from "../../quantity";
import { dimensionOf, type Expression, parseExpression } from "../../relation";
import { failure, type Problem, type Result, success } from "../../result";
import type { CompiledStage } from "../compiled";
import { acceptanceProblem, type Checked, photometerProblem } from "../shared/compile";

export interface CompiledTitration extends CompiledStage<TitrationStage> {
  readonly agreeOn: Expression;
  /** Whether a titer, a titer per amount or the result itself is compared. */
  readonly compares: "titer" | "titer per amount" | "result";
  /** Symbol of the input that is the titer. */
  readonly titer: string;
}

const volume = unitOf("mL").dimension;

export function titrationProblem(stage: TitrationStage): Problem | null {
  const titers = stage.inputs.filter(({ is }) => is === "titer");
  if (titers.length === 0) return { message: "A titration stage needs an input that is the titer" };
  if (titers.length > 1)
    return { message: "A titration stage has one titer; another burette's volume is a delivered one" };
  return photometerProblem(stage);
}

/** What must agree, parsed, and that it can be compared: a titer, a titer per amount or the result. */
export function compileTitration(
  stage: TitrationStage,
  { lines, dimensions }: Checked,
): Result<CompiledTitration> {
  const titer = stage.inputs.find(({ is }) => is === "titer")?.symbol ?? "";
  const agreeOn = parseExpression(stage.agree.on);
  if (!agreeOn.ok)
    return failure(`In "${stage.agree.on}": ${agreeOn.problem.message}`, agreeOn.problem.position);
  const agreeing = dimensionOf(agreeOn.value, dimensions);
  if (!agreeing.ok) return agreeing;
  const accepted = acceptanceProblem(stage, dimensions);
  if (accepted) return { ok: false, problem: accepted };
  const base = { definition: stage, lines, agreeOn: agreeOn.value, titer };
  if (stage.agree.on.trim() === stage.result.symbol) return success({ ...base, compares: "result" });

  const { per } = stage.agree;
  const amount = per === undefined ? dimensionless : inputOf(stage, per) ? dimensions.get(per) : undefined;
  if (!amount) return failure(`"${per}" is not read in this stage`);
  if (!sameDimension(multiplyDimensions(agreeing.value, amount), volume)) {
    return failure(`What must agree, ${stage.agree.on}, is no titer and no titer per ${per ?? "amount"}`);
  }
  return success({ ...base, compares: per === undefined ? "titer" : "titer per amount" });
}
