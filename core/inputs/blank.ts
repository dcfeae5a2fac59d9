import { Type } from "@sinclair/typebox";
import type { InputKind } from "./kind";
import { inputSchema, type Made } from "./parts";
import { photometerChecks, photometerFields } from "./photometer";

/** The absorbance of the blank, read for the whole stage: before, and again at the end. */
export const blankSchema = () =>
  inputSchema("blank", {
    per: Type.Literal("run"),
    /**
     * How the cuvettes are read: "zeroed" on the blank, which then reads nothing; or against something else, so that its
     * reading is "deducted" from all others. Zeroed where nothing is said.
     */
    readings: Type.Optional(Type.Union([Type.Literal("zeroed"), Type.Literal("deducted")])),
  });
export type BlankInput = Made<typeof blankSchema>;

export const blank: InputKind<BlankInput> = {
  unit: () => "1",
  decimals: () => null,
  fields: (input) => photometerFields(input, false),
  quantity: () => null,
  checks: (_input, typed) => photometerChecks(typed),
  photometric: true,
};
