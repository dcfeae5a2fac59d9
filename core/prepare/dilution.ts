import { type BuretteRules, deliveryStepMl, sizesMl } from "../measure";
import { failure, type Result, success } from "../result";
import type { DeliveringGlass } from "./making";
import { msg, type Phrase } from "../text";

const rounded = (value: number, step: number) => Number((Math.round(value / step) * step).toFixed(6));

export interface DilutionRequest {
  /** Concentrations in one unit, whichever. */
  readonly stock: number;
  readonly target: number;
  /** What it is made up to, mL. */
  readonly volumeMl: number;
  readonly glass: DeliveringGlass;
  readonly burette: BuretteRules;
  /** Where the burette stands before, mL. */
  readonly startMl?: number;
}

export interface DilutionPlan {
  /** c V / c_0, mL. */
  readonly exactMl: number;
  /** What the glass can deliver of it. */
  readonly deliveredMl: number;
  /** Where to stop the burette; null for other glass. */
  readonly stopMl: number | null;
  /** The concentration that this makes, in the unit of the target. */
  readonly made: number;
  /** How far that is from the target, percent. */
  readonly departurePercent: number;
  readonly cautions: readonly Phrase[];
}

/**
 * Volume of a stock for a dilution, c_1 V_1 = c_2 V_2, rounded to what the chosen glass delivers, and the concentration
 * that is made by that. Says so, in words for the bench, when the stock is weaker than the target, when more is needed than
 * the glass or the flask holds, and when it is less than the glass can measure.
 */
export function planDilution(request: DilutionRequest): Result<DilutionPlan> {
  const { stock, target, volumeMl, glass, burette, startMl = 0 } = request;
  if (!(stock > 0)) return failure(msg`The concentration of the stock must be above zero`);
  if (!(target > 0)) return failure(msg`The target must be above zero`);
  if (!(volumeMl > 0)) return failure(msg`The volume must be above zero`);
  if (stock < target) {
    return failure(
      msg`The stock is weaker than the target (${stock} against ${target}): take a stronger one`,
    );
  }
  const exactMl = (target * volumeMl) / stock;
  const step = deliveryStepMl(glass, burette);
  const deliveredMl =
    step === null
      ? sizesMl("pipette").reduce((best, size) =>
          Math.abs(size - exactMl) < Math.abs(best - exactMl) ? size : best,
        )
      : rounded(exactMl, step);
  const volume = exactMl.toFixed(exactMl < 1 ? 3 : 2);
  if (deliveredMl <= 0) {
    return failure(
      msg`${volume} mL is less than this glass can measure: make it in two steps, or more of it`,
    );
  }
  if (deliveredMl > volumeMl) {
    return failure(
      msg`${volume} mL of stock do not fit into ${volumeMl} mL: take a smaller pipette or a larger flask`,
    );
  }
  const capacityMl =
    glass.kind === "burette" ? burette.capacityMl : "capacityMl" in glass ? glass.capacityMl : 100;
  if (deliveredMl > capacityMl) {
    return failure(msg`${volume} mL are more than the ${capacityMl} mL ${glass.kind} holds`);
  }
  const stopMl =
    glass.kind === "burette" ? rounded(startMl + deliveredMl, Number(burette.resolutionMl)) : null;
  if (stopMl !== null && stopMl > capacityMl) {
    return failure(
      msg`From ${startMl} it would stop at ${stopMl}, past the last mark at ${capacityMl}: refill first`,
    );
  }
  const made = (stock * deliveredMl) / volumeMl;
  const departurePercent = (100 * (made - target)) / target;
  const cautions: Phrase[] = [];
  if (step !== null && (100 * step) / 2 / deliveredMl > 2) {
    cautions.push(
      msg`Such a small volume is uncertain from its reading alone: ± ${((100 * step) / 2 / deliveredMl).toFixed(0)} %`,
    );
  }
  if (Math.abs(departurePercent) > 2) {
    cautions.push(
      msg`It comes out ${Math.abs(departurePercent).toFixed(1)} % ${departurePercent > 0 ? msg`above` : msg`below`} the target`,
    );
  }
  return success({ exactMl, deliveredMl, stopMl, made, departurePercent, cautions });
}

export interface SeriesLevel {
  readonly target: number;
  readonly plan: Result<DilutionPlan>;
}

/** A series of standards from one stock, each made up to the same volume: one plan a level, in the order of the targets. */
export const planSeries = (
  targets: readonly number[],
  shared: Omit<DilutionRequest, "target">,
): SeriesLevel[] => targets.map((target) => ({ target, plan: planDilution({ ...shared, target }) }));

/** Levels equally far from one another, from the lowest to the highest. */
export const evenLevels = (lowest: number, highest: number, count: number): number[] =>
  Array.from({ length: count }, (_, i) =>
    Number((lowest + ((highest - lowest) * i) / Math.max(1, count - 1)).toPrecision(6)),
  );

/** How a burette stands before and after one of several deliveries, and whether it was filled again before it. */
export interface BurettePass {
  readonly fromMl: number;
  readonly toMl: number;
  readonly refill: boolean;
}

/**
 * Readings of a burette that delivers one volume after another: each begins where the one before ended, and it is filled
 * again to the start before a volume that would run past the last mark. Null for a volume that it can never hold.
 */
export function burettePasses(
  volumesMl: readonly number[],
  { capacityMl, resolutionMl }: BuretteRules,
  startMl = 0,
): (BurettePass | null)[] {
  let at = startMl;
  return volumesMl.map((volume) => {
    if (startMl + volume > capacityMl + 1e-9) return null;
    const refill = at + volume > capacityMl + 1e-9;
    const fromMl = rounded(refill ? startMl : at, Number(resolutionMl));
    at = rounded(fromMl + volume, Number(resolutionMl));
    return { fromMl, toMl: at, refill };
  });
}
