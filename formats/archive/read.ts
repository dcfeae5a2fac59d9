import { setImmediate as letOthersRun } from "node:timers/promises";
import { failure, type Result, success } from "~/core/result";
import { msg, type Phrase } from "~/core/text";
import type { Method } from "~/core/method";
import type { RunRecord } from "~/core/run";
import { valid as validShelf } from "../compiled/shelf";
import { readMethodFile } from "../method-file";
import type { RunFile } from "../concluded";
import { type Finding, findings } from "../proof/verify";
import { type Difference, differencesOf } from "../results/stated";
import { readRunRecord } from "../run-report";
import { pathChecker, type PathProblem } from "../validate";
import { manifestHolds, manifestName, manifestProblems, sha256OfBytes } from "./manifest";
import type { Manifest, ShelfFile } from "./schema";
import { type Entries, isZip, unzipped } from "./zip";
import { fingerprint, hasFingerprint } from "../proof/sign";

/** A run that came from outside: what it is, whether it is as it was signed, and whether its results follow from its readings. */
export interface IncomingRun {
  readonly record: RunRecord;
  /** True where the file carries a signature at all. */
  readonly signed: boolean;
  readonly findings: readonly Finding[];
  readonly differences: readonly Difference[];
}

/** A file that cannot be taken, and why. */
export interface Unusable {
  readonly name: string;
  readonly problems: readonly PathProblem[];
}

/** What a file from outside brings. */
export interface Incoming {
  readonly runs: readonly IncomingRun[];
  readonly methods: readonly Method[];
  readonly shelf: ShelfFile | null;
  readonly unusable: readonly Unusable[];
  /** In what the archive itself is not as it was written. */
  readonly findings: readonly Phrase[];
}

const whole = (message: Phrase): PathProblem[] => [{ path: "the whole", message }];

/** The text of a file: UTF-8, or UTF-16 where it says so by its mark. */
export function textOf(bytes: Uint8Array): Result<string> {
  const marks = [
    ["utf-16le", 0xff, 0xfe],
    ["utf-16be", 0xfe, 0xff],
  ] as const;
  const encoding = marks.find(([, a, b]) => bytes[0] === a && bytes[1] === b)?.[0] ?? "utf-8";
  try {
    return success(new TextDecoder(encoding, { fatal: true }).decode(bytes));
  } catch {
    return failure(msg`It is not UTF-8 text: save it again in that encoding`);
  }
}

function jsonOf(bytes: Uint8Array): Result<unknown> {
  const text = textOf(bytes);
  if (!text.ok) return text;
  try {
    return success(JSON.parse(text.value) as unknown);
  } catch {
    return failure(msg`It is not JSON, or it is cut off`);
  }
}

/** What a JSON file says it is, where it is no run record of this program; null where nothing can be said before looking closer. */
function foreign(value: unknown): Phrase | null {
  const { format, formatVersion } = (value ?? {}) as { format?: unknown; formatVersion?: unknown };
  if (format !== "steady-bead/run") return msg`It is not a run record of Steady Bead`;
  if (typeof formatVersion === "number" && formatVersion > 1)
    return msg`It was written by a newer program: format version ${formatVersion}, and this program reads version 1`;
  return null;
}

/** A run record from a file's bytes, with what was found out about it; or what is wrong with it. */
export function incomingRun(bytes: Uint8Array): IncomingRun | { readonly problems: readonly PathProblem[] } {
  const value = jsonOf(bytes);
  if (!value.ok) return { problems: whole(value.problem.message) };
  const other = foreign(value.value);
  if (other) return { problems: whole(other) };
  const read = readRunRecord(value.value);
  if ("problems" in read) return read;
  const file = value.value as RunFile;
  return {
    record: read.record,
    signed: file.proof !== undefined,
    findings: file.proof ? findings(file) : [],
    differences: differencesOf(read.record, file.results),
  };
}

