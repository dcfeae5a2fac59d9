import { Type } from "@sinclair/typebox";
import { purity as purityQuantity } from "../measure";
import { figuresOf } from "./figures";
import type { InputKind } from "./kind";
import { Closed, inputSchema, type Made, ShortText } from "./parts";
import { msg } from "../text";

export const puritySchema = () =>
  inputSchema("purity", {
    of: ShortText,
    per: Type.Literal("run"),
    /** Taken until something else is typed: percent and its ±. */
    presumed: Type.Object({ percent: ShortText, plusMinus: ShortText }, Closed),
  });
export type PurityInput = Made<typeof puritySchema>;

export const purity: InputKind<PurityInput> = {
  unit: () => "1",
  typedIn: () => ({ unit: "%", size: 0.01 }),
  decimals: () => null,
  fields: ({ symbol, label }) => [
    {
      symbol,
      kind: "purity",
      label,
      unit: "%",
      hint: msg`from the label of the bottle`,
      // Certificates state assays a little above 100 %.
      rules: { instrument: msg`The label`, unit: "%", decimals: null, aboveZero: true, most: 100.1 },
      optional: true,
    },
    {
      symbol,
      kind: "purity.plus-minus",
      label: msg`±`,
      unit: "%",
      hint: msg`half the width`,
      rules: { instrument: msg`The label`, unit: "%", decimals: null, least: 0, most: 10 },
      optional: true,
    },
  ],
  quantity: ({ presumed, of }, read, { stage }) => {
    const percent = read("purity") ?? Number(presumed.percent);
    // The presumed ± belongs to the presumed value: one that was typed brings its own, or none.
    const halfWidth = read("purity.plus-minus") ?? (read("purity") === null ? Number(presumed.plusMinus) : 0);
    return purityQuantity(percent / 100, halfWidth / 100, of, stage);
  },
  figures: ({ presumed }, text) => figuresOf(text, "purity", presumed.percent, 0.01),
  presumed: ({ presumed }) => ({ purity: presumed.percent, "purity.plus-minus": presumed.plusMinus }),
  usual: ({ presumed }) => Number(presumed.percent),
  planned: { measured: false, consumed: false },
  stated: ({ of }) => ({
    value: "purity",
    spreads: ["purity.plus-minus"],
    shelf: { formula: of, unit: "%" },
    exact: false,
  }),
};
