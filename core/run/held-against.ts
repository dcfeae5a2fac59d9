import type { Input } from "../inputs";
import type { AcceptanceDefinition, ComputedStage } from "../method";
import type { HeldAgainst } from "./held-against-schema";

/* What the result of a stage is held against in a run, beside what its method says. */

export type { HeldAgainst };

/** By this symbol a stage states what its result is held against, where its method has none of its own. */
const ownSymbol = "ref";

/** Stages whose result can be held against something. */
export type Holdable = Extract<ComputedStage, { kind: "titration" | "unknown" }>;
export const isHoldable = (stage: ComputedStage): stage is Holdable =>
  stage.kind === "titration" || stage.kind === "unknown";

/** The symbol by which what a stage is held against is stated. */
export const heldSymbol = (stage: Holdable): string => stage.accept?.symbol ?? ownSymbol;

/** What a result is held against now; null for nothing. */
export function heldNow({ accept, inputs }: Holdable): HeldAgainst | null {
  if (!accept) return null;
  const label = inputs.find(({ symbol }) => symbol === accept.symbol)?.label ?? accept.symbol;
  if (accept.against === "limit") return { against: "limit", label, bound: accept.bound };
  const { tolerancePercent, toleranceAbsolute } = accept;
  return toleranceAbsolute === undefined
    ? { against: "value", label, tolerance: tolerancePercent?.toString() ?? "", in: "percent" }
    : { against: "value", label, tolerance: String(toleranceAbsolute), in: "unit" };
}

function acceptanceOf(stage: Holdable, held: HeldAgainst): AcceptanceDefinition {
  const symbol = heldSymbol(stage);
  if (held.against === "limit") return { against: "limit", symbol, bound: held.bound };
  const { tolerance } = held;
  const own = stage.accept?.against === "value" ? stage.accept.whenOff : "tell";
  return {
    ...{ against: "value", symbol, whenOff: own },
    ...(tolerance === ""
      ? {}
      : held.in === "unit"
        ? { toleranceAbsolute: Number(tolerance) }
        : { tolerancePercent: Number(tolerance) }),
  };
}

/** A stage whose result is held against what was chosen, with an input by which that is stated. */
export function heldStage(stage: ComputedStage, held: HeldAgainst): ComputedStage {
  if (!isHoldable(stage)) return stage;
  const accept = acceptanceOf(stage, held);
  const stated: Input = {
    ...{ is: "given", symbol: accept.symbol, label: held.label, per: "run" },
    ...{ unit: stage.result.unit, optional: true },
  };
  const inputs = stage.accept
    ? stage.inputs.map((input) => (input.symbol === accept.symbol ? { ...input, label: held.label } : input))
    : [...stage.inputs, stated];
  return { ...stage, accept, inputs };
}
