import { seriesOf } from "../../inputs";
import type { CalibrationEvaluation } from "../shared/evaluation";
import { type CalibrationStage, inputOf } from "../../method";
import type { ObservationKind } from "../../record";
import { withUnit } from "../../quantity";
import { msg, type Phrase, uncapitalized } from "../../text";

const seriesInput = (definition: CalibrationStage) => inputOf(definition, definition.series.symbol);

const typedAs = (definition: CalibrationStage) => {
  const input = seriesInput(definition);
  return input ? seriesOf(input) : ({ kind: "volume.taken", unit: "mL" } as const);
};

/** Kind of the observation that the amounts of a series are typed as. */
export const seriesKind = (definition: CalibrationStage): ObservationKind => typedAs(definition).kind;

/** Unit that the amounts of a series are typed in; empty for a plain number. */
export const seriesUnit = (definition: CalibrationStage): string => typedAs(definition).unit;

/** An amount of the series with its unit, or with what it counts: "4.00 mL", "5 (drops of the stock)". */
export function seriesWords(definition: CalibrationStage, value: string): Phrase {
  const unit = seriesUnit(definition);
  return unit === ""
    ? msg`${value} (${uncapitalized(seriesInput(definition)?.label ?? "")})`
    : withUnit(value, unit);
}

/** What goes into the light next. */
export type NextCuvette =
  | { readonly what: "blank" }
  | { readonly what: "flask"; readonly id: string }
  | { readonly what: "ahead"; readonly value: string }
  | { readonly what: "another" };

type Standing = Pick<CalibrationEvaluation, "definition" | "levels" | "ahead" | "blanks">;

/**
 * The blank first; then a flask that was begun and not read; then those still to be made, from dilute to strong; then, for
 * whoever reads, the flask that this person has read least.
 */
export function nextCuvette({ definition, levels, ahead, blanks }: Standing, person?: string): NextCuvette {
  const hasBlank = definition.inputs.some((i) => i.is === "blank");
  if (hasBlank && blanks.length === 0 && levels.every((l) => l.readings.length === 0))
    return { what: "blank" };
  const standing = levels.filter((l) => !l.record.struck);
  const begun = standing.find((l) => l.readings.length === 0);
  if (begun) return { what: "flask", id: begun.id };
  const [value] = ahead;
  if (value !== undefined) return { what: "ahead", value };
  const times = (l: (typeof standing)[number]) => l.readings.filter((r) => r.person === person).length;
  const least = standing.reduce<(typeof standing)[number] | null>(
    (found, l) => (found === null || times(l) < times(found) ? l : found),
    null,
  );
  return least && person !== undefined ? { what: "flask", id: least.id } : { what: "another" };
}
