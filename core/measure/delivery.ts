import { dropMl } from "./volume";

/** Divisions of measuring cylinders and graduated pipettes by capacity, mL; half of one can be judged. From memory. */
const divisionsMl: Record<
  "graduated pipette" | "cylinder",
  readonly (readonly [capacityMl: number, divisionMl: number])[]
> = {
  "graduated pipette": [
    [1, 0.01],
    [2, 0.02],
    [5, 0.05],
    [10, 0.1],
    [25, 0.2],
  ],
  cylinder: [
    [10, 0.2],
    [25, 0.5],
    [50, 1],
    [100, 1],
    [250, 2],
    [500, 5],
    [1000, 10],
  ],
};

export interface BuretteRules {
  readonly capacityMl: number;
  /** The step to which it is read, mL. */
  readonly resolutionMl: string | number;
  /** A drop of its tip, mL; the usual one where nothing is said. */
  readonly dropMl?: number;
}

/** What delivers a volume. */
export type Delivering =
  | { readonly kind: "pipette" }
  | { readonly kind: "burette" }
  | { readonly kind: "graduated pipette" | "cylinder"; readonly capacityMl: number };

/** Smallest step in mL by which a glass can deliver; null for a one-mark pipette, which has one volume only. */
export function deliveryStepMl(glass: Delivering, burette: BuretteRules): number | null {
  if (glass.kind === "pipette") return null;
  if (glass.kind === "burette") return Math.max(burette.dropMl ?? dropMl, Number(burette.resolutionMl));
  const table = divisionsMl[glass.kind];
  return (table.find(([size]) => size >= glass.capacityMl) ?? table.at(-1) ?? [0, 1])[1] / 2;
}
