import { Type } from "@sinclair/typebox";
import type { InputKind } from "./kind";
import { inputSchema, type Made } from "./parts";
import { photometerChecks, photometerFields } from "./photometer";

/** What a photometer shows of a cuvette: as many readings as people take, in absorbance or in percent transmittance. */
export const absorbanceSchema = () => inputSchema("absorbance", { per: Type.Literal("trial") });
export type AbsorbanceInput = Made<typeof absorbanceSchema>;

export const absorbance: InputKind<AbsorbanceInput> = {
  unit: () => "1",
  decimals: () => 3,
  fields: (input, { series }) => photometerFields(input, series),
  quantity: () => null,
  checks: (_input, typed) => photometerChecks(typed),
  photometric: true,
};