/** Where the files of an archive are not those that it was signed with. */
function manifestFindings(entries: Entries, manifest: Manifest, expected?: string): Phrase[] {
  const listed = new Map(manifest.files.map((file) => [file.path, file]));
  return [
    ...manifest.files
      .filter(({ path }) => !entries.has(path))
      .map(({ path }) => msg`Removed from the archive: ${path}`),
    ...[...entries].flatMap(([path, bytes]) => {
      if (path === manifestName) return [];
      const file = listed.get(path);
      if (!file) return [msg`Added to the archive after it was signed: ${path}`];
      return file.sha256 === sha256OfBytes(bytes) ? [] : [msg`Altered: ${path}`];
    }),
    ...(manifestHolds(manifest) ? [] : [msg`The signature does not belong to this archive`]),
    ...(expected !== undefined && !hasFingerprint(manifest.key, expected)
      ? [msg`It was signed with another key: ${fingerprint(manifest.key)}`]
      : []),
  ];
}

export interface ReadArchive {
  readonly entries: Entries;
  /** Null where it has none, or none that can be read. */
  readonly manifest: Manifest | null;
  readonly findings: readonly Phrase[];
}

/** An archive unpacked and held against its manifest. `expected` is the fingerprint of the lab's key. */
export function readArchive(bytes: Uint8Array, expected?: string): Result<ReadArchive> {
  const unpacked = unzipped(bytes);
  if (!unpacked.ok) return unpacked;
  const entries = unpacked.value;
  const there = entries.get(manifestName);
  const none = (message: Phrase) => success({ entries, manifest: null, findings: [message] });
  if (!there) return none(msg`The archive has no manifest, so it cannot be verified`);
  const value = jsonOf(there);
  const [wrong] = value.ok ? manifestProblems(value.value) : whole(value.problem.message);
  if (wrong || !value.ok) return none(msg`The manifest of the archive is damaged`);
  const manifest = value.value as Manifest;
  return success({ entries, manifest, findings: manifestFindings(entries, manifest, expected) });
}

const mostShelfValues = 2_000_000;
const shelfProblems = pathChecker(validShelf, mostShelfValues);

function shelfOf(bytes: Uint8Array): { shelf: ShelfFile } | { problems: readonly PathProblem[] } {
  const value = jsonOf(bytes);
  if (!value.ok) return { problems: whole(value.problem.message) };
  const problems = shelfProblems(value.value);
  return problems.length > 0 ? { problems } : { shelf: value.value as ShelfFile };
}

/** What an archive brings: runs, methods and the shelf. Tables and house rules in it are for people to read. */
async function incomingArchive(bytes: Uint8Array): Promise<Result<Incoming>> {
  const archive = readArchive(bytes);
  if (!archive.ok) return archive;
  const runs: IncomingRun[] = [];
  const methods: Method[] = [];
  const unusable: Unusable[] = [];
  let shelf: ShelfFile | null = null;
  for (const [name, content] of archive.value.entries) {
    // Other requests are answered between two files.
    await letOthersRun();
    if (/^runs\/[^/]+\.json$/.test(name)) {
      const run = incomingRun(content);
      if ("problems" in run) unusable.push({ name, problems: run.problems });
      else runs.push(run);
    } else if (/^methods\/[^/]+\.json$/.test(name)) {
      const text = textOf(content);
      const read = text.ok ? readMethodFile(text.value) : { problems: whole(text.problem.message) };
      if ("problems" in read) unusable.push({ name, problems: read.problems });
      else methods.push(read.method);
    } else if (name === "shelf.json") {
      const read = shelfOf(content);
      if ("problems" in read) unusable.push({ name, problems: read.problems });
      else shelf = read.shelf;
    }
  }
  if (runs.length + methods.length + unusable.length === 0 && shelf === null)
    return failure(msg`The archive holds no runs, no methods and no shelf`);
  return success({ runs, methods, shelf, unusable, findings: archive.value.findings });
}

/** What a file brings that people chose: a run record, or an archive of a lab. Never throws; nothing is changed by looking. */
export async function readIncoming(name: string, bytes: Uint8Array): Promise<Result<Incoming>> {
  if (isZip(bytes)) return incomingArchive(bytes);
  const run = incomingRun(bytes);
  const nothing = { methods: [], shelf: null, findings: [] };
  return success(
    "problems" in run
      ? { ...nothing, runs: [], unusable: [{ name, problems: run.problems }] }
      : { ...nothing, runs: [run], unusable: [] },
  );
}
