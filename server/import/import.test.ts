import { generateKeyPairSync } from "node:crypto";
import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { parse } from "csv-parse/sync";
import { strToU8, zipSync } from "fflate";
import { mustHold } from "~/core/result";
import type { RunRecord, UsedSolution } from "~/core/run";
import { plain } from "~/core/testing/plain";
import { inEnglish } from "~/core/text";
import { type Incoming, readArchive, readIncoming } from "~/formats/archive/read";
import { archiveOf } from "~/formats/archive/write";
import { unzipped } from "~/formats/archive/zip";
import type { RunFile } from "~/formats/concluded";
import { signed } from "~/formats/proof/sign";
import { resultsOf } from "~/formats/results/stated";
import { houseRules } from "../database/schema";
import { type OpenDatabase, openDatabase } from "../lab/open-database";
import { loadRunRecord } from "../queries/stored-run";
import { wholeShelf, partsOfLab } from "../queries/whole-lab";
import { labTrail } from "../queries/lab-trail";
import { checkLab } from "../backup/check";
import { searchFinishedRuns, listOpenRuns } from "../queries/runs";
import { listShelf } from "../queries/shelf";
import { seedDemo } from "../seed/demo";
import { importStatusOf } from "./import-status";
import { importRecords } from "./import-records";
import { packed, type PackedImport, unpacked } from "./packed";

/* A whole lab leaves by its archive, and comes into an empty one: what stands there is what stood here. */

const { privateKey } = generateKeyPairSync("ed25519");
const signer = { lab: "lab-of-the-test", privateKey };
const now = new Date("2026-11-30T10:00:00Z");
const sign = (file: RunFile) => signed(file, signer, now);

let [from, to]: OpenDatabase[] = [];
let archive: Uint8Array;
let runs: readonly RunFile[];

beforeAll(async () => {
  from = await openDatabase(null);
  to = await openDatabase(null);
  await seedDemo(from.db, new Date("2026-11-28T08:00:00Z"));
  const parts = await partsOfLab(from.db, sign);
  runs = parts.runs;
  archive = await archiveOf(parts, signer, now);
}, 120_000);
afterAll(async () => {
  await from?.close();
  await to?.close();
});

const bring = (incoming: Incoming) => {
  const { methods, shelf } = incoming;
  const asked = { file: "lab.zip", person: "M. Finn", from: null, methods, shelf };
  return importRecords(to!.db, { ...asked, runs: incoming.runs.map(({ record }) => record) }, now);
};
const recordIn = async (open: OpenDatabase | undefined, id: string) => {
  const record = await loadRunRecord(open!.db, id);
  if (!record) throw new Error(`run ${id} is not there`);
  return record;
};
/** Bottles keep their ids, and are called by another number where theirs is taken. */
const unlabeled = ({ solutions, ...record }: RunRecord) => ({
  ...record,
  solutions: solutions?.map(({ code: _, ...used }) => used),
});
const filesOf = (bytes: Uint8Array) => ({ ...Object.fromEntries(mustHold(unzipped(bytes))) });
const wordsOf = (all: readonly Parameters<typeof inEnglish>[0][]) => all.map(inEnglish);

