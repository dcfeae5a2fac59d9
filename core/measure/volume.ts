import { leaf, measured, type Quantity, type Sensitivity } from "../quantity";
import { type Shape, uncertaintyFromHalfWidth } from "./distribution";
import { glasswareTolerance, type ToleranceClass } from "./glassware";

/** Volume expansion of water near 20 °C, per °C (QUAM, example A1). */
export const waterExpansionPerC = 2.1e-4;

/** What is known of the glass, the balance and the room, in plain numbers: from the house rules. */
export interface VolumeConditions {
  readonly toleranceClass: ToleranceClass;
  readonly toleranceShape: Shape;
  /** The room stays within this of 20 °C. */
  readonly temperatureHalfRangeC: number;
  readonly temperatureShape: Shape;
}

/** The stage and, for what scatters, the trial that the leaves belong to. */
export interface Place {
  readonly stage: string;
  readonly trial: string;
}

/**
 * The room's departure from 20 °C: one cause for all volumes of a stage, so that it cancels in a ratio of volumes.
 * The effect on a volume V is V·2.1e-4 per °C (QUAM, example A2, step 3).
 */
function temperatureSensitivity(volumeMl: number, stage: string, conditions: VolumeConditions): Sensitivity {
  return {
    leaf: leaf({
      id: `temperature:${stage}`,
      label: `Room within ${conditions.temperatureHalfRangeC} °C of 20 °C`,
      group: "Temperature",
      u: uncertaintyFromHalfWidth(conditions.temperatureHalfRangeC, conditions.temperatureShape),
      stage,
    }),
    by: volumeMl * waterExpansionPerC,
  };
}

function toleranceLeaf(id: string, label: string, toleranceMl: number, stage: string, shape: Shape) {
  return leaf({ id, label, group: label, u: uncertaintyFromHalfWidth(toleranceMl, shape), stage });
}

export interface BuretteReadings extends Place {
  readonly initialMl: number;
  readonly finalMl: number;
  readonly capacityMl: number;
  /** A reading lies within ± this of the truth. */
  readonly readingHalfWidthMl: number;
}

/**
 * A titer in mL: final minus initial reading. The burette's tolerance is one cause for all trials of a stage; across
 * stages it is taken anew, since another stretch of the scale may be used (as QUAM, example A3, does). Each reading
 * is a cause of its own. The volume may not be zero.
 */
export function buretteVolume(readings: BuretteReadings, conditions: VolumeConditions): Quantity {
  const { initialMl, finalMl, capacityMl, readingHalfWidthMl, stage, trial } = readings;
  const volumeMl = finalMl - initialMl;
  const { toleranceMl } = glasswareTolerance("burette", capacityMl, conditions.toleranceClass);
  const label = `Burette, ${capacityMl} mL class ${conditions.toleranceClass}`;
  const reading = (which: "initial" | "final", by: number): Sensitivity => ({
    leaf: leaf({
      id: `burette-reading:${trial}:${which}`,
      label: `${which === "initial" ? "Initial" : "Final"} burette reading`,
      group: "Burette readings",
      u: uncertaintyFromHalfWidth(readingHalfWidthMl, "triangular"),
      random: true,
      stage,
    }),
    by,
  });
  return measured(volumeMl, "mL", [
    { leaf: toleranceLeaf(`burette:${stage}`, label, toleranceMl, stage, conditions.toleranceShape), by: 1 },
    temperatureSensitivity(volumeMl, stage, conditions),
    reading("initial", -1),
    reading("final", 1),
  ]);
}

/**
 * A volume by one-mark pipette in mL. The same pipette serves all trials of a stage: its tolerance is one cause and does
 * not average out.
 */
export function pipetteVolume(volumeMl: number, { stage }: Place, conditions: VolumeConditions): Quantity {
  const { toleranceMl, capacityMl } = glasswareTolerance("pipette", volumeMl, conditions.toleranceClass);
  const label = `Pipette, ${capacityMl} mL class ${conditions.toleranceClass}`;
  const id = `pipette:${stage}:${capacityMl}`;
  return measured(volumeMl, "mL", [
    { leaf: toleranceLeaf(id, label, toleranceMl, stage, conditions.toleranceShape), by: 1 },
    temperatureSensitivity(volumeMl, stage, conditions),
  ]);
}
