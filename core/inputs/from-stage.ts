import { Type } from "@sinclair/typebox";
import type { InputKind } from "./kind";
import { inputSchema, type Made, ShortText } from "./parts";
import { uncapitalized, msg } from "../text";

/** The result of an earlier stage. */
export const fromStageSchema = () =>
  inputSchema("result", {
    of: ShortText,
    per: Type.Literal("run"),
    /** Key of the earlier stage whose result this is. */
    stage: ShortText,
    /** Symbol of one of its further results, where it is not the main one. */
    result: Type.Optional(ShortText),
  });
export type FromStageInput = Made<typeof fromStageSchema>;

export const fromStage: InputKind<FromStageInput> = {
  unit: ({ stage, result }, earlier) => earlier.ofResult(stage, result),
  decimals: () => null,
  fields: () => [],
  quantity: () => null,
  takesOver: ({ stage, result }) => ({ stage, ...(result === undefined ? {} : { result }) }),
  suspect: ({ label }) => ({
    often: 2.5,
    words: (side, from) =>
      msg`${uncapitalized(label)}: it may be ${{ high: "too high", low: "too low", either: "off" }[side]}; check "${from}"`,
  }),
};
