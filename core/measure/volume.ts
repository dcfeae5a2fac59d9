import { divide, leaf, type Leaf, measured, type Quantity, type Sensitivity } from "../quantity";
import { leafShape, type Shape, uncertaintyFromHalfWidth } from "./distribution";
import { type GlasswareKind, glasswareTolerance, sizesMl, type ToleranceClass } from "./glassware";
import { msg, type Phrase, uncapitalized } from "../text";

/** About 20 drops to the mL: a burette cannot stop between two drops. Common practice, no source. */
export const dropMl = 0.05;

/** Volume expansion of water near 20 °C, per °C (QUAM, example A1). */
export const waterExpansionPerC = 2.1e-4;

/** What is known of the glass, the balance and the room, in plain numbers: from the house rules. */
export interface VolumeConditions {
  readonly toleranceClass: ToleranceClass;
  readonly toleranceShape: Shape;
  /** What the room is kept at, °C. */
  readonly roomC: number;
  /** It stays within this of that, °C. */
  readonly temperatureHalfRangeC: number;
  readonly temperatureShape: Shape;
}

/** The stage and, for what scatters, the trial that the leaves belong to. */
export interface MeasuredAt {
  readonly stage: string;
  readonly trial: string;
  /** True for what is read once for all trials of the stage: its scatter does not show between them. */
  readonly once?: boolean;
}

/** The temperature at which glass is right, °C, and for which concentrations are stated. */
export const glassC = 20;

/**
 * What a volume read at the room's temperature is at 20 °C, as a part of it: 1 - 2.1e-4 (T - 20) (QUAM, example A1; the glass's
 * own expansion, a tenth of that, is left out). Volumes corrected so go with concentrations at 20 °C, and give such.
 */
export const volumeFactor = ({ roomC }: Pick<VolumeConditions, "roomC">): number =>
  1 - waterExpansionPerC * (roomC - glassC);

/** A volume that was read, as it is at 20 °C; all its causes are in milliliters as read. */
function volumeAt20(
  volumeMl: number,
  conditions: VolumeConditions,
  stage: string,
  causes: readonly Sensitivity[],
): Quantity {
  const factor = volumeFactor(conditions);
  const all = [...causes, temperatureSensitivity(volumeMl, stage, conditions)];
  return measured(
    volumeMl * factor,
    "mL",
    all.map(({ leaf, by }) => ({ leaf, by: by * factor })),
  );
}

/**
 * How far the room strays from its temperature: one cause for all volumes of a stage, so that it cancels in a ratio of volumes.
 * The effect on a volume V is V·2.1e-4 per °C (QUAM, example A2, step 3).
 */
function temperatureSensitivity(volumeMl: number, stage: string, conditions: VolumeConditions): Sensitivity {
  return {
    leaf: leaf({
      id: `temperature:${stage}`,
      kind: "temperature",
      label: msg`Room within ${conditions.temperatureHalfRangeC} °C of ${conditions.roomC} °C`,
      group: msg`Temperature`,
      shape: leafShape(conditions.temperatureShape),
      u: uncertaintyFromHalfWidth(conditions.temperatureHalfRangeC, conditions.temperatureShape),
      stage,
    }),
    by: -volumeMl * waterExpansionPerC,
  };
}

function toleranceLeaf(
  cause: Pick<Leaf, "id" | "kind" | "label" | "symbol">,
  toleranceMl: number,
  stage: string,
  shape: Shape,
) {
  const u = uncertaintyFromHalfWidth(toleranceMl, shape);
  return leaf({ ...cause, group: cause.label, shape: leafShape(shape), u, stage });
}

export interface BuretteReadings extends MeasuredAt {
  readonly initialMl: number;
  readonly finalMl: number;
  readonly capacityMl: number;
  /** A reading lies within ± this of the truth. */
  readonly readingHalfWidthMl: number;
  /** Tells this burette from another of the same stage, as the one that delivers the sample. */
  readonly symbol?: string;
}

