import { type Static, type TSchema, Type } from "@sinclair/typebox";

/* Parts that the schemas of changes share. */

export const Closed = { additionalProperties: false } as const;
export const Id = Type.String({ format: "uuid" });
export const Key = Type.String({ minLength: 1, maxLength: 120 });
export const InputSymbol = Type.String({ minLength: 1, maxLength: 40 });
export const Reason = Type.String({ minLength: 1, maxLength: 500, pattern: "\\S" });
export const Short = Type.String({ maxLength: 120 });
export const ReadingText = Type.String({ minLength: 1, maxLength: 40 });
export const TrialKind = Type.Union([Type.Literal("rough"), Type.Literal("fine")]);

/**
 * How long ago it happened, s, for what waited until the server could be reached. Told so, and not as a time of day, since
 * the clocks of two devices seldom agree.
 */
export const Held = Type.Optional(Type.Number({ minimum: 0, maximum: 30 * 86_400 }));

/** The type that a schema, made when it is asked for, describes. */
export type Made<S extends () => TSchema> = Static<ReturnType<S>>;
