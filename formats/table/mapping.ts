import { type Static, Type } from "@sinclair/typebox";

const Closed = { additionalProperties: false } as const;
const Short = Type.String({ maxLength: 200 });

/** How a table is read as trials of one stage of a method. */
export const MappingSchema = Type.Object(
  {
    methodId: Type.String({ maxLength: 100 }),
    stageKey: Type.String({ maxLength: 100 }),
    /** True where the first row names the columns. */
    headings: Type.Boolean(),
    decimal: Type.Union([Type.Literal("point"), Type.Literal("comma")]),
    dates: Type.Union([Type.Literal("ymd"), Type.Literal("dmy"), Type.Literal("mdy")]),
    /** True where zeros at the end, which a spreadsheet drops, are put back. */
    zeros: Type.Boolean(),
    /** What each column stands for, and its unit; null for one that is left out. */
    columns: Type.Array(Type.Union([Type.Object({ target: Short, unit: Short }, Closed), Type.Null()]), {
      maxItems: 60,
    }),
    /** What is the same for all rows, by target. */
    fixed: Type.Record(Short, Short),
  },
  Closed,
);
export type Mapping = Static<typeof MappingSchema>;