/**
 * A volume from a burette in mL: final minus initial reading. The burette's tolerance is one cause for all trials of a
 * stage, and both readings of a trial share it; across stages it is taken anew, since another stretch of the scale may be
 * used (as QUAM, example A3, does). Each reading is a cause of its own.
 */
export function buretteVolume(readings: BuretteReadings, conditions: VolumeConditions): Quantity {
  const { initialMl, finalMl, capacityMl, readingHalfWidthMl, stage, trial, once, symbol } = readings;
  const volumeMl = finalMl - initialMl;
  const { toleranceMl } = glasswareTolerance("burette", capacityMl, conditions.toleranceClass);
  const which = symbol === undefined ? "" : ` (${symbol})`;
  const label = msg`Burette, ${capacityMl} mL class ${conditions.toleranceClass}${which}`;
  const reading = (end: "initial" | "final", by: number): Sensitivity => ({
    leaf: leaf({
      id: `burette-reading:${trial}:${end}${which}`,
      kind: "burette-reading",
      label: msg`${end === "initial" ? msg`Initial` : msg`Final`} burette reading${which}`,
      group: msg`Burette readings`,
      shape: "triangular",
      u: uncertaintyFromHalfWidth(readingHalfWidthMl, "triangular"),
      random: !once,
      stage,
    }),
    by,
  });
  const id = `burette:${stage}${which}`;
  return volumeAt20(volumeMl, conditions, stage, [
    {
      leaf: toleranceLeaf(
        { id, label, kind: "burette", ...(symbol === undefined ? {} : { symbol }) },
        toleranceMl,
        stage,
        conditions.toleranceShape,
      ),
      by: 1,
    },
    reading("initial", -1),
    reading("final", 1),
  ]);
}

/**
 * A volume that was not read but found between readings, as an equivalence point on a curve, mL from the initial reading: the burette's
 * tolerance and the initial reading are those of the trial, and how well it was found is `found` (standard uncertainty, mL).
 */
export function foundVolume(
  {
    volumeMl,
    found,
    ...burette
  }: Omit<BuretteReadings, "initialMl" | "finalMl"> & {
    readonly volumeMl: number;
    readonly found: Leaf;
  },
  conditions: VolumeConditions,
): Quantity {
  const { capacityMl, readingHalfWidthMl, stage, trial } = burette;
  const { toleranceMl } = glasswareTolerance("burette", capacityMl, conditions.toleranceClass);
  const label = msg`Burette, ${capacityMl} mL class ${conditions.toleranceClass}`;
  const initial = leaf({
    id: `burette-reading:${trial}:initial`,
    kind: "burette-reading",
    label: msg`Initial burette reading`,
    group: msg`Burette readings`,
    shape: "triangular",
    u: uncertaintyFromHalfWidth(readingHalfWidthMl, "triangular"),
    random: true,
    stage,
  });
  const id = `burette:${stage}`;
  return volumeAt20(volumeMl, conditions, stage, [
    {
      leaf: toleranceLeaf({ id, label, kind: "burette" }, toleranceMl, stage, conditions.toleranceShape),
      by: 1,
    },
    { leaf: initial, by: -1 },
    { leaf: found, by: 1 },
  ]);
}

/** How a volume can be taken: by one-mark pipettes of these sizes, or else in graduated glass. */
export type PipettedBy =
  | { readonly pipettes: readonly number[] }
  | { readonly kind: "graduated pipette" | "cylinder"; readonly capacityMl: number };

/** One pipette where one has that size; two that add up to it; else the smallest graduated glass that holds it. */
export function pipettedBy(volumeMl: number): PipettedBy {
  const sizes = sizesMl("pipette");
  const same = (a: number) => Math.abs(a - volumeMl) < 1e-9;
  if (sizes.some(same)) return { pipettes: [volumeMl] };
  for (const larger of [...sizes].reverse()) {
    const smaller = sizes.find((size) => size <= larger && same(size + larger));
    if (smaller !== undefined) return { pipettes: [larger, smaller] };
  }
  const kind = sizesMl("graduated pipette").some((size) => size >= volumeMl)
    ? "graduated pipette"
    : "cylinder";
  const capacityMl = sizesMl(kind).find((size) => size >= volumeMl) ?? Math.max(...sizesMl(kind));
  return { kind, capacityMl };
}

