import { Type } from "@sinclair/typebox";
import { statedQuantity } from "../measure";
import { significantFromText } from "../quantity";
import { decimal, given, numberColumn, plusMinusOf, text, trimmed } from "./edit";
import type { InputKind } from "./kind";
import { Decimal, inputSchema, type Made, ShortText } from "./parts";
import { msg } from "../text";

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
  described: () => "",
  edit: {
    name: msg`constant`,
    columns: [
      numberColumn("value", msg`Value`),
      { key: "unit", label: msg`Unit` },
      numberColumn("plusMinus", "±"),
    ],
    row: ({ value, unit, plusMinus }) => ({ value, unit, plusMinus: text(plusMinus) }),
    input: (row) => ({
      value: decimal(row.value),
      unit: trimmed(row, "unit"),
      ...(given(row.plusMinus) ? { plusMinus: plusMinusOf(row) } : {}),
    }),
  },
};
