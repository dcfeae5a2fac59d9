import { differenceOf, type Input, legsOf, quotientOf, takenOver } from "~/core/inputs";
import type { ObservationKind } from "~/core/record";
import type { FieldState } from "~/core/stages";
import { inEnglish } from "~/core/text";

/** One reading of an input, as it was typed. */
export interface SheetReading {
  readonly kind: ObservationKind;
  readonly label: string;
  readonly unit: string;
  readonly value: number;
  readonly decimals: number;
}

/** How the value of an input follows from its readings, before corrections that multiply it. */
interface FromReadings {
  readonly readings: readonly SheetReading[];
  /** Over addresses of the readings. */
  readonly formula: (at: (kind: ObservationKind) => string) => string;
  readonly value: number;
}

const decimalsOf = (text: string): number => /\.(\d+)$/.exec(text)?.[1]?.length ?? 0;

function readingsOf(input: Input, fields: readonly FieldState[]): readonly SheetReading[] {
  return fields.flatMap(({ field, present }) =>
    field.symbol === input.symbol && present?.value != null
      ? [
          {
            ...{ kind: field.kind, unit: field.unit, value: Number(present.value) },
            ...{ label: inEnglish(field.label), decimals: decimalsOf(present.value) },
          },
        ]
      : [],
  );
}

/** Differences of a burette or of two weighings, leg by leg, less what was added back and the bias of the indicator. */
function difference(input: Input, there: readonly SheetReading[]): FromReadings | null {
  const found = differenceOf(input);
  if (!found) return null;
  const read = (kind: ObservationKind) => there.find((reading) => reading.kind === kind);
  const whole = { initial: found.subtrahend.kind, final: found.minuend.kind };
  const legs = input.is === "titer" ? legsOf((kind) => read(kind) !== undefined) : [whole];
  const ends = legs.flatMap(({ initial, final }) => [final, initial]);
  if (!ends.every(read)) return null;
  const back = (["back.volume", "back.worth"] as const).flatMap((kind) => read(kind) ?? []);
  const bias = input.is === "titer" ? Number(input.bias?.ml ?? 0) : 0;
  const written = (of: (kind: ObservationKind) => string) => {
    const sums = legs.map(({ initial, final }) => `(${of(final)}-${of(initial)})`).join("+");
    const less = back.length === 2 ? `-${back.map(({ kind }) => of(kind)).join("*")}` : "";
    return `${sums}${less}${bias === 0 ? "" : `-(${bias})`}`;
  };
  const value = (kind: ObservationKind) => read(kind)?.value ?? 0;
  const sum = legs.reduce((all, { initial, final }) => all + value(final) - value(initial), 0);
  const taken = back.length === 2 ? value("back.volume") * value("back.worth") : 0;
  const used = [...ends, ...(back.length === 2 ? back.map(({ kind }) => kind) : [])];
  return {
    readings: there.filter(({ kind }) => used.includes(kind)),
    formula: written,
    value: sum - taken - bias,
  };
}

/** A mass over a density, or drops over drops in a milliliter: terms above the bar are subtracted. */
function quotient(input: Input, there: readonly SheetReading[]): FromReadings | null {
  const found = quotientOf(input);
  if (!found) return null;
  const number = ({ kind, text }: (typeof found.over)[0]) =>
    kind === undefined ? Number(text) : there.find((reading) => reading.kind === kind)?.value;
  const terms = [...found.over, found.under];
  if (terms.some((term) => number(term) === undefined)) return null;
  const [first = 0, ...others] = found.over.map((term) => number(term) ?? 0);
  return {
    readings: there.filter(({ kind }) => terms.some((term) => term.kind === kind)),
    formula: (at) => {
      const written = terms.map(({ kind, text = "" }) => (kind === undefined ? text : at(kind)));
      return `(${written.slice(0, -1).join("-")})/${written.at(-1)}`;
    },
    value: others.reduce((left, value) => left - value, first) / (number(found.under) ?? 1),
  };
}

/** How the value of an input follows from what was read of it; null where nothing was, as for what is taken from an earlier stage. */
export function fromReadings(input: Input, fields: readonly FieldState[]): FromReadings | null {
  if (takenOver(input)) return null;
  const there = readingsOf(input, fields);
  const composed = difference(input, there) ?? quotient(input, there);
  if (composed) return composed;
  const [only] = there;
  return only ? { readings: [only], formula: (at) => at(only.kind), value: only.value } : null;
}
