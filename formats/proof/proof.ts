import { Type, type Static } from "@sinclair/typebox";

const Closed = { additionalProperties: false } as const;
const Digest = Type.String({ pattern: "^[0-9a-f]{64}$" });
/** Base64, as long as keys and signatures of Ed25519 are and then some. */
const Base64 = Type.String({ pattern: "^[A-Za-z0-9+/]+=*$", maxLength: 200 });

/** One link of the chain: a reading, or a part of the record that stands around the readings. */
const LinkSchema = Type.Object(
  {
    /** What it is of: a property of the record, a stage, a trial, a reading, or a row of readings that came at once. */
    is: Type.Union([
      Type.Literal("part"),
      Type.Literal("stage"),
      Type.Literal("trial"),
      Type.Literal("reading"),
      Type.Literal("trace"),
    ]),
    id: Type.String({ minLength: 1, maxLength: 1000 }),
    /** SHA-256 of what it is of, as canonical JSON (RFC 8785). */
    own: Digest,
    /** SHA-256 of the link before it, followed by its own digest. */
    link: Digest,
  },
  Closed,
);
export type Link = Static<typeof LinkSchema>;

/** What a file says of itself, so that it can be shown later whether it is as it was written. */
export const ProofSchema = Type.Object(
  {
    algorithm: Type.Literal("SHA-256, Ed25519"),
    links: Type.Array(LinkSchema, { minItems: 1, maxItems: 1_000_000 }),
    /** How many readings there are among the links. */
    readings: Type.Integer({ minimum: 0 }),
    /** The last link. */
    head: Digest,
    signedAt: Type.String({ maxLength: 40 }),
    /** The lab that signed it. */
    lab: Type.String({ minLength: 1, maxLength: 100 }),
    /** The lab's public key, as SPKI in base64. */
    key: Base64,
    signature: Base64,
  },
  Closed,
);
export type Proof = Static<typeof ProofSchema>;
