import type { ReadingRules } from "../measure";
import type { ObservationKind } from "../record";
import { type Phrase } from "../text";

/** One thing to read, in the order of the work. */
export interface Field {
  readonly symbol: string;
  readonly kind: ObservationKind;
  readonly label: Phrase;
  /** What it is called where the label of its input stands before it. */
  readonly short?: Phrase;
  readonly unit: string;
  /** How to read it, in a few words. */
  readonly hint: Phrase;
  readonly rules: ReadingRules;
  /** True where the stage can do without it. */
  readonly optional?: boolean;
  /** True where its short name stands beside it, with its unit, though the input can do without it. */
  readonly named?: boolean;
  /** True for what nobody types: it comes with a bottle from the shelf. */
  readonly hidden?: boolean;
  /** True for what is read as often as people like: a reading does not replace the one before. */
  readonly many?: boolean;
  /** True for another way to write the same reading. */
  readonly otherWay?: boolean;
  /** What else is asked for once this is read. */
  readonly with?: ObservationKind;
  /** True for what is written when it happens, beside the row of readings, and not asked for in turn. */
  readonly outOfTurn?: boolean;
}

/** What a field depends on in the stage that it is read in. */
export interface InputSetting {
  readonly meniscus: "bottom" | "top";
  /** True where flasks make a series of standards: one of them may hold none of the stock. */
  readonly series: boolean;
  /** What the flask's temperature is read for, where the method asks for one. */
  readonly hotFlask: string | null;
}

/** Units of what earlier stages found, by their key. */
export interface EarlierUnits {
  readonly ofResult: (stage: string, symbol: string | undefined) => string;
  /** Unit of the amounts along a calibration's axis. */
  readonly ofAxis: (stage: string) => string;
}
