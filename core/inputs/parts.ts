import { type Static, type TSchema, Type } from "@sinclair/typebox";

/* Parts that the schemas of inputs and stages share. */

/** Longer than anything that somebody reads at the bench. */
export const ShortText = Type.String({ minLength: 1, maxLength: 1000 });
/** What a later stage, a relation or an address names: letters, digits and hyphens. */
export const Name = Type.String({ minLength: 1, maxLength: 40 });
export const Key = Type.String({ pattern: "^[A-Za-z0-9][A-Za-z0-9-]{0,79}$" });
export const Decimal = Type.String({ pattern: "^-?\\d+(\\.\\d+)?$", maxLength: 40 });
export const Closed = { additionalProperties: false } as const;

/** Once for each flask, or once for the whole stage. */
export const Per = Type.Union([Type.Literal("trial"), Type.Literal("run")]);

/** A piece of glass that is not as the house rules say: its class, and what it was found to deliver or hold, with its ±. */
export const Piece = () =>
  Type.Object(
    {
      toleranceClass: Type.Optional(Type.Union([Type.Literal("A"), Type.Literal("B")])),
      calibrated: Type.Optional(Type.Object({ volumeMl: Decimal, plusMinusMl: Decimal }, Closed)),
    },
    Closed,
  );

/** The schema of one kind of input. */
export const inputSchema = <K extends string, T extends Record<string, TSchema>>(is: K, parts: T) =>
  Type.Object({ is: Type.Literal(is), symbol: Name, label: ShortText, ...parts }, Closed);

/** The type that a schema, made when it is asked for, describes. */
export type Made<S extends () => TSchema> = Static<ReturnType<S>>;
