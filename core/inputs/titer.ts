import { Type } from "@sinclair/typebox";
import { type MeasuredAt, volumeFactor } from "../measure";
import { leaf, measured, type Quantity, subtract, unitOf } from "../quantity";
import { buretteText, buretteDecimals, type HouseRules } from "../rules";
import {
  buretteChecks,
  buretteColumns,
  buretteDifference,
  buretteFields,
  buretteQuantity,
  carriedOn,
} from "./burette";
import type { Field, InputSetting } from "./field";
import { figuresOfDifference } from "./figures";
import { volumeConditions } from "./glass";
import type { InputKind, Read } from "./kind";
import { inLegs, ofItsLeg, refillChecks } from "./legs";
import { Closed, Decimal, inputSchema, type Made, ShortText } from "./parts";
import { msg } from "../text";

export const titerSchema = () =>
  inputSchema("titer", {
    titrant: ShortText,
    per: Type.Literal("trial"),
    /**
     * How far behind the equivalence point the color turns, mL, and its ±; negative where it turns before. It is taken off each
     * titer. Nothing where it is not known, or made good by a blank.
     */
    bias: Type.Optional(Type.Object({ ml: Decimal, plusMinus: Decimal }, Closed)),
  });
export type TiterInput = Made<typeof titerSchema>;

const mlFactor = unitOf("mL").factor;

const outOfTurn = { optional: true, outOfTurn: true } as const;

/** A refill midway: the two readings that it takes. */
const refillFields = (symbol: string, [initial, final]: readonly [Field, Field]): Field[] => [
  {
    ...{ ...outOfTurn, symbol, unit: "mL", kind: "burette.before-refill", with: "burette.after-refill" },
    ...{ label: msg`Before the refill`, hint: final.hint, rules: final.rules },
  },
  {
    ...{ ...outOfTurn, symbol, unit: "mL", kind: "burette.after-refill", with: "burette.before-refill" },
    ...{ label: msg`After the refill`, hint: initial.hint, rules: initial.rules },
  },
];

/** Readings made a second time, without sight of the first. */
const secondFields = (symbol: string, [initial, final]: readonly [Field, Field]): Field[] => {
  const again = { ...outOfTurn, symbol, unit: "mL", hint: msg`do not look at the first reading` };
  return [
    {
      ...again,
      kind: "burette.initial.again",
      label: msg`Initial reading, second time`,
      rules: initial.rules,
    },
    { ...again, kind: "burette.final.again", label: msg`Final reading, second time`, rules: final.rules },
  ];
};

/** An overshot end: what was added back, and what that takes of the titrant. */
const backFields = (symbol: string): Field[] => [
  {
    ...{ ...outOfTurn, symbol, unit: "mL", kind: "back.volume", label: msg`Added back` },
    hint: msg`of the solution added back after overshooting`,
    rules: { instrument: msg`What is added back`, unit: "mL", decimals: null, aboveZero: true, most: 25 },
  },
  {
    ...{ ...outOfTurn, symbol, unit: "mL", kind: "back.worth", label: msg`Titrant equivalent to 1 mL of it` },
    hint: msg`from the two concentrations`,
    rules: { instrument: msg`It`, unit: "mL", decimals: null, aboveZero: true, most: 100 },
  },
];

/** What may be read of a titration beside its two readings. */
const optionalFields = (
  symbol: string,
  readings: readonly [Field, Field],
  { hotFlask: warm }: InputSetting,
): Field[] => [
  ...refillFields(symbol, readings),
  {
    ...{
      ...outOfTurn,
      symbol,
      unit: "mL",
      kind: "burette.maybe",
      label: msg`Possible end point`,
      many: true,
    },
    ...{ hint: msg`a mark before the end point`, rules: readings[1].rules },
  },
  ...secondFields(symbol, readings),
  ...backFields(symbol),
  {
    ...{
      ...outOfTurn,
      symbol,
      unit: "",
      kind: "end.overshot",
      label: msg`End overshot`,
      hint: msg`1 where it was`,
    },
    rules: { instrument: msg`It`, unit: "", decimals: 0, least: 1, most: 1 },
  },
  ...(warm === null
    ? []
    : [
        {
          ...{ ...outOfTurn, symbol, unit: "°C", kind: "temperature.flask" as const, many: true },
          ...{ label: msg`Temperature of the flask`, hint: warm },
          rules: { instrument: msg`The thermometer`, unit: "°C", decimals: null, least: -5, most: 150 },
        },
      ]),
];

