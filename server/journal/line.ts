import { createHash } from "node:crypto";

/** An accepted command, as one line of the journal. */
export interface Line {
  /** Counts the lines of one journal, from 1. */
  readonly seq: number;
  /** Tells it from every other; the ids of rows that the command makes follow from it. */
  readonly id: string;
  /** When it was accepted, by this server's clock. */
  readonly at: string;
  readonly kind: string;
  /** What was asked for, as the command of this kind takes it. */
  readonly data: unknown;
  /** How far lines were known to be on the disk when this one was written. */
  readonly flushed: number;
  /** Checksum of the line before; empty in the first one. */
  readonly before: string;
  /** Checksum of all that stands before it in this line. */
  readonly check: string;
}

/** The end of a chain of lines: everything before it follows from its checksum. */
export type Head = Pick<Line, "seq" | "check">;

/** The head of a chain without a line. */
export const beginning: Head = { seq: 0, check: "" };

const sha256 = (text: string): string => createHash("sha256").update(text).digest("hex");

/** A line with its checksum, and the text that is written of it. */
export function sealed({ seq, id, at, kind, data, flushed, before }: Omit<Line, "check">): {
  readonly line: Line;
  readonly text: string;
} {
  const parts = { seq, id, at, kind, data, flushed, before };
  const body = JSON.stringify(parts);
  const check = sha256(body);
  return { line: { ...parts, check }, text: `${body.slice(0, -1)},"check":"${check}"}\n` };
}

const shape = /^(\{"seq":.*),"check":"([0-9a-f]{64})"\}$/s;

/** The line that a text is; null where it is none, or is not what was written. */
export function readLine(text: string): Line | null {
  const [, body = "", check = ""] = shape.exec(text) ?? [];
  if (check === "" || sha256(`${body}}`) !== check) return null;
  return { ...(JSON.parse(`${body}}`) as Omit<Line, "check">), check };
}
