import type { Input } from "../inputs";
import type { AcceptanceDefinition, ComputedStage } from "../method";
import type { HeldAgainst } from "./held-against-schema";

/* What the result of a stage is held against in a run, beside what its method says. */

export type { HeldAgainst };

/** By this symbol a stage states what its result is held against, where its method has none of its own. */
const ownSymbol = "ref";

const acceptOf = (stage: ComputedStage): AcceptanceDefinition | undefined =>
  "accept" in stage ? stage.accept : undefined;

/** The symbol by which what a stage is held against is stated. */
export const heldSymbol = (stage: ComputedStage): string => acceptOf(stage)?.symbol ?? ownSymbol;

/** What a result is held against now; null for nothing. */
export function heldNow(stage: ComputedStage): HeldAgainst | null {
  const accept = acceptOf(stage);
  if (!accept) return null;
  const label = stage.inputs.find(({ symbol }) => symbol === accept.symbol)?.label ?? accept.symbol;
  if (accept.against === "limit") return { against: "limit", label, bound: accept.bound };
  const { tolerancePercent, toleranceAbsolute } = accept;
  return toleranceAbsolute === undefined
    ? { against: "value", label, tolerance: tolerancePercent?.toString() ?? "", in: "percent" }
    : { against: "value", label, tolerance: String(toleranceAbsolute), in: "unit" };
}

function acceptanceOf(stage: ComputedStage, held: HeldAgainst): AcceptanceDefinition {
  const symbol = heldSymbol(stage);
  if (held.against === "limit") return { against: "limit", symbol, bound: held.bound };
  const { tolerance } = held;
  const own = acceptOf(stage);
  return {
    ...{ against: "value", symbol, whenOff: own?.against === "value" ? own.whenOff : "tell" },
    ...(tolerance === ""
      ? {}
      : held.in === "unit"
        ? { toleranceAbsolute: Number(tolerance) }
        : { tolerancePercent: Number(tolerance) }),
  };
}

/**
 * A stage whose result is held against what was chosen, with an input by which that is stated. Only for kinds of stage that are
 * judged so (`StageAllows.holds`): the change refuses the others.
 */
export function heldStage(stage: ComputedStage, held: HeldAgainst): ComputedStage {
  const accept = acceptanceOf(stage, held);
  const stated: Input = {
    ...{ is: "given", symbol: accept.symbol, label: held.label, per: "run" },
    ...{ unit: stage.result.unit, optional: true },
  };
  const inputs = acceptOf(stage)
    ? stage.inputs.map((input) => (input.symbol === accept.symbol ? { ...input, label: held.label } : input))
    : [...stage.inputs, stated];
  return { ...stage, accept, inputs } as ComputedStage;
}
