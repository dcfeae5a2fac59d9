import { type Static, Type } from "@sinclair/typebox";

/** A result as whoever wrote a file found it: told beside the readings, so that what is computed from them elsewhere can be held against it. */
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
