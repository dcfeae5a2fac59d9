import { Type } from "@sinclair/typebox";
import { statedQuantity } from "../measure";
import { significantFromText } from "../quantity";
import type { InputKind } from "./kind";
import { Decimal, inputSchema, type Made, ShortText } from "./parts";

/** A number that the method itself brings, exact or with a ±. */
export const constantSchema = () =>
  inputSchema("constant", { value: Decimal, unit: ShortText, plusMinus: Type.Optional(Decimal) });
export type ConstantInput = Made<typeof constantSchema>;

export const constant: InputKind<ConstantInput> = {
  unit: ({ unit }) => unit,
  decimals: () => null,
  fields: () => [],
  quantity: ({ symbol, label, value, unit, plusMinus }, _read, place) => {
    const cause = { id: `constant:${symbol}:${value}`, kind: "constant" as const, label, group: label };
    return statedQuantity(Number(value), unit, Number(plusMinus ?? 0), cause, place);
  },
  figures: ({ plusMinus, value }) => (plusMinus === undefined ? null : significantFromText(value)),
  usual: ({ value }) => Number(value),
};
