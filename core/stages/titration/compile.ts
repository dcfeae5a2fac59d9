import { inputOf, type TitrationStage } from "../../method";
import { dimensionless, multiplyDimensions, sameDimension, unitOf } from "../../quantity";
import { dimensionOf, type Expression, parseExpression } from "../../relation";
import { type Result, success } from "../../result";
import type { CompiledStage } from "../compiled";
import { faulty, type MethodProblem, problemOf } from "../problem";
import { type Checked, photometerProblem } from "../shared/compile";

export interface CompiledTitration extends CompiledStage<TitrationStage> {
  readonly agreeOn: Expression;
  /** Whether a titer, a titer per amount or the result itself is compared. */
  readonly compares: "titer" | "titer per amount" | "result";
  /** Symbol of the input that is the titer. */
  readonly titer: string;
}

const volume = unitOf("mL").dimension;

export function titrationProblem(stage: TitrationStage): MethodProblem | null {
  const titers = stage.inputs.filter(({ is }) => is === "titer");
  if (titers.length === 0) return problemOf("titer-missing", {}, "inputs");
  if (titers.length > 1) return problemOf("titer-twice", {}, "inputs");
  return photometerProblem(stage);
}

/** What must agree, parsed, and that it can be compared: a titer, a titer per amount or the result. */
export function compileTitration(
  stage: TitrationStage,
  { lines, dimensions }: Checked,
): Result<CompiledTitration, MethodProblem> {
  const titer = stage.inputs.find(({ is }) => is === "titer")?.symbol ?? "";
  const agreeOn = parseExpression(stage.agree.on);
  const at = ["agree", "on"] as const;
  if (!agreeOn.ok)
    return faulty("relation-unreadable", { source: stage.agree.on, detail: agreeOn.problem }, ...at);
  const agreeing = dimensionOf(agreeOn.value, dimensions);
  if (!agreeing.ok) return faulty("relations-disagree", { detail: agreeing.problem }, ...at);
  const base = { definition: stage, lines, agreeOn: agreeOn.value, titer };
  if (stage.agree.on.trim() === stage.result.symbol) return success({ ...base, compares: "result" });

  const { per } = stage.agree;
  const amount = per === undefined ? dimensionless : inputOf(stage, per) ? dimensions.get(per) : undefined;
  if (!amount) return faulty("compared-per-unread", { per: per ?? "" }, "agree", "per");
  if (!sameDimension(multiplyDimensions(agreeing.value, amount), volume)) {
    return faulty("compared-no-titer", { on: stage.agree.on, per: per ?? null }, ...at);
  }
  return success({ ...base, compares: per === undefined ? "titer" : "titer per amount" });
}
