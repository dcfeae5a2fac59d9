import { Type } from "@sinclair/typebox";
import { dropsVolume } from "../measure";
import { significantFromText, unitOf } from "../quantity";
import type { InputKind } from "./kind";
import { Closed, Decimal, inputSchema, type Made, Per, ShortText } from "./parts";
import { volumeSuspect } from "./suspect";
import { msg } from "../text";

/** A volume counted in drops. */
export const dropsSchema = () =>
  inputSchema("drops", {
    of: ShortText,
    per: Per,
    /** Drops in one mL, and its ±. */
    perMl: Type.Object({ value: Decimal, plusMinus: Decimal }, Closed),
    /** How that was found, where somebody counted: drops in a measured volume. */
    counted: Type.Optional(Type.Object({ drops: Decimal, inMl: Decimal, plusMinus: Decimal }, Closed)),
    /** The usual volume in mL. */
    presumedMl: Type.Optional(Decimal),
  });
export type DropsInput = Made<typeof dropsSchema>;

export const drops: InputKind<DropsInput> = {
  unit: () => "mL",
  typedIn: ({ perMl }) => ({ unit: "drops", size: unitOf("mL").factor / Number(perMl.value) }),
  decimals: () => 2,
  fields: ({ symbol, label, perMl }) => [
    {
      symbol,
      kind: "drops",
      label,
      unit: "drops",
      hint: msg`${perMl.value} drops per mL`,
      rules: { instrument: "A count", unit: "drops", decimals: 0, aboveZero: true, most: 1000 },
    },
  ],
  quantity: ({ of, perMl }, read, place) => {
    const count = read("drops");
    if (count === null) return null;
    const factor = { value: Number(perMl.value), plusMinus: Number(perMl.plusMinus) };
    return dropsVolume(count, factor, place, of);
  },
  figures: ({ perMl }, _text, size) => ({ ...significantFromText(perMl.value), value: size }),
  usual: ({ presumedMl, perMl }) =>
    presumedMl === undefined ? 20 : Math.round(Number(presumedMl) * Number(perMl.value)),
  measuredBy: () => "drops",
  quotient: ({ symbol, perMl }) => ({
    over: [{ symbol: `n_${symbol}`, kind: "drops", unit: "drops" }],
    under: { symbol: "f", text: perMl.value, unit: "drops/mL" },
  }),
  planned: { measured: true, consumed: false },
  amountUnit: "mL",
  problem: ({ symbol, perMl }) =>
    Number(perMl.value) > 0 ? null : { message: msg`${symbol} needs more than zero drops per mL` },
  suspect: (input) => volumeSuspect(input, 1.2),
  ledger: ({ label }) => [{ head: label, kind: "drops" }],
  series: () => ({ kind: "drops", unit: "drops" }),
};
