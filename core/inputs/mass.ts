import { Type } from "@sinclair/typebox";
import { buoyancyFactor, type Check, massByDifference, massTared, type ReadingRules } from "../measure";
import { type HouseRules, massDecimals } from "../rules";
import { figuresOf, figuresOfDifference } from "./figures";
import type { InputKind, Typed } from "./kind";
import { pairOf, stopped } from "./pair";
import { inputSchema, type Made, Per, ShortText } from "./parts";
import { uncapitalized, msg, type Phrase } from "../text";

const Weighing = () =>
  Type.Union([Type.Literal("transfer"), Type.Literal("addition"), Type.Literal("tared")]);

/** Decimals of the balance that is used, where it is not the one of the house rules. */
const Decimals = () => Type.Integer({ minimum: 0, maximum: 6 });

/** What a schema says of a weighing, whatever the mass is for. */
export const weighingParts = () => ({
  weighing: Type.Optional(Weighing()),
  decimals: Type.Optional(Decimals()),
});

export const massSchema = () =>
  inputSchema("mass", {
    /** Formula, or name, of what is weighed. */
    of: ShortText,
    per: Per,
    /**
     * "transfer": the boat before and after the solid is tipped out; "addition": the vessel empty, then with the sample;
     * "tared": the balance was set to zero on the empty vessel. Transfer where nothing is said.
     */
    weighing: Type.Optional(Weighing()),
    /** Names of the two weighings of a mass by difference, in the order in which they are made. */
    before: Type.Optional(ShortText),
    after: Type.Optional(ShortText),
    /** The window, in g, that the mass should fall in; outside it is a caution. */
    expect: Type.Optional(Type.Tuple([Type.Number(), Type.Number()])),
    decimals: Type.Optional(Decimals()),
    /** Density in g/mL, for the correction of air buoyancy where the house makes it. */
    densityGPerMl: Type.Optional(Type.Number({ exclusiveMinimum: 0 })),
  });
export type MassInput = Made<typeof massSchema>;

/**
 * The balance that an input is weighed on. Of one that is not the house's only the decimals are known: it departs from linearity by as
 * many of its last digits as that of the house does (common practice, no source).
 */
export function balanceOf({ decimals }: Pick<MassInput, "decimals">, { balance }: HouseRules) {
  const house = {
    readabilityG: Number(balance.readabilityG),
    linearityG: Number(balance.linearityG),
  };
  if (decimals === undefined) return house;
  const readabilityG = Number((10 ** -decimals).toFixed(decimals));
  return { readabilityG, linearityG: (readabilityG * house.linearityG) / house.readabilityG };
}

/** Decimals that an input is weighed to. */
export const decimalsOfMass = ({ decimals }: Pick<MassInput, "decimals">, rules: HouseRules): number =>
  decimals ?? massDecimals(rules);

/** Names of the two weighings of a mass by difference, in the order in which they are made. */
export function weighingNames({ weighing, before, after }: MassInput): readonly [Phrase, Phrase] {
  return weighing === "addition"
    ? [before ?? msg`Vessel empty`, after ?? msg`Vessel with the sample`]
    : [before ?? msg`Before the transfer`, after ?? msg`After the transfer`];
}

/** Cautions about a mass outside the method's window: it can be used, but it should be known. */
export function windowChecks({ expect }: MassInput, massG: number, decimals: number): Check[] {
  if (!expect) return [];
  const [low, high] = expect;
  if (massG >= low && massG <= high) return [];
  return [
    {
      severity: "caution",
      kind: "window",
      message: msg`${massG.toFixed(decimals)} g is ${massG < low ? msg`below` : msg`above`} the ${low} to ${high} g that this method asks for: it can be used, the titer will be unusual`,
    },
  ];
}

/** Two weighings between which nothing was moved, or the wrong way, cannot be; a mass outside its window should be known. */
function weighingChecks(input: MassInput, typed: Typed): Check[] {
  const { kind, value, decimals } = typed;
  if (kind === "mass.tared") return windowChecks(input, value, decimalsOfMass(input, typed.rules));
  const both = pairOf(["mass.before", "mass.after"], typed);
  if (!both) return [];
  const [before, after] = both;
  const [b, a] = [before.toFixed(decimals), after.toFixed(decimals)];
  const addition = input.weighing === "addition";
  if (before === after)
    return [
      stopped(
        msg`Both weighings are ${b} g: nothing was ${addition ? msg`added` : msg`transferred`}`,
        "order",
      ),
    ];
  if (addition && after < before)
    return [
      stopped(
        msg`It weighs less with the sample (${a} g) than empty (${b} g): are the two swapped?`,
        "order",
      ),
    ];
  if (!addition && after > before)
    return [
      stopped(
        msg`It weighs more after the transfer (${a} g) than before (${b} g): are the two swapped?`,
        "order",
      ),
    ];
  return windowChecks(input, Math.abs(before - after), decimalsOfMass(input, typed.rules));
}

