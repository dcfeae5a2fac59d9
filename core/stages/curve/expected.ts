import { perOf, type CurveStage } from "../../method";
import { unitOf } from "../../quantity";
import type { TrialRecord } from "../../record";
import type { CompiledStage } from "../compiled";
import type { CurveEvaluation, ExpectedEnds } from "../shared/evaluation";
import type { StageContext } from "../shared/stage";
import { type KnownQuantities, readHolder } from "../shared/trial";
import { endsFor } from "./ends";

/**
 * Where the jumps of a curve are to be expected, by the last curve before it that has a result, else by the result that the method presumes: as
 * far as what was taken this time gives the same result. Nothing while what is taken is not typed yet.
 */
export function expectedEnds(
  record: TrialRecord,
  stage: CompiledStage<CurveStage>,
  shared: KnownQuantities,
  { method, rules }: StageContext,
  before: readonly CurveEvaluation[],
): ExpectedEnds {
  const last = before.findLast((t) => t.result && !t.record.struck && t.next.do === "stop") ?? null;
  const by = last ? "curve" : "theory";
  const nothing = { by, ml: [] } as const;
  if (shared.suspended !== undefined) return nothing;
  const { definition } = stage;
  const place = { stage: definition.key, trial: record.id };
  const at = { method: method.method, rules, place };
  const { known } = readHolder(definition, record.observations, shared, at);
  const own = definition.inputs.filter((input) => perOf(input) === "trial" && input.is !== "curve");
  if (own.some(({ symbol }) => !known.quantities.has(symbol) && (last?.symbols.has(symbol) ?? true)))
    return nothing;
  const volumes = last?.ends.map(({ taken }) => taken?.volume ?? NaN) ?? [];
  const largest = Math.max(...volumes);
  const ends = endsFor(stage, {
    known: new Map([...known.quantities].map(([symbol, q]) => [symbol, q.value])),
    target: last?.result?.value ?? definition.presumed * unitOf(definition.result.unit).factor,
    stoichiometry: method.stoichiometry,
    ...(last ? { parts: volumes.map((ml) => ml / largest) } : {}),
  });
  return { by, ml: ends ? [...new Set(ends)].toSorted((a, b) => a - b) : [] };
}