describe("an archive of the demo lab", () => {
  test("is as it was signed, and each of its runs gives the results that it states", async () => {
    const incoming = mustHold(await readIncoming("lab.zip", archive));
    expect(incoming.findings).toEqual([]);
    expect(incoming.unusable).toEqual([]);
    expect(incoming.runs.length).toBeGreaterThan(15);
    for (const run of incoming.runs)
      expect([run.record.title, run.signed, run.findings, run.differences]).toEqual([
        run.record.title,
        true,
        [],
        [],
      ]);
    expect(incoming.runs.filter(({ record }) => resultsOf(record).length > 0).length).toBeGreaterThan(10);
  });

  test("comes into an empty lab as it was: readings, results, methods, shelf and lists", async () => {
    const incoming = mustHold(await readIncoming("lab.zip", archive));
    const taken = await bring(incoming);
    expect(taken.runs).toHaveLength(runs.length);
    for (const { id } of runs) {
      const [there, here] = [await recordIn(from, id), await recordIn(to, id)];
      expect(unlabeled(here)).toEqual(unlabeled(there));
      expect(resultsOf(here)).toEqual(resultsOf(there));
    }
    expect(await wholeShelf(to!.db)).toEqual(await wholeShelf(from!.db));
    const listed = async (open: OpenDatabase) =>
      [...(await listOpenRuns(open.db)), ...(await searchFinishedRuns(open.db, "", { limit: 500 })).runs]
        .map(({ id, title, summary }) => ({ id, title, summary }))
        .sort((a, b) => (a.id < b.id ? -1 : 1));
    expect(await listed(to!)).toEqual(await listed(from!));
    const [newest] = await labTrail(to!.db, { words: [], about: null, before: null, limit: 1 });
    expect(newest).toMatchObject({ subject: "lab.zip", person: "M. Finn", what: "imported from a file" });
  });

  test("imported twice is there once", async () => {
    const incoming = mustHold(await readIncoming("lab.zip", archive));
    expect(await importStatusOf(to!.db, incoming.runs[0]!.record)).toEqual({ state: "here" });
    expect((await bring(incoming)).runs).toEqual([]);
    expect((await wholeShelf(to!.db)).bottles).toHaveLength((await wholeShelf(from!.db)).bottles.length);
  });

  test("tells which reading was altered, what was removed and what was put in", async () => {
    const files = filesOf(archive);
    const burette = ({ stages }: RunFile) =>
      stages
        .flatMap((s) => s.trials.flatMap((t) => t.observations))
        .find(({ kind, value }) => kind === "burette.final" && value !== null);
    const [meant, another] = runs.filter(burette).map(({ id }) => `runs/${id}.json`);
    const [first, second] = [meant!, another!];
    const file = JSON.parse(new TextDecoder().decode(files[first])) as RunFile;
    const reading = burette(file)!;
    const text = (Number(reading.value) + 0.01).toFixed(2);
    Object.assign(reading, { text, value: text });
    files[first] = strToU8(JSON.stringify(file));
    const { [second]: _, ...others } = files;
    const altered = zipSync({ ...others, "runs/more.json": strToU8("{}") });
    const read = mustHold(readArchive(altered));
    expect(wordsOf(read.findings)).toEqual([
      `Removed from the archive: ${second}`,
      `Altered: ${first}`,
      "Added to the archive after it was signed: runs/more.json",
    ]);
    const incoming = mustHold(await readIncoming("lab.zip", altered));
    const run = incoming.runs.find(({ record }) => record.id === file.id);
    expect(run?.findings.map(({ code, id }) => [code, id])).toEqual([["altered", reading.id]]);
    expect(incoming.unusable.map(({ name }) => name)).toEqual(["runs/more.json"]);
  });

  test("holds a table of all results that another library reads", () => {
    const rows = parse<Record<string, string>>(
      new TextDecoder("utf-8", { ignoreBOM: true }).decode(filesOf(archive)["runs.csv"]),
      { columns: true },
    );
    const stated = runs.flatMap(({ id, results = [] }) =>
      results.map(({ stage: _, ...r }) => [id, r.symbol, r.value, r.standardUncertainty, r.unit]),
    );
    expect(
      rows
        .filter((row) => row.result !== "")
        .map((row) => [
          row.run,
          row.letter,
          Number(row.result),
          Number(row["standard uncertainty"]),
          row.unit,
        ]),
    ).toEqual(stated);
  });
});

