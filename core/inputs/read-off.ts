import { Type } from "@sinclair/typebox";
import type { InputKind } from "./kind";
import { inputSchema, type Made, ShortText } from "./parts";
import { msg } from "../text";

/** An amount read off the line of an earlier stage by this stage's absorbance. */
export const readOffSchema = () =>
  inputSchema("read-off", {
    of: ShortText,
    per: Type.Literal("trial"),
    /** Key of the calibration stage. */
    stage: ShortText,
    /** Symbol of the absorbance. */
    reading: ShortText,
  });
export type ReadOffInput = Made<typeof readOffSchema>;

export const readOff: InputKind<ReadOffInput> = {
  unit: ({ stage }, earlier) => earlier.ofAxis(stage),
  decimals: () => null,
  fields: () => [],
  quantity: () => null,
  photometric: true,
  takesOver: ({ stage, reading }) => ({ stage, readBy: reading }),
  suspect: () => ({
    often: 1.2,
    words: (side) =>
      ({
        high: msg`the absorbance: something else may color the flask, or the blank was not subtracted`,
        low: msg`the absorbance: the color may not have come out fully, or the blank reads too much`,
        either: msg`the absorbance and the line`,
      })[side],
  }),
};
