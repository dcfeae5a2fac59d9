import { Type } from "@sinclair/typebox";
import type { Check, ReadingRules } from "../measure";
import { buretteText, type HouseRules } from "../rules";
import { buretteFields, carriedOn } from "./burette";
import type { Field } from "./field";
import type { InputKind, Typed } from "./kind";
import { Decimal, inputSchema, type Made, ShortText } from "./parts";
import { stopped } from "./pair";
import { msg, type Phrase } from "../text";

/** A titration curve: what a meter shows against the reading of the burette, point by point. */
export const curveSchema = () =>
  inputSchema("curve", {
    titrant: ShortText,
    per: Type.Literal("trial"),
    /** What the meter reads. */
    reads: Type.Union([
      Type.Literal("pH"),
      Type.Literal("mV"),
      Type.Literal("absorbance"),
      Type.Literal("conductance"),
    ]),
    /** ± of the meter against its standards, in what it shows: the same for all points. */
    plusMinus: Decimal,
  });
export type CurveInput = Made<typeof curveSchema>;

/** What a meter shows: its name, its unit, its digits, and between what that lies. */
interface Meter {
  readonly label: Phrase;
  readonly instrument: Phrase;
  readonly unit: string;
  readonly decimals: number;
  readonly least: number;
  readonly most: number;
}

const meters: Readonly<Record<CurveInput["reads"], Meter>> = {
  pH: { label: msg`pH`, instrument: msg`The pH meter`, unit: "", decimals: 2, least: -1, most: 15 },
  mV: {
    label: msg`Potential`,
    instrument: msg`The meter`,
    unit: "mV",
    decimals: 0,
    least: -2000,
    most: 2000,
  },
  absorbance: {
    label: msg`Absorbance`,
    instrument: msg`The photometer`,
    unit: "",
    decimals: 3,
    least: -0.5,
    most: 4,
  },
  conductance: {
    label: msg`Conductance`,
    instrument: msg`The conductivity meter`,
    unit: "mS",
    decimals: 3,
    least: 0,
    most: 1000,
  },
};

export const meterOf = ({ reads }: Pick<CurveInput, "reads">): Meter => meters[reads];

/** The reading of the burette at a point: typed beside what the meter shows, and kept with it. */
export const pointBurette = (
  { symbol }: CurveInput,
  rules: HouseRules,
  meniscus: "bottom" | "top" = "bottom",
): Field => buretteFields(symbol, rules, meniscus, [msg`Initial reading`, msg`Burette`])[1];

/** The reading of the meter at a point. */
function pointField(input: CurveInput): Field {
  const { label, instrument, unit, least, most } = meterOf(input);
  const rules: ReadingRules = { instrument, unit, decimals: null, least, most };
  return {
    symbol: input.symbol,
    kind: "point",
    label,
    unit,
    hint: msg`when it is steady`,
    rules,
    many: true,
  };
}

/** What is wrong or unlikely about the burette at a point: before its start, or above what was read before. */
function placeChecks({ kind, place, beside, value }: Typed): Check[] {
  const at = kind === "point" ? (place ? Number(place.burette) : null) : value;
  if (at === null) return [];
  const start = beside("burette.initial");
  if (start && at < start.value)
    return [
      stopped(msg`${at} mL is less than the burette’s start, ${start.text}: was it refilled?`, "order"),
    ];
  const before = beside("point")?.place;
  if (!before || at > Number(before.burette)) return [];
  const message =
    at === Number(before.burette)
      ? msg`${before.burette} was read before: of two points at one volume the later one counts`
      : msg`${at} mL is less than the last reading, ${before.burette}: does the volume go back?`;
  return [{ severity: "caution", kind: "order", message }];
}

export const curve: InputKind<CurveInput> = {
  // No relation uses it: what follows from the curve has symbols of its own.
  unit: () => "1",
  decimals: (input) => meterOf(input).decimals,
  fields: (input, setting, rules) => [
    buretteFields(input.symbol, rules, setting.meniscus, [msg`Burette at the start`, msg`Burette`])[0],
    pointField(input),
  ],
  quantity: () => null,
  photometric: true,
  checks: (_input, typed) =>
    typed.kind === "point" || typed.kind === "burette.final" ? placeChecks(typed) : [],
  problem: ({ symbol, plusMinus }) =>
    Number(plusMinus) > 0 ? null : { message: msg`${symbol} needs the ± of its meter` },
  proposed: (_input, before, rules) =>
    rules.burette.start === "zero" ? { "burette.initial": buretteText(0, rules) } : carriedOn(before),
};
