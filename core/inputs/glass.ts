import type { Static } from "@sinclair/typebox";
import {
  type CalibratedVolume,
  type Check,
  glasswareTolerance,
  pipettedBy,
  type MeasuredAt,
  sizesMl,
  type VolumeConditions,
} from "../measure";
import { exact } from "../quantity";
import type { HouseRules } from "../rules";
import type { Field, InputSetting } from "./field";
import type { Read, ReadText, Texts, Typed } from "./kind";
import type { Piece as PieceSchema } from "./parts";
import { msg, type Phrase } from "../text";

/* What volumes taken with glass have in common. */

export function volumeConditions({ glassware, temperature }: HouseRules): VolumeConditions {
  return {
    toleranceClass: glassware.toleranceClass,
    toleranceShape: glassware.toleranceShape,
    roomC: Number(temperature.labC),
    temperatureHalfRangeC: Number(temperature.halfRangeC),
    temperatureShape: temperature.shape,
  };
}

/** A piece of glass that an input names, beside those of the house. */
export type Piece = Static<ReturnType<typeof PieceSchema>>;

export interface OfPiece {
  readonly piece?: Piece;
  readonly presumed: string;
}

/** Class of the glass that is used. */
export const classOf = ({ piece }: Pick<OfPiece, "piece">, { glassware }: HouseRules) =>
  piece?.toleranceClass ?? glassware.toleranceClass;

export const conditionsOf = (input: Pick<OfPiece, "piece">, rules: HouseRules): VolumeConditions => ({
  ...volumeConditions(rules),
  toleranceClass: classOf(input, rules),
});

/** What the piece was found to deliver or hold; null where nobody did, and where a piece of another size was taken. */
export function calibratedOf({ piece, presumed }: OfPiece, takenMl: number): CalibratedVolume | null {
  if (!piece?.calibrated || Math.abs(takenMl - Number(presumed)) > 1e-9) return null;
  const { volumeMl, plusMinusMl } = piece.calibrated;
  return { volumeMl: Number(volumeMl), plusMinusMl: Number(plusMinusMl) };
}

/** "class A pipette"; "pipette, calibrated: 24.985 mL" */
export function pieceHint(input: OfPiece, rules: HouseRules, noun: Phrase): Phrase {
  const own = input.piece?.calibrated;
  return own ? msg`${noun}, calibrated: ${own.volumeMl} mL` : msg`class ${classOf(input, rules)} ${noun}`;
}

/** Decimals that its volume is written with: those of its calibration where it has one. */
export const pieceDecimals = ({ piece }: OfPiece, usual: number): number =>
  Math.max(usual, piece?.calibrated?.volumeMl.split(".")[1]?.length ?? 0);

export const nothingTaken = exact(0, "mL");

interface Volume {
  readonly symbol: string;
  readonly label: Phrase;
  readonly per: "trial" | "run";
  readonly presumed?: string;
}

/** What was taken, mL; for what is taken once, the method's volume until something else is typed. */
export function volumeTaken({ presumed }: Volume, read: Read, { once }: MeasuredAt): number | null {
  return read("volume.taken") ?? (once && presumed !== undefined ? Number(presumed) : null);
}

export function volumeField(
  { symbol, label, per, presumed }: Volume,
  { series }: InputSetting,
  instrument: Phrase,
  hint: Phrase,
  most: number,
): Field {
  // A flask of a calibration may hold none of the stock: the zero standard.
  const least = series && per === "trial" ? { least: 0 } : { aboveZero: true };
  return {
    ...(per === "run" && presumed !== undefined ? { optional: true } : {}),
    symbol,
    kind: "volume.taken",
    label,
    unit: "mL",
    hint,
    rules: { instrument, unit: "mL", decimals: null, ...least, most },
  };
}

/** The size of standard glass nearest to a volume, written as that was. */
function nearestSize(kind: "pipette" | "flask", text: string): string {
  const value = Number(text);
  const [nearest = value] = [...sizesMl(kind)].sort((a, b) => Math.abs(a - value) - Math.abs(b - value));
  return nearest.toFixed(text.split(".")[1]?.length ?? 0);
}

const caution = { severity: "caution", kind: "glass" } as const;

/** A volume that no volumetric flask has: what was probably meant, and how it is counted. */
export function flaskChecks({ kind, value, text, rules }: Typed): Check[] {
  if (kind !== "volume.taken" || !(value > 0)) return [];
  const { standardSize, capacityMl } = glasswareTolerance("flask", value, rules.glassware.toleranceClass);
  if (standardSize) return [];
  const proposal = nearestSize("flask", text);
  const message = msg`No volumetric flask holds ${text} mL: is ${proposal} meant? Kept, it has the tolerance of a ${capacityMl} mL flask.`;
  return [{ ...caution, proposal, message }];
}

/** A volume that no one-mark pipette has: what was probably taken, how else it can be measured, and how it is counted. */
export function pipetteChecks({ kind, value, text }: Typed): Check[] {
  if (kind !== "volume.taken" || !(value > 0)) return [];
  const by = pipettedBy(value);
  if ("pipettes" in by) {
    const [larger = 0, smaller] = by.pipettes;
    if (smaller === undefined) return [];
    return [
      {
        ...caution,
        message: msg`No pipette holds ${text} mL: was it taken with two, ${larger} and ${smaller} mL?`,
      },
    ];
  }
  const proposal = nearestSize("pipette", text);
  const glass = by.kind === "cylinder" ? msg`measuring cylinder` : msg`graduated pipette`;
  const message = msg`No one-mark pipette holds ${text} mL: is ${proposal} meant? A burette, a graduated pipette or a cylinder measures it; kept, it has the tolerance of a ${by.capacityMl} mL ${glass}.`;
  return [{ ...caution, proposal, message }];
}

/** The volume of the trial before, else the method's. */
export const proposedVolume = (
  { per, presumed }: Pick<Volume, "per" | "presumed">,
  before: ReadText,
): Texts => {
  const text = (per === "trial" ? before("volume.taken") : null) ?? presumed;
  return text === undefined ? {} : { "volume.taken": text };
};
