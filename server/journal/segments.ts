import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync } from "node:fs";
import path from "node:path";
import { flush, writeDurably } from "../database/durable-file";
import { type Head, type Line, readLine } from "./line";

/** How far a database has come in a journal. */
export interface Mark extends Head {
  readonly journal: string;
}

/** What a journal is replayed on: an empty database, or a backup with what it held of another journal. */
export type Base =
  | { readonly kind: "empty" }
  | { readonly kind: "backup"; readonly name: string; readonly sha256: string; readonly held: Mark | null };

/** The first line of each file of a journal. */
export interface Header {
  readonly format: "steady-bead/journal";
  readonly formatVersion: 1;
  readonly journal: string;
  readonly lab: string;
  readonly begun: string;
  /** The line behind which this file begins. */
  readonly after: Head;
  /** In the first file of a journal; null where only a backup that is made later can be its base. */
  readonly base?: Base | null;
}

/** A line that was on the disk and is not what it was. */
export interface Fault {
  readonly file: string;
  /** The line that should stand there. */
  readonly seq: number;
  readonly what: "altered" | "out of order";
}

export interface Segment {
  readonly file: string;
  readonly header: Header;
  readonly lines: readonly Line[];
  /** Bytes up to the end of the last line that counts; what follows was never confirmed. */
  readonly bytes: number;
}

export interface StoredJournal {
  readonly id: string;
  readonly base: Base | null;
  /** The line behind which the oldest file begins. */
  readonly after: Head;
  readonly head: Head;
  readonly segments: readonly Segment[];
  readonly faults: readonly Fault[];
}

export const journalFolder = (folder: string): string => path.join(folder, "journal");

const prefix = "journal-";
const segmentName = (after: number) => `${prefix}${String(after + 1).padStart(9, "0")}.jsonl`;

/** Begins a file of a journal: there whole, or not at all. */
export function writeSegment(folder: string, header: Header): string {
  const place = journalFolder(folder);
  if (!existsSync(place)) {
    mkdirSync(place);
    flush(folder);
  }
  const file = path.join(place, segmentName(header.after.seq));
  writeDurably(file, `${JSON.stringify(header)}\n`);
  return file;
}

export function removeSegments(segments: readonly Segment[]): void {
  for (const { file } of segments) rmSync(file, { force: true });
}

/** Reads the lines behind a header. What comes after the last one that was confirmed, and cannot be read, is left out. */
function readSegment(file: string, header: Header, body: Buffer, from: number) {
  const lines: Line[] = [];
  const faults: Fault[] = [];
  /** Lines that cannot be read, where nothing says yet that they had been on the disk. */
  let doubtful: Fault[] = [];
  let counted = from;
  let [at, before] = [from, header.after];
  while (at < body.length) {
    const end = body.indexOf(0x0a, at);
    const line = end === -1 ? null : readLine(body.toString("utf8", at, end));
    if (line === null) doubtful.push({ file, seq: before.seq + doubtful.length + 1, what: "altered" });
    // A line that says of those before it that they were on the disk tells damage from what was never confirmed.
    else if (doubtful.length === 0 || line.flushed > before.seq) {
      if (doubtful.length === 0 && (line.before !== before.check || line.seq !== before.seq + 1))
        faults.push({ file, seq: before.seq + 1, what: "out of order" });
      faults.push(...doubtful);
      doubtful = [];
      lines.push(line);
      before = line;
      counted = end + 1;
    }
    if (end === -1) break;
    at = end + 1;
  }
  return { segment: { file, header, lines, bytes: counted }, faults, head: before };
}

/**
 * All of the journal in a folder, with what is wrong with it; null where there is none. Throws where the first line of a file
 * cannot be read.
 */
export function readJournal(folder: string): StoredJournal | null {
  const place = journalFolder(folder);
  if (!existsSync(place)) return null;
  const names = readdirSync(place)
    .filter((name) => name.startsWith(prefix) && name.endsWith(".jsonl"))
    .sort();
  const segments: Segment[] = [];
  const faults: Fault[] = [];
  let head: Head | null = null;
  for (const name of names) {
    const file = path.join(place, name);
    const body = readFileSync(file);
    const end = body.indexOf(0x0a);
    const header = JSON.parse(body.toString("utf8", 0, end === -1 ? body.length : end)) as Header;
    if (head && (header.after.seq !== head.seq || header.after.check !== head.check))
      faults.push({ file, seq: head.seq + 1, what: "out of order" });
    const read = readSegment(file, header, body, end + 1);
    segments.push(read.segment);
    faults.push(...read.faults);
    head = read.head;
  }
  const [first] = segments;
  if (!first || !head) return null;
  const { journal: id, base = null, after } = first.header;
  return { id, base, after, head, segments, faults };
}
