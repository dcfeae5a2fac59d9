import { againstLimit, dilutionDecision, percentError, recoveryPercent } from "../../judgement";
import {
  inUnit,
  type Quantity,
  standardUncertainty,
  toDecimals,
  toSignificant,
  unitOf,
  withUnit,
} from "../../quantity";
import type { AcceptanceView } from "./evaluation";
import type { AcceptanceDefinition, ComputedStage } from "../../method";
import type { HouseRules } from "../../rules";
import { uncapitalized, msg, type Phrase } from "../../text";

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

type AgainstValue = Extract<AcceptanceDefinition, { against: "value" }>;

/** How far off is allowed, in percent of the known value, and in words as it was said; null where nothing was. */
function allowed(
  { tolerancePercent, toleranceAbsolute }: AgainstValue,
  known: number,
  unit: string,
): { readonly percent: number; readonly words: Phrase } | null {
  if (toleranceAbsolute !== undefined)
    return {
      percent: (100 * toleranceAbsolute) / Math.abs(known),
      words: withUnit(String(toleranceAbsolute), unit),
    };
  return tolerancePercent === undefined
    ? null
    : { percent: tolerancePercent, words: msg`${tolerancePercent} %` };
}

/** Whether the ± of a result and of the value it is held against, both with k = 2, cover their difference. */
const isCovered = (found: Quantity, stated: Quantity): boolean =>
  Math.abs(found.value - stated.value) <=
  2 * Math.hypot(standardUncertainty(found), standardUncertainty(stated)) * (1 + 1e-9);

/**
 * The result held against the known value, the target or the limit that was given; null where none was, and while `agreed` is
 * false: what does not agree with itself is held against nothing.
 */
export function judgeAcceptance(
  { accept, result, inputs }: Pick<ComputedStage, "accept" | "result" | "inputs">,
  found: Quantity | null,
  shared: ReadonlyMap<string, Quantity>,
  { agreed, titrations }: { readonly agreed: boolean; readonly titrations: number },
  rules: HouseRules,
): AcceptanceView | null {
  if (!agreed) return null;
  const stated = accept ? shared.get(accept.symbol) : undefined;
  if (!accept || !stated || !found || stated.value === 0) return null;
  const label = uncapitalized(inputs.find(({ symbol }) => symbol === accept.symbol)?.label ?? accept.symbol);
  const held = { found, stated, label, unit: result.unit };
  return accept.against === "limit"
    ? againstTheLimit(accept, held)
    : againstTheValue(accept, held, titrations, rules);
}

/** The same for what is had once, or from trials that need not agree: as soon as there is a result. */
export const judgeOnce = (
  definition: Pick<ComputedStage, "accept" | "result" | "inputs">,
  found: Quantity | null,
  shared: ReadonlyMap<string, Quantity>,
  rules: HouseRules,
): AcceptanceView | null =>
  judgeAcceptance(definition, found, shared, { agreed: true, titrations: 1 }, rules);

interface Held {
  readonly found: Quantity;
  readonly stated: Quantity;
  /** What is stated, in words. */
  readonly label: Phrase;
  readonly unit: string;
}

/** What is stated, as it is told. */
const told = ({ stated, unit }: Held): Phrase => withUnit(toSignificant(inUnit(stated, unit), 4), unit);

function againstTheLimit(
  accept: Extract<AcceptanceDefinition, { against: "limit" }>,
  held: Held,
): AcceptanceView {
  const { found, stated, label, unit } = held;
  const at = told(held);
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

function againstTheValue(
  accept: AgainstValue,
  held: Held,
  titrations: number,
  rules: HouseRules,
): AcceptanceView {
  const { found, stated, label, unit } = held;
  const at = told(held);
  const signed = percentError(found.value, stated.value);
  const tolerance = allowed(accept, inUnit(stated, unit), unit);
  const shown = tolerance
    ? percentBeside(Math.abs(signed), tolerance.percent)
    : toSignificant(Math.abs(signed), 2);
  const side = signed < 0 ? "below" : "above";
  const off = rules.percentError === "signed" ? `${shown} % ${side}` : `${shown} % off`;
  const within = tolerance ? Math.abs(signed) <= tolerance.percent + 1e-9 : null;
  const decision =
    accept.whenOff === "dilution" && tolerance
      ? dilutionDecision(signed, tolerance.percent, titrations)
      : null;
  const recovery = recoveryPercent(found.value, stated.value);
  const judged = tolerance
    ? msg`The result is ${off} the ${label}, ${at}: ${within ? msg`within` : msg`outside`} the ${tolerance.words} allowed.`
    : msg`The result is ${off} the ${label}, ${at}.`;
  // A target is hit or missed; of a known amount a part is recovered, and the ± says whether the difference means something.
  const recovered =
    accept.whenOff === "tell"
      ? msg` Recovery: ${toDecimals(recovery, 1)} %. ${isCovered(found, stated) ? msg`The ± covers the difference.` : msg`The difference is larger than the ±: look for its cause.`}`
      : "";
  return {
    against: "value",
    known: stated,
    allowedPercent: tolerance?.percent ?? null,
    errorPercent: percentError(found.value, stated.value, rules.percentError),
    recoveryPercent: recovery,
    within,
    decision,
    text: msg`${judged}${recovered}`,
  };
}
