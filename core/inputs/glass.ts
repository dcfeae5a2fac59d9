import type { Place, VolumeConditions } from "../measure";
import { exact } from "../quantity";
import type { HouseRules } from "../rules";
import type { Field, InputSetting } from "./field";
import type { Read } from "./kind";

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

export const nothingTaken = exact(0, "mL");

interface Volume {
  readonly symbol: string;
  readonly label: string;
  readonly per: "trial" | "run";
  readonly presumed?: string;
}

/** What was taken, mL; for what is taken once, the method's volume until something else is typed. */
export function volumeTaken({ presumed }: Volume, read: Read, { once }: Place): number | null {
  return read("volume.taken") ?? (once && presumed !== undefined ? Number(presumed) : null);
}

export function volumeField(
  { symbol, label, per, presumed }: Volume,
  { series }: InputSetting,
  instrument: string,
  hint: string,
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