/** How closely a small volume is added back, mL: that of a 1 mL pipette's scale. Common practice, no source. */
const addedBackHalfWidthMl = 0.01;

/**
 * A titer whose end was overshot and brought back by a known amount: V = (final - initial) - B·w, where B is what was added
 * back and w what one mL of it takes of the titrant. How closely w is known is its last digit.
 */
function withoutAddedBack(
  volume: Quantity,
  read: Read,
  { stage, trial }: MeasuredAt,
  factor: number,
): Quantity | null {
  const [addedMl, worth] = [read("back.volume"), read("back.worth")];
  if (addedMl === null || worth === null) return volume;
  const shared = { group: msg`Added back`, shape: "rectangular", stage } as const;
  const added = leaf({
    ...shared,
    id: `back-volume:${trial}`,
    kind: "added-back",
    label: msg`Volume added back`,
    u: addedBackHalfWidthMl / Math.sqrt(3),
    random: true,
  });
  const known = leaf({
    ...shared,
    id: `back-worth:${stage}`,
    kind: "added-back",
    label: msg`Titrant equivalent of the solution added back`,
    u: (0.005 * worth) / Math.sqrt(3),
  });
  const netMl = volume.value / mlFactor - addedMl * worth * factor;
  if (netMl < 0) return null;
  const rest = [...volume.sensitivities.values()].map(({ leaf, by }) => ({ leaf, by: by / mlFactor }));
  return measured(netMl, "mL", [
    ...rest,
    { leaf: added, by: -worth * factor },
    { leaf: known, by: -addedMl * factor },
  ]);
}

/**
 * A titer without the bias of its indicator: V = V_end - V_bias, where the color turns V_bias after the equivalence point (before
 * it, where that is negative). One cause for all trials of the stage (rectangular).
 */
function withoutBias(
  volume: Quantity,
  { ml, plusMinus }: NonNullable<TiterInput["bias"]>,
  { stage }: MeasuredAt,
  rules: HouseRules,
): Quantity {
  const cause = leaf({
    id: `indicator-bias:${stage}`,
    kind: "indicator-bias",
    label: msg`Bias of the indicator`,
    group: msg`Bias of the indicator`,
    shape: "rectangular",
    u: Number(plusMinus) / Math.sqrt(3),
    stage,
  });
  const factor = volumeFactor(volumeConditions(rules));
  return subtract(volume, measured(Number(ml) * factor, "mL", [{ leaf: cause, by: factor }]));
}

export const titer: InputKind<TiterInput> = {
  unit: () => "mL",
  decimals: (_input, rules) => buretteDecimals(rules),
  fields: ({ symbol }, setting, rules) => {
    const labels = [msg`Initial reading`, msg`Final reading`] as const;
    const readings = buretteFields(symbol, rules, setting.meniscus, labels);
    return [...readings, ...optionalFields(symbol, readings, setting)];
  },
  quantity: ({ bias }, read, place, rules) => {
    const volume = buretteQuantity(read.legs === undefined ? inLegs(read) : read, place, rules);
    const net = volume && withoutAddedBack(volume, read, place, volumeFactor(volumeConditions(rules)));
    return net && bias ? withoutBias(net, bias, place, rules) : net;
  },
  checks: (_input, typed) => [...refillChecks(typed), ...buretteChecks(ofItsLeg(typed))],
  figures: (_input, typed, size) => figuresOfDifference(typed, ["burette.initial", "burette.final"], size),
  amountUnit: "mL",
  difference: () => ({ ...buretteDifference, soFar: msg`Titer so far`, saved: msg`Titer` }),
  suspect: () => ({
    often: 1,
    words: (side) =>
      msg`the titer: ${
        {
          high: msg`the end point may have been overshot, or a reading misread`,
          low: msg`the end point may have been taken too early, or a reading misread`,
          either: msg`a reading may have been misread`,
        }[side]
      }`,
  }),
  ledger: () => buretteColumns(msg`Initial`, msg`Final`, msg`Titer, mL`),
  proposed: (_input, before, rules) =>
    rules.burette.start === "zero" ? { "burette.initial": buretteText(0, rules) } : carriedOn(before),
};