/**
 * A volume by one-mark pipette in mL. The same pipette serves all trials of a stage: its tolerance is one cause and does not
 * average out. `piece` tells another pipette of the same size from it. What no pipette holds is taken as two that add up to
 * it, or with the tolerance of graduated glass. Where its own volume is known, `calibrated`, that counts.
 */
export function pipetteVolume(
  volumeMl: number,
  place: MeasuredAt,
  conditions: VolumeConditions,
  symbol = "V",
  piece: number | null = null,
  calibrated: CalibratedVolume | null = null,
): Quantity {
  const { stage } = place;
  const by = pipettedBy(volumeMl);
  if (!("pipettes" in by)) return graduatedVolume(volumeMl, place, conditions, by, symbol);
  const which = piece === null || piece === 1 ? "" : ` no. ${piece}`;
  return volumeAt20(
    calibrated?.volumeMl ?? volumeMl,
    conditions,
    stage,
    by.pipettes.map((sizeMl) => {
      const { toleranceMl } = glasswareTolerance("pipette", sizeMl, conditions.toleranceClass);
      const label = msg`Pipette, ${sizeMl} mL class ${conditions.toleranceClass}${which}`;
      const leaf = pieceLeaf(
        { id: `pipette:${stage}:${sizeMl}${which}`, kind: "pipette", label },
        toleranceMl,
        calibrated,
        stage,
        conditions.toleranceShape,
      );
      return { leaf, by: 1 };
    }),
  );
}

/** What a one-mark piece of glass was found to deliver or hold, mL: within ± `plusMinusMl`, of the shape of tolerances. */
export interface CalibratedVolume {
  readonly volumeMl: number;
  readonly plusMinusMl: number;
}

/**
 * The cause that a one-mark piece of glass brings: its tolerance, or, where its volume was determined, what is left unknown of that.
 * Determined by weighing water at several fillings, as ISO 4787 does (from memory).
 */
function pieceLeaf(
  { id, kind, label }: { readonly id: string; readonly kind: "pipette" | "flask"; readonly label: Phrase },
  toleranceMl: number,
  calibrated: CalibratedVolume | null,
  stage: string,
  shape: Shape,
) {
  const cause = { id, kind, label: calibrated ? msg`${label}, calibrated` : label };
  return toleranceLeaf(cause, calibrated?.plusMinusMl ?? toleranceMl, stage, shape);
}

/** How closely a mark is met, as a part of the flask's tolerance: 0.02 mL of ±0.10 mL (QUAM, example A1). */
const fillingPart = 0.2;

/**
 * The volume of a one-mark flask in mL: its tolerance, how closely the mark is met, and the room's temperature (QUAM,
 * example A1). Each flask is a piece of its own: `symbol` tells it from others of the stage.
 */
export function flaskVolume(
  volumeMl: number,
  { stage, trial, once }: MeasuredAt,
  conditions: VolumeConditions,
  symbol: string,
  calibrated: CalibratedVolume | null = null,
): Quantity {
  const { toleranceMl, capacityMl } = glasswareTolerance("flask", volumeMl, conditions.toleranceClass);
  const label = msg`Volumetric flask, ${capacityMl} mL class ${conditions.toleranceClass}`;
  const id = `flask:${stage}:${symbol}${once ? "" : `:${trial}`}`;
  const filling = leaf({
    id: `filling:${trial}:${symbol}`,
    kind: "filling",
    symbol,
    label: msg`Filling to the mark (${symbol})`,
    group: msg`Filling to the mark`,
    u: toleranceMl * fillingPart,
    random: !once,
    stage,
  });
  return volumeAt20(calibrated?.volumeMl ?? volumeMl, conditions, stage, [
    {
      leaf: pieceLeaf(
        { id, label, kind: "flask" },
        toleranceMl,
        calibrated,
        stage,
        conditions.toleranceShape,
      ),
      by: 1,
    },
    { leaf: filling, by: 1 },
  ]);
}

