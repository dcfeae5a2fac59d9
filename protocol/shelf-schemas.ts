import { type Static, Type } from "@sinclair/typebox";
import { MakingSchema } from "~/core/prepare";

/** What the screens may ask of the shelf, as JSON. */

const Closed = { additionalProperties: false } as const;
const Id = Type.String({ format: "uuid" });
const Name = Type.String({ minLength: 1, maxLength: 120, pattern: "\\S" });
const Formula = Type.String({ minLength: 1, maxLength: 80, pattern: "\\S" });
const Text = Type.String({ maxLength: 500 });
const Number_ = Type.String({ maxLength: 40 });
const Day = Type.String({ pattern: "^(\\d{4}-\\d{2}-\\d{2})?$", maxLength: 10 });

const keeping = {
  person: Name,
  amount: Number_,
  restandardizeBy: Day,
  hazards: Text,
  note: Text,
};

export const AddSolutionSchema = Type.Object(
  {
    intent: Type.Literal("add"),
    form: Type.Union([Type.Literal("solution"), Type.Literal("solid")]),
    formula: Formula,
    name: Name,
    how: Type.Union([Type.Literal("certificate"), Type.Literal("nominal")]),
    value: Number_,
    plusMinus: Number_,
    ...keeping,
  },
  Closed,
);
export type AddSolution = Static<typeof AddSolutionSchema>;

export const MakeSolutionSchema = Type.Object(
  {
    intent: Type.Literal("make"),
    formula: Formula,
    name: Name,
    making: MakingSchema,
    /** Texts as typed, by field key of the making. */
    typed: Type.Record(Type.String({ maxLength: 80 }), Type.String({ maxLength: 40 }), { maxProperties: 60 }),
    /** The stock or the solid on the shelf that it is made from. */
    fromId: Type.Union([Id, Type.Null()]),
    ...keeping,
  },
  Closed,
);
export type MakeSolution = Static<typeof MakeSolutionSchema>;

export const EditSolutionSchema = Type.Object(
  {
    intent: Type.Literal("edit"),
    revision: Type.Integer({ minimum: 0, maximum: 2_000_000_000 }),
    name: Name,
    amountLeft: Number_,
    restandardizeBy: Day,
    hazards: Text,
    note: Text,
    usedUp: Type.Boolean(),
    person: Name,
    reason: Type.String({ minLength: 1, maxLength: 500, pattern: "\\S" }),
  },
  Closed,
);
export type EditSolution = Static<typeof EditSolutionSchema>;

export const ShelfRequestSchema = Type.Union([AddSolutionSchema, MakeSolutionSchema]);
