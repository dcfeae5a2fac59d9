export type ToleranceClass = "A" | "B";
export type GlasswareKind = "burette" | "pipette" | "graduated pipette" | "flask" | "cylinder";

/**
 * Class A limits of error in mL by nominal capacity in mL. Sources: burettes ISO 385, one-mark pipettes ISO 648,
 * graduated pipettes ISO 835, volumetric flasks ISO 1042, measuring cylinders ISO 4788 (all from memory).
 */
// prettier-ignore
const classA: Record<GlasswareKind, readonly (readonly [capacityMl: number, toleranceMl: number])[]> = {
  burette: [[10, 0.02], [25, 0.03], [50, 0.05], [100, 0.1]],
  pipette: [
    [1, 0.008], [2, 0.01], [5, 0.015], [10, 0.02], [20, 0.03], [25, 0.03], [50, 0.05], [100, 0.08], [200, 0.1],
  ],
  "graduated pipette": [[1, 0.007], [2, 0.01], [5, 0.03], [10, 0.05], [25, 0.1]],
  flask: [
    [10, 0.025], [25, 0.04], [50, 0.06], [100, 0.1], [200, 0.15], [250, 0.15], [500, 0.25], [1000, 0.4],
  ],
  cylinder: [[10, 0.1], [25, 0.25], [50, 0.5], [100, 0.5], [250, 1], [500, 2.5], [1000, 5]],
};

export interface GlasswareTolerance {
  /** Capacity of the piece whose tolerance is used. */
  readonly capacityMl: number;
  readonly toleranceMl: number;
  /** True when the standard has a piece of just this capacity. */
  readonly standardSize: boolean;
}

/**
 * Limits of error of a piece of glassware. Class B is twice class A. Where no standard piece has this capacity, the next
 * larger one's tolerance is taken (the largest one's, scaled up, beyond the table), and `standardSize` is false.
 */
export function glasswareTolerance(
  kind: GlasswareKind,
  capacityMl: number,
  quality: ToleranceClass,
): GlasswareTolerance {
  const table = classA[kind];
  if (!(capacityMl > 0)) return { capacityMl: 0, toleranceMl: 0, standardSize: false };
  const found = table.find(([size]) => size >= capacityMl - 1e-9) ?? table.at(-1) ?? [capacityMl, 0];
  const scale = (quality === "B" ? 2 : 1) * Math.max(1, capacityMl / found[0]);
  return {
    capacityMl: found[0],
    toleranceMl: found[1] * scale,
    standardSize: Math.abs(found[0] - capacityMl) < 1e-9,
  };
}

/** Capacities that pieces of a kind are made in, mL. */
export const sizesMl = (kind: GlasswareKind): number[] => classA[kind].map(([size]) => size);

export const buretteSizesMl = sizesMl("burette");