/**
 * A volume by graduated pipette or measuring cylinder in mL: the tolerance of the piece at its capacity, one cause for
 * all trials of a stage, and a reading of the scale to half of that tolerance (common practice, no source).
 */
export function graduatedVolume(
  volumeMl: number,
  { stage, trial, once }: MeasuredAt,
  conditions: VolumeConditions,
  glass: {
    readonly kind: Extract<GlasswareKind, "graduated pipette" | "cylinder">;
    readonly capacityMl: number;
  },
  symbol: string,
): Quantity {
  const { toleranceMl, capacityMl } = glasswareTolerance(
    glass.kind,
    glass.capacityMl,
    conditions.toleranceClass,
  );
  const name = glass.kind === "cylinder" ? msg`Measuring cylinder` : msg`Graduated pipette`;
  const label = msg`${name}, ${capacityMl} mL class ${conditions.toleranceClass}`;
  const reading = leaf({
    id: `scale-reading:${trial}:${symbol}`,
    kind: "scale-reading",
    symbol,
    label: msg`Reading of the ${uncapitalized(name)} (${symbol})`,
    group: msg`Reading of graduated glass`,
    shape: "triangular",
    u: uncertaintyFromHalfWidth(toleranceMl / 2, "triangular"),
    random: !once,
    stage,
  });
  const id = `${glass.kind}:${stage}:${symbol}`;
  return volumeAt20(volumeMl, conditions, stage, [
    {
      leaf: toleranceLeaf({ id, label, kind: glass.kind }, toleranceMl, stage, conditions.toleranceShape),
      by: 1,
    },
    { leaf: reading, by: 1 },
  ]);
}

/** A volume counted in drops, mL: n / f with f drops in a milliliter, known within ± `plusMinus` (rectangular). */
export function dropsVolume(
  drops: number,
  perMl: { readonly value: number; readonly plusMinus: number },
  { stage }: MeasuredAt,
  of: string,
): Quantity {
  const factor = leaf({
    id: `drops-per-ml:${of}`,
    kind: "drops",
    label: msg`Drops of ${of} per mL`,
    group: msg`Drop factor`,
    shape: "rectangular",
    u: uncertaintyFromHalfWidth(perMl.plusMinus, "rectangular"),
    stage,
  });
  return measured(drops / perMl.value, "mL", [{ leaf: factor, by: -drops / perMl.value ** 2 }]);
}

/** A volume that was weighed, mL at 20 °C: m / ρ, with the density ρ at 20 °C in g/mL, known within ± `plusMinus` (rectangular). */
export function weighedVolume(
  mass: Quantity,
  density: { readonly value: number; readonly plusMinus: number },
  { stage }: MeasuredAt,
  of: string,
): Quantity {
  const cause = leaf({
    id: `density:${of}`,
    kind: "density",
    label: msg`Density of ${of}`,
    group: msg`Density`,
    shape: "rectangular",
    u: uncertaintyFromHalfWidth(density.plusMinus, "rectangular"),
    stage,
  });
  return divide(mass, measured(density.value, "g/mL", [{ leaf: cause, by: 1 }]));
}

/** A number read or stated once, known within ± `halfWidth` (rectangular) in its unit. */
export function statedQuantity(
  value: number,
  unit: string,
  halfWidth: number,
  cause: Pick<Leaf, "id" | "kind" | "label" | "group">,
  { stage, once }: MeasuredAt,
  random = false,
): Quantity {
  const u = uncertaintyFromHalfWidth(halfWidth, "rectangular");
  return measured(value, unit, [
    { leaf: leaf({ ...cause, shape: "rectangular", u, random: random && !once, stage }), by: 1 },
  ]);
}