/** The middle of what the method asks for, g; null where it asks for nothing. */
export const middle = ({ expect }: MassInput) => (expect ? (expect[0] + expect[1]) / 2 : null);

export const mass: InputKind<MassInput> = {
  unit: () => "g",
  decimals: decimalsOfMass,
  fields: (input, _setting, rules) => {
    const decimals = decimalsOfMass(input, rules);
    const reading: ReadingRules = { instrument: msg`The balance`, unit: "g", decimals, least: 0 };
    const field = { symbol: input.symbol, unit: "g", hint: `${decimals} decimals`, rules: reading };
    if (input.weighing === "tared")
      return [{ ...field, kind: "mass.tared", label: input.label, rules: { ...reading, aboveZero: true } }];
    const [before, after] = weighingNames(input);
    return [
      { ...field, kind: "mass.before", label: before },
      { ...field, kind: "mass.after", label: after },
    ];
  },
  quantity: (input, read, place, rules) => {
    const { symbol, weighing } = input;
    const balance = balanceOf(input, rules);
    const factor = mass.buoyancy?.(input, rules)?.factor ?? 1;
    if (weighing === "tared") {
      const shown = read("mass.tared");
      return shown === null || shown <= 0 ? null : massTared(shown, place, balance, symbol, factor);
    }
    const [before, after] = [read("mass.before"), read("mass.after")];
    if (before === null || after === null) return null;
    const [larger, smaller] = weighing === "addition" ? [after, before] : [before, after];
    if (smaller >= larger) return null;
    const words = weighing === "addition" ? ([msg`with the sample`, msg`empty`] as const) : undefined;
    return massByDifference(larger, smaller, place, balance, symbol, words, factor);
  },
  figures: ({ weighing }, typed, size) =>
    weighing === "tared"
      ? figuresOf(typed, "mass.tared", undefined)
      : figuresOfDifference(typed, ["mass.before", "mass.after"], size),
  usual: middle,
  measuredBy: ({ weighing }) => weighing ?? "transfer",
  buoyancy: ({ densityGPerMl }, { balance }) =>
    balance.correctBuoyancy && densityGPerMl !== undefined
      ? { factor: buoyancyFactor(densityGPerMl), density: String(densityGPerMl) }
      : null,
  planned: { measured: true, consumed: true },
  amountUnit: "g",
  checks: weighingChecks,
  cautions: (input, q, rules) => windowChecks(input, q.value, decimalsOfMass(input, rules)),
  difference: ({ weighing }) => {
    if (weighing === "tared") return null;
    const [before, after] = [
      { kind: "mass.before", name: "before" },
      { kind: "mass.after", name: "after" },
    ] as const;
    const [minuend, subtrahend] = weighing === "addition" ? [after, before] : [before, after];
    return { unit: "g", minuend, subtrahend, words: msg`the two weighings`, soFar: msg`Mass` };
  },
  suspect: ({ label }) => ({
    often: 1.6,
    words: (side) =>
      msg`${uncapitalized(label)}: ${
        {
          high: msg`less may have reached the flask than was weighed, or a weighing was misread`,
          low: msg`a weighing may have been misread, so that more was taken than is written`,
          either: msg`a weighing may have been misread`,
        }[side]
      }`,
  }),
  ledger: ({ weighing }) =>
    weighing === "tared"
      ? [{ head: msg`Mass, g`, kind: "mass.tared" }]
      : [
          { head: weighing === "addition" ? msg`Empty, g` : msg`Before, g`, kind: "mass.before" },
          { head: weighing === "addition" ? msg`With it, g` : msg`After, g`, kind: "mass.after" },
          { head: msg`Mass, g`, kind: null },
        ],
  series: () => ({ kind: "mass.tared", unit: "g" }),
};
