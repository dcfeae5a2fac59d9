import { Type } from "@sinclair/typebox";
import type { InputKind } from "./kind";
import { inputSchema, type Made } from "./parts";
import { msg } from "../text";

/** A course of absorbance against time. */
export const traceSchema = () => inputSchema("trace", { per: Type.Literal("trial") });
export type TraceInput = Made<typeof traceSchema>;

export const trace: InputKind<TraceInput> = {
  unit: () => "1",
  decimals: () => null,
  fields: ({ symbol }) =>
    (["window.from", "window.to"] as const).map((kind) => ({
      symbol,
      kind,
      label: kind === "window.from" ? msg`Window from` : msg`Window to`,
      unit: "s",
      hint: msg`part of the kinetic run that is used`,
      rules: { instrument: msg`The window`, unit: "s", decimals: null, least: 0, most: 1e6 },
      optional: true,
    })),
  quantity: () => null,
  photometric: true,
};
