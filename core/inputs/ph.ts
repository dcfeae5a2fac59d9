import { statedQuantity } from "../measure";
import { figuresOf } from "./figures";
import type { InputKind } from "./kind";
import { Decimal, inputSchema, type Made, Per } from "./parts";
import { msg } from "../text";

/** A reading of a pH meter. */
export const phSchema = () =>
  inputSchema("pH", {
    per: Per,
    /** ± of the meter, pH. */
    plusMinus: Decimal,
  });
export type PhInput = Made<typeof phSchema>;

export const ph: InputKind<PhInput> = {
  unit: () => "1",
  decimals: () => 2,
  fields: ({ symbol, label }) => [
    {
      symbol,
      kind: "pH",
      label,
      unit: "",
      hint: msg`when it has stopped drifting`,
      rules: { instrument: msg`The pH meter`, unit: "", decimals: null, least: -1, most: 15 },
    },
  ],
  quantity: ({ symbol, plusMinus }, read, place) => {
    const value = read("pH");
    if (value === null) return null;
    const cause = {
      id: `pH-meter:${place.stage}:${symbol}`,
      kind: "pH-meter" as const,
      label: msg`pH meter`,
      group: msg`pH meter`,
    };
    return statedQuantity(value, "1", Number(plusMinus), cause, place);
  },
  figures: (_input, text) => figuresOf(text, "pH", undefined),
  usual: () => 7,
  ledger: ({ label }) => [{ head: label, kind: "pH" }],
};
