import { type Static, Type } from "@sinclair/typebox";
import { UsedSolutionSchema } from "~/core/run";
import { RunFileSchema } from "../concluded";

const Closed = { additionalProperties: false } as const;
const Id = Type.String({ format: "uuid" });
const Text = (maxLength: number) => Type.String({ maxLength });
const Instant = Type.String({ format: "date-time", maxLength: 40 });
const Decimal = Type.String({ pattern: "^\\d+(\\.\\d+)?$", maxLength: 60 });
const Nullable = <T extends Parameters<typeof Type.Optional>[0]>(schema: T) =>
  Type.Union([schema, Type.Null()]);

/** What an archive holds, and the lab's signature over it. */
export const ManifestSchema = Type.Object(
  {
    format: Type.Literal("steady-bead/archive"),
    formatVersion: Type.Literal(1),
    lab: Text(100),
    writtenAt: Instant,
    files: Type.Array(
      Type.Object(
        {
          path: Type.String({ minLength: 1, maxLength: 300 }),
          /** SHA-256 of its bytes. */
          sha256: Type.String({ pattern: "^[0-9a-f]{64}$" }),
          bytes: Type.Integer({ minimum: 0 }),
        },
        Closed,
      ),
      { maxItems: 50_000 },
    ),
    /** The lab's public key, as SPKI in base64, and its signature over all that stands above. */
    key: Type.String({ maxLength: 200 }),
    signature: Type.String({ maxLength: 200 }),
  },
  { ...Closed, $id: "archive-manifest", title: "What an archive of Steady Bead holds" },
);
export type Manifest = Static<typeof ManifestSchema>;

const AssignmentSchema = Type.Object(
  {
    id: Id,
    at: Instant,
    person: Text(1000),
    how: UsedSolutionSchema.properties.how,
    value: Decimal,
    /** Half a width where the shape is rectangular, a standard uncertainty where it is normal. */
    plusMinus: Decimal,
    shape: UsedSolutionSchema.properties.shape,
    unit: Text(80),
    /** The run and the stage that found it. */
    run: Nullable(Id),
    stage: Nullable(Text(80)),
    /** The assignments that it stands on. */
    sources: Type.Array(Id, { maxItems: 1000 }),
  },
  Closed,
);

/** Bottles and jars with all concentrations that they ever had, in the order in which these were given. */
export const ShelfFileSchema = Type.Object(
  {
    format: Type.Literal("steady-bead/shelf"),
    formatVersion: Type.Literal(1),
    bottles: Type.Array(
      Type.Object(
        {
          id: Id,
          number: Type.Integer({ minimum: 1, maximum: 2_000_000_000 }),
          form: Type.Union([Type.Literal("solution"), Type.Literal("solid")]),
          formula: Text(200),
          name: Text(1000),
          madeAt: Instant,
          madeBy: Text(1000),
          amountMade: Nullable(Decimal),
          amountLeft: Nullable(Decimal),
          amountUnit: Type.Union([Type.Literal("mL"), Type.Literal("g")]),
          restandardizeBy: Nullable(Type.String({ format: "date" })),
          usedUpAt: Nullable(Instant),
          hazards: Text(10_000),
          note: Text(10_000),
          /** What it was made by, as a run record. */
          making: Nullable(Type.Omit(RunFileSchema, ["results", "proof"])),
          assignments: Type.Array(AssignmentSchema, { maxItems: 10_000 }),
        },
        Closed,
      ),
      { maxItems: 20_000 },
    ),
  },
  { ...Closed, $id: "shelf", title: "The shelf of a lab of Steady Bead" },
);
export type ShelfFile = Static<typeof ShelfFileSchema>;
export type ShelfBottle = ShelfFile["bottles"][number];
