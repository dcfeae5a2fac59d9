import type { Input } from "../inputs";
import type { AcceptanceDefinition, ComputedStage, FurtherResultDefinition } from "../method";
import type { HeldAgainst } from "./held-against-schema";
import type { RunRecord } from "./run-record";

/* What the result of a stage is held against in a run, beside what its method says. */

export type { HeldAgainst };

/** By this symbol a stage states what its result is held against, where its method has none of its own. */
const ownSymbol = "ref";

const acceptOf = (stage: ComputedStage): AcceptanceDefinition | undefined => stage.accept;

/** The symbol by which what a stage is held against is stated: one for each result, since they have units of their own. */
export const heldSymbol = (stage: ComputedStage, result?: string): string =>
  acceptOf(stage)?.symbol ?? (result === undefined ? ownSymbol : `${ownSymbol}_${result}`);

/** Symbol of the further result that a run asks for of a stage; undefined for the method's own. */
export function resultAskedFor(
  { choices = [] }: Pick<RunRecord, "choices">,
  stageKey: string,
): string | undefined {
  for (const choice of choices)
    if (choice.stageKey === stageKey && "heldAgainst" in choice) return choice.heldAgainst.result;
  return undefined;
}

/**
 * The results of a stage that can be asked for, the main one first. One that goes to a bottle stays the main one; one that is told under
 * a condition alone is none.
 */
export const askable = ({ result, also = [] }: ComputedStage): readonly FurtherResultDefinition[] =>
  result.assigns === undefined ? [result, ...also.filter(({ when }) => when === undefined)] : [result];

/** A stage whose main result is one of its further ones. What is presumed, or expected by an earlier stage, is another quantity: it is left out. */
function asking(stage: ComputedStage, symbol: string | undefined): ComputedStage {
  const { result, also = [] } = stage;
  const [main] = askable(stage).filter((one) => one.symbol === symbol && one !== result);
  if (!main) return stage;
  const others = also.filter((one) => one !== main);
  const asked = { ...stage, result: main, also: [result, ...others] };
  if (asked.kind !== "titration") return asked;
  const { presumed: _presumed, expectedFrom: _expectedFrom, ...rest } = asked;
  return rest;
}

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
  const symbol = heldSymbol(stage, held.result);
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
export function heldStage(method: ComputedStage, held: HeldAgainst): ComputedStage {
  const stage = acceptOf(method) ? method : asking(method, held.result);
  const accept = acceptanceOf(stage, held);
  const stated: Input = {
    ...{ is: "given", symbol: accept.symbol, label: held.label, per: "run" },
    ...{ unit: stage.result.unit, optional: true },
  };
  const inputs = acceptOf(stage)
    ? stage.inputs.map((input) => (input.symbol === accept.symbol ? { ...input, label: held.label } : input))
    : [...stage.inputs, stated];
  return { ...stage, accept, inputs };
}
