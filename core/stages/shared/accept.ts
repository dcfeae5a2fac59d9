import { againstLimit, dilutionDecision, percentError, recoveryPercent } from "../../judgement";
import { inUnit, type Quantity, toDecimals, toSignificant, unitOf, withUnit } from "../../quantity";
import type { AcceptanceView } from "./evaluation";
import type { TitrationStage } from "../../method";
import type { HouseRules } from "../../rules";
import { uncapitalized, msg } from "../../text";

/**
 * A percentage with a digit more than the limit it is held against, and as many as it takes to tell it from that limit: 5.04
 * beside 5, 3.1 beside 5.
 */
export function percentBeside(percent: number, limit: number): string {
  const typed = String(limit).split(".")[1]?.length ?? 0;
  for (let decimals = typed + 1; decimals < typed + 5; decimals++) {
    const text = toDecimals(percent, decimals);
    if (Number(text.replace("−", "-")) !== limit || Math.abs(percent - limit) < 1e-9) return text;
  }
  return String(percent);
}

/**
 * The result held against the known value, the target or the limit that was given; null where none was, and while `agreed` is
 * false: what does not agree with itself is held against nothing.
 */
export function judgeAcceptance(
  { accept, result, inputs }: Pick<TitrationStage, "accept" | "result" | "inputs">,
  found: Quantity | null,
  shared: ReadonlyMap<string, Quantity>,
  { agreed, titrations }: { readonly agreed: boolean; readonly titrations: number },
  rules: HouseRules,
): AcceptanceView | null {
  if (!agreed) return null;
  const stated = accept ? shared.get(accept.symbol) : undefined;
  if (!accept || !stated || !found || stated.value === 0) return null;
  const label = uncapitalized(inputs.find(({ symbol }) => symbol === accept.symbol)?.label ?? accept.symbol);
  const unit = result.unit;
  const at = withUnit(toSignificant(inUnit(stated, unit), 4), unit);
  if (accept.against === "limit") {
    const { verdict, guardBand } = againstLimit(found, stated);
    const good = accept.bound === "at most" ? "clearly below" : "clearly above";
    const passes = verdict === "cannot tell" ? null : verdict === good;
    const band = toSignificant(guardBand / unitOf(unit).factor, 2);
    const outcome = {
      "clearly below": msg`clearly below the ${label}, ${at}`,
      "clearly above": msg`clearly above the ${label}, ${at}`,
      "cannot tell": msg`too near the ${label}, ${at}, to tell: its guard band is ${withUnit(band, unit)}`,
    }[verdict];
    const decided = passes === null ? "" : passes ? msg` It passes.` : msg` It fails.`;
    return { against: "limit", verdict, passes, text: msg`The result is ${outcome}.${decided}` };
  }
  const signed = percentError(found.value, stated.value);
  const shown = percentBeside(Math.abs(signed), accept.tolerancePercent);
  const side = signed < 0 ? "below" : "above";
  const off = rules.percentError === "signed" ? `${shown} % ${side}` : `${shown} % off`;
  const within = Math.abs(signed) <= accept.tolerancePercent + 1e-9;
  const decision =
    accept.whenOff === "dilution" ? dilutionDecision(signed, accept.tolerancePercent, titrations) : null;
  const recovery = recoveryPercent(found.value, stated.value);
  // A target is hit or missed; of a known amount a part is recovered.
  const recovered = accept.whenOff === "tell" ? msg` Recovery: ${toDecimals(recovery, 1)} %.` : "";
  return {
    against: "value",
    errorPercent: percentError(found.value, stated.value, rules.percentError),
    recoveryPercent: recovery,
    within,
    decision,
    text: msg`The result is ${off} the ${label}, ${at}: ${within ? msg`within` : msg`outside`} the ${accept.tolerancePercent} % allowed.${recovered}`,
  };
}
