import { statedQuantity } from "../measure";
import { figuresOf } from "./figures";
import type { InputKind } from "./kind";
import { Decimal, inputSchema, type Made, Per, ShortText } from "./parts";
import { msg } from "../text";

/** How many pieces are in the flask: tablets, pellets, strips. */
export const countSchema = () =>
  inputSchema("count", {
    of: ShortText,
    per: Per,
    /** What a piece that broke may change: ± in pieces; 0 where all are whole. */
    plusMinus: Decimal,
  });
export type CountInput = Made<typeof countSchema>;

export const count: InputKind<CountInput> = {
  unit: () => "1",
  typedIn: () => ({ unit: "pieces", size: 1 }),
  decimals: () => 0,
  fields: ({ symbol, label, of }) => [
    {
      symbol,
      kind: "count",
      label,
      unit: "pieces",
      hint: of,
      rules: { instrument: "A count", unit: "pieces", decimals: 0, aboveZero: true, most: 10_000 },
    },
  ],
  quantity: ({ symbol, of, plusMinus }, read, place) => {
    const pieces = read("count");
    if (pieces === null) return null;
    const id = `count:${place.stage}:${place.trial}:${symbol}`;
    const cause = { id, kind: "count" as const, label: msg`Count of ${of}`, group: msg`Count` };
    return statedQuantity(pieces, "1", Number(plusMinus), cause, place, true);
  },
  // Pieces are counted, not read off a scale: nothing is rounded for them.
  figures: ({ plusMinus }, text) => (Number(plusMinus) === 0 ? null : figuresOf(text, "count", undefined)),
  usual: () => 1,
  planned: { measured: true, consumed: true },
  suspect: ({ of }) => ({
    often: 0.6,
    words: (side) =>
      side === "high" ? msg`more ${of} counted than added` : msg`fewer ${of} counted than added`,
  }),
  ledger: ({ label }) => [{ head: label, kind: "count" }],
  series: () => ({ kind: "count", unit: "pieces" }),
};
