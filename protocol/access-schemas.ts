import { type Static, Type } from "@sinclair/typebox";

/** What may be asked about who comes in, as JSON. */

const Closed = { additionalProperties: false } as const;

export const AccessRequestSchema = Type.Union([
  /** From now on this is a role's passphrase; null takes that of the assistants away. */
  Type.Object(
    {
      intent: Type.Literal("passphrase"),
      role: Type.Union([Type.Literal("instructor"), Type.Literal("assistant")]),
      passphrase: Type.Union([Type.String({ maxLength: 400 }), Type.Null()]),
    },
    Closed,
  ),
  Type.Object(
    { intent: Type.Literal("end-session"), id: Type.String({ pattern: "^[0-9a-f]{64}$" }) },
    Closed,
  ),
  Type.Object({ intent: Type.Literal("no-sign-in") }, Closed),
]);
export type AccessRequest = Static<typeof AccessRequestSchema>;
