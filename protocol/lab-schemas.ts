import { type Static, Type } from "@sinclair/typebox";

/** What may be asked of the lab as a whole, as JSON. */

const Closed = { additionalProperties: false } as const;
const Person = Type.String({ minLength: 1, maxLength: 120, pattern: "\\S" });
/** The name of a backup: that of its file. */
const Name = Type.String({ pattern: "^lab-[\\w-]+\\.tar\\.gz$", maxLength: 120 });

export const LabRequestSchema = Type.Union([
  Type.Object({ intent: Type.Literal("backup") }, Closed),
  Type.Object({ intent: Type.Literal("check") }, Closed),
  Type.Object({ intent: Type.Literal("restore"), name: Name, person: Person }, Closed),
  Type.Object(
    {
      intent: Type.Literal("restore-run"),
      name: Name,
      runId: Type.String({ format: "uuid" }),
      person: Person,
    },
    Closed,
  ),
  /** The clock stood too far ahead before; it is right now. */
  Type.Object({ intent: Type.Literal("clock"), person: Person }, Closed),
  /** What stands at the head of a report: three lines at most. */
  Type.Object(
    {
      intent: Type.Literal("letterhead"),
      text: Type.String({ maxLength: 240, pattern: "^[^\\n]*(\\n[^\\n]*){0,2}$" }),
      person: Person,
    },
    Closed,
  ),
]);
export type LabRequest = Static<typeof LabRequestSchema>;
