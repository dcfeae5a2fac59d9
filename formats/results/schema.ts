import { type Static, Type } from "@sinclair/typebox";

/** A result as the program that wrote the file computed it, so that another computation from the same readings can be compared with it. */
export const StatedResultSchema = Type.Object(
  {
    /** Key of the stage. */
    stage: Type.String({ minLength: 1, maxLength: 80 }),
    symbol: Type.String({ minLength: 1, maxLength: 80 }),
    unit: Type.String({ maxLength: 80 }),
    /** In the unit, unrounded. */
    value: Type.Number(),
    standardUncertainty: Type.Number({ minimum: 0 }),
    /** As it was shown. */
    shown: Type.String({ maxLength: 200 }),
  },
  { additionalProperties: false },
);
export type StatedResult = Static<typeof StatedResultSchema>;