describe("a record", () => {
  const one = () => runs.find(({ results = [] }) => results.length > 0)!;
  const bytes = (value: unknown) => strToU8(JSON.stringify(value));
  const problemsOf = async (content: Uint8Array) =>
    mustHold(await readIncoming("x.json", content)).unusable.flatMap(({ problems }) =>
      problems.map(({ message }) => inEnglish(message)),
    );

  test("whose results are not what its readings give is reported, number by number", async () => {
    const results = one().results!.map((r, i) =>
      i === 0 ? { ...r, value: r.value * 1.001, shown: "9" } : r,
    );
    const [run] = mustHold(await readIncoming("x.json", bytes({ ...one(), results }))).runs;
    expect(run?.differences).toEqual([
      {
        ...{ stage: results[0]!.stage, symbol: results[0]!.symbol, stated: "9" },
        computed: one().results![0]!.shown,
      },
    ]);
    expect(run?.findings.map(({ code, id }) => [code, id])).toEqual([["altered", "results"]]);
  });

  test("that is here already, and says otherwise, changes nothing", async () => {
    const record = await recordIn(to, one().id);
    expect(await importStatusOf(to!.db, { ...record, sample: "another" })).toMatchObject({
      state: "refused",
    });
    // The same readings under another run's name.
    const copy = { ...record, id: "01a00000-0000-7000-8000-000000000001" };
    expect(await importStatusOf(to!.db, copy)).toMatchObject({ state: "refused" });
    expect(await importStatusOf(to!.db, { ...copy, id: "run-7" })).toMatchObject({ state: "refused" });
    const fromShelf = runs.find(({ solutions = [] }) => solutions.length > 0)!;
    const without = { ...(await recordIn(to, fromShelf.id)), solutions: [] };
    expect(plain(await importStatusOf(to!.db, without))).toMatchObject({
      ...{ state: "refused", why: expect.stringMatching(/names a bottle that is missing/) },
    });
  });

  /** The same run with other ids of its own, which begin with this digit. */
  const withIds = (record: RunRecord, digit: number) =>
    JSON.parse(
      JSON.stringify(record).replace(/"(id|trialId|supersedes)":"0([0-9a-f]{7})-/g, `"$1":"${digit}$2-`),
    ) as RunRecord;

  /** The same, and one concentration of its bottles changed. */
  const renamed = (record: RunRecord, change: (solution: UsedSolution) => UsedSolution): RunRecord => {
    const own = withIds(record, 2);
    return {
      ...own,
      solutions: own.solutions!.map((solution, i) => (i === 0 ? change(solution) : solution)),
    };
  };

  test("that stands in its file twice, or shares its parts with another one there, is imported once", async () => {
    const record = await recordIn(to, one().id);
    const [first, second] = [withIds(record, 3), withIds(record, 4)];
    const given = { file: "both.zip", person: "M. Finn", from: null, methods: [], shelf: null };
    const asked = { ...given, runs: [first, first, { ...first, id: second.id }, second] };
    // A line of the journal holds the method once, and gives the same runs back; one of an earlier version is taken as it is.
    const line = JSON.parse(JSON.stringify(packed(asked))) as PackedImport;
    expect([line.packed.length, line.shared.methods.length, line.shared.rules.length]).toEqual([4, 1, 1]);
    expect(unpacked(line)).toEqual(JSON.parse(JSON.stringify(asked)));
    expect(unpacked(asked)).toBe(asked);
    const rules = await to!.db.$count(houseRules);
    expect((await importRecords(to!.db, asked, now)).runs).toEqual([first.id, second.id]);
    // They follow the rules of this lab, of which there is no copy for each.
    expect(await to!.db.$count(houseRules)).toBe(rules);
    expect(await recordIn(to, first.id)).toEqual(first);
    expect(resultsOf(await recordIn(to, second.id))).toEqual(resultsOf(record));
  });

  test("that took another concentration from a bottle of this lab leaves the bottle as it is", async () => {
    const record = await recordIn(to, runs.find(({ solutions = [] }) => solutions.length > 0)!.id);
    const before = await wholeShelf(to!.db);
    const current = async () =>
      (await listShelf(to!.db, true)).map(({ id, current: c }) => [id, c?.id, c?.value]);
    const held = await current();
    const asked = { file: "x.json", person: "M. Finn", from: null, methods: [], shelf: null };

    const altered = renamed(record, (solution) => ({ ...solution, value: "9.9" }));
    expect(plain(await importStatusOf(to!.db, altered))).toMatchObject({
      ...{ state: "refused", why: expect.stringMatching(/another concentration in this lab/) },
    });
    const newId = "01a00000-0000-7000-8000-0000000000aa";
    const old = record.solutions![0]!.assignmentId;
    const text = JSON.stringify(
      renamed(record, (s) => ({ ...s, value: "9.9", at: "2027-01-01T00:00:00.000Z" })),
    );
    const another = JSON.parse(text.replaceAll(old, newId)) as RunRecord;
    expect((await importRecords(to!.db, { ...asked, runs: [another] }, now)).runs).toEqual([another.id]);
    expect((await recordIn(to, another.id)).solutions).toContainEqual(
      expect.objectContaining({ assignmentId: newId, value: "9.9" }),
    );
    expect(await current()).toEqual(held);
    expect((await wholeShelf(to!.db)).bottles).toHaveLength(before.bottles.length);
    // An archive of this lab as it was before, with one concentration more for that bottle: it is on the shelf, and stays as it is.
    const bottles = before.bottles.map((bottle) => ({
      ...bottle,
      assignments: bottle.assignments.map((one) => ({ ...one, id: one.id.replace(/^0/, "3"), value: "7.7" })),
    }));
    await importRecords(to!.db, { ...asked, runs: [], shelf: { ...before, bottles } }, now);
    expect(await current()).toEqual(held);
    expect((await checkLab(to!.db)).findings).toEqual([]);
  });

  test("by a method that bears the name of another one here keeps its own beside it", async () => {
    const record = await recordIn(to, one().id);
    const fresh = JSON.parse(
      JSON.stringify({ ...record, method: { ...record.method, purpose: "Said otherwise" } }).replace(
        /"(id|trialId|supersedes)":"0([0-9a-f]{7})-/g,
        '"$1":"1$2-',
      ),
    ) as RunRecord;
    const asked = { file: "x.json", person: "M. Finn", from: null, methods: [], shelf: null };
    await importRecords(to!.db, { ...asked, runs: [fresh] }, now);
    const written = await recordIn(to, fresh.id);
    expect(written.method.id).toMatch(new RegExp(`^${record.method.id}-[0-9a-f]{8}$`));
    expect(written.method.purpose).toBe("Said otherwise");
    expect(resultsOf(written)).toEqual(resultsOf(record));
    expect(await importStatusOf(to!.db, fresh)).toEqual({ state: "here" });
    expect((await recordIn(to, record.id)).method).toEqual(record.method);
  });

  test("of another kind, of a newer program, cut off or in another encoding is refused in words", async () => {
    expect((await problemsOf(bytes({ hello: 1 })))[0]).toMatch(/not a run record/);
    expect((await problemsOf(bytes({ ...one(), formatVersion: 2 })))[0]).toMatch(
      /newer program: format version 2/,
    );
    expect((await problemsOf(bytes(one()).slice(0, 5000)))[0]).toMatch(/cut off/);
    expect((await problemsOf(Uint8Array.of(0x22, 0xe4, 0x22)))[0]).toMatch(/UTF-8/);
    const utf16 = new Uint8Array(Buffer.from(`\ufeff${JSON.stringify(one())}`, "utf16le"));
    expect(mustHold(await readIncoming("x.json", utf16)).runs[0]?.findings).toEqual([]);
  });
});

describe("a ZIP archive that is none of ours", () => {
  const refusal = async (content: Uint8Array) => {
    const read = await readIncoming("x.zip", content);
    return read.ok ? null : inEnglish(read.problem.message);
  };

  test.each([
    ["cut off", () => archive.slice(0, archive.length / 2), /cut off/],
    ["climbing out", () => zipSync({ "../runs/x.json": strToU8("{}") }), /leads out of it/],
    ["absolute", () => zipSync({ "/etc/x": strToU8("{}") }), /leads out of it/],
    ["of another system", () => zipSync({ "runs\\x.json": strToU8("{}") }), /leads out of it/],
    ["about nothing", () => zipSync({ "a.txt": strToU8("a") }), /holds no runs/],
    ["a bomb", () => zipSync({ "runs/x.json": new Uint8Array(65 * 1024 * 1024) }), /larger than/],
  ])("%s is refused", async (_, content, words) => {
    expect(await refusal(content())).toMatch(words);
  });

  test("that lies of its size is held to what it says", async () => {
    const bomb = zipSync({ "runs/x.json": new Uint8Array(1024 * 1024) });
    const view = new DataView(bomb.buffer, bomb.byteOffset, bomb.byteLength);
    // The size in the central directory, which readers go by.
    const directory = Buffer.from(bomb).lastIndexOf(Buffer.from("PK\x01\x02", "latin1"));
    view.setUint32(directory + 24, 10, true);
    const read = mustHold(await readIncoming("x.zip", bomb));
    expect(read.unusable).toHaveLength(1);
  });
});
