import { type Static, Type } from "@sinclair/typebox";
import { Closed, Decimal, Name } from "../inputs/parts";

/** What it is called, in the words of who chose it. */
const Label = Type.String({ minLength: 1, maxLength: 120, pattern: "\\S" });

/** A known or a target value with what is allowed beside it, or a limit; the value itself is stated in the stage. */
export const HeldAgainstSchema = () =>
  Type.Union([
    Type.Object(
      {
        against: Type.Literal("value"),
        label: Label,
        /** Symbol of the further result that is held against it, and is the main one then; the main one where nothing is said. */
        result: Type.Optional(Name),
        /** How far off is allowed; empty where nothing is said of that. */
        tolerance: Type.Union([Decimal, Type.Literal("")]),
        in: Type.Union([Type.Literal("percent"), Type.Literal("unit")]),
      },
      Closed,
    ),
    Type.Object(
      {
        against: Type.Literal("limit"),
        label: Label,
        /** Symbol of the further result that is held against it, and is the main one then; the main one where nothing is said. */
        result: Type.Optional(Name),
        bound: Type.Union([Type.Literal("at most"), Type.Literal("at least")]),
      },
      Closed,
    ),
  ]);
export type HeldAgainst = Static<ReturnType<typeof HeldAgainstSchema>>;
