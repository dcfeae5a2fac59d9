import { buretteDecimals } from "../rules";
import {
  buretteColumns,
  buretteDifference,
  carriedOn,
  buretteChecks,
  buretteFields,
  buretteQuantity,
} from "./burette";
import { figuresOfDifference } from "./figures";
import type { InputKind } from "./kind";
import { inputSchema, type Made, Per, ShortText } from "./parts";
import { volumeSuspect } from "./suspect";
import { msg } from "../text";

/** A volume delivered from a burette of its own, as a sample by burette difference. */
export const deliveredSchema = () => inputSchema("delivered", { of: ShortText, per: Per });
export type DeliveredInput = Made<typeof deliveredSchema>;

/** What is usually delivered so, mL. Common practice, no source. */
const usualMl = 25;

export const delivered: InputKind<DeliveredInput> = {
  unit: () => "mL",
  decimals: (_input, rules) => buretteDecimals(rules),
  fields: ({ symbol, label }, _setting, rules) => {
    const [initial, final] = buretteFields(symbol, rules, "bottom", [
      msg`${label}: initial reading`,
      msg`${label}: final reading`,
    ]);
    return [
      { ...initial, short: msg`initial reading` },
      { ...final, short: msg`final reading` },
    ];
  },
  quantity: ({ symbol }, read, place, rules) => buretteQuantity(read, place, rules, symbol),
  checks: (_input, typed) => buretteChecks({ ...typed, mayBeZero: false }),
  figures: (_input, text, size) => figuresOfDifference(text, ["burette.initial", "burette.final"], size),
  usual: () => usualMl,
  measuredBy: () => "burette",
  planned: { measured: true, consumed: true },
  amountUnit: "mL",
  difference: () => buretteDifference,
  suspect: (input) => volumeSuspect(input, 1.4),
  ledger: ({ label }) => buretteColumns(msg`${label}, initial`, msg`final`, msg`${label}, mL`),
  proposed: (_input, before) => carriedOn(before),
};
