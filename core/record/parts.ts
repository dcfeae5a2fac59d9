import { Type } from "@sinclair/typebox";

/* Parts that the schemas of a record share. */

export const Closed = { additionalProperties: false } as const;
export const Id = Type.String({ minLength: 1, maxLength: 120 });
/** What somebody typed, or a name. */
export const ShortText = Type.String({ maxLength: 1000 });
export const Instant = Type.String({ format: "date-time" });
