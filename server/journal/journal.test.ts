import { randomUUID } from "node:crypto";
import { appendFileSync, cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { afterAll, describe, expect, jest, test } from "@jest/globals";
import { sql } from "drizzle-orm";
import { methods } from "~/catalog/methods";
import { baseByPhthalateThenAcid } from "~/catalog/methods/acid-base/base-by-phthalate-then-acid";
import { defaultHouseRules } from "~/catalog/rules/defaults";
import { mustHold } from "~/core/result";
import type { Mapping } from "~/formats/table/mapping";
import { sheetOfText } from "~/formats/table/sheet";
import type { AddSolution, MakeSolution } from "~/protocol/shelf";
import { Dice, wellFormed } from "~/scripts/fuzz-requests";
import { makeBackup } from "../backup/make";
import { chosenBackup, restoreLab } from "../backup/restore";
import { changeRun } from "../commands/change-run";
import { saveHouseRules } from "../commands/house-rules";
import { saveLetterhead, setClockRight } from "../commands/lab";
import { bringMethodBack, removeMethod, saveMethod } from "../commands/methods";
import { editSolution, makeSolution, putAll } from "../commands/shelf";
import { importTable, tableTargets } from "../import/import-table";
import { startRun } from "../commands/start-run";
import type { Database } from "../database/types";
import { type OpenDatabase, openDatabase } from "../lab/open-database";
import { loadRunRecord, loadRunState } from "../queries/stored-run";
import { listShelf } from "../queries/shelf";
import { benchOn, reading } from "../tests/bench";
import { checkJournal } from "./check";
import { readLine, sealed } from "./line";
import { readJournal } from "./segments";
import { journalOf } from "./recorded";

/* The journal: what was confirmed is on the disk, in order, and gives the same lab again. */

const root = mkdtempSync(path.join(tmpdir(), "steady-bead-journal-"));
process.env.STEADY_BEAD_LABS = path.join(root, "labs.json");
jest.setTimeout(300_000);
afterAll(() => {
  delete process.env.STEADY_BEAD_BOOT;
  rmSync(root, { recursive: true, force: true });
});

let open: OpenDatabase;
const { begin, change } = benchOn(() => open);
let folders = 0;
const newFolder = () => path.join(root, `lab-${++folders}`);

const tables = [
  ...["lab", "method", "house_rules", "run", "stage", "trial", "observation", "trace", "timer", "run_event"],
  ...["lab_event", "solution", "assignment", "assignment_source", "recomputation"],
];

/** All rows of a database, in the order in which they were written; how a sequence counts them is no part of it. */
async function everything(db: Database): Promise<Record<string, string[]>> {
  const found: Record<string, string[]> = {};
  for (const table of tables) {
    const columns = await db.execute<{ name: string }>(
      sql`select column_name as name from information_schema.columns where table_name = ${table}`,
    );
    const counted = columns.rows.some(({ name }) => name === "seq");
    const rows = await db.execute<{ row: string }>(
      sql.raw(
        `select (to_jsonb(t) - 'seq')::text as row from "${table}" t order by ${counted ? "t.seq" : "to_jsonb(t)::text"}`,
      ),
    );
    found[table] = rows.rows.map(({ row }) => row);
  }
  return found;
}

/** The files of a lab as they stand while it is open, as a machine leaves them that stops now. */
function leftOver(folder: string): string {
  const copy = newFolder();
  cpSync(folder, copy, { recursive: true });
  rmSync(path.join(copy, "server.lock"), { recursive: true, force: true });
  rmSync(path.join(copy, "server.pid"), { force: true });
  return copy;
}

/** Opens a lab on a machine that was started anew, looks, and closes it. */
async function afterCut<T>(folder: string, look: (lab: OpenDatabase) => Promise<T>): Promise<T> {
  process.env.STEADY_BEAD_BOOT = `boot ${Math.random()}`;
  const lab = await openDatabase(folder);
  try {
    return await look(lab);
  } finally {
    await lab.close();
  }
}

/** A table of one run, as somebody kept it. */
async function importOne(db: Database): Promise<void> {
  const rows =
    "Sample;Aliquot of acid;Initial reading;Final reading\nKT-1;25,00;0,00;20,00\nKT-1;25,00;0,00;20,02";
  const sheet = mustHold(sheetOfText(rows));
  const [method, stageKey] = [baseByPhthalateThenAcid, "determine"];
  const { targets, guessed } = await tableTargets(db, sheet, method, stageKey);
  const given = targets.find(({ needed, per }) => needed && per === "run")?.key ?? "";
  const mapping: Mapping = {
    ...{ methodId: method.id, stageKey, headings: true, decimal: "comma", dates: "ymd", zeros: false },
    ...{ columns: guessed, fixed: { [given]: "0.1000", date: "2025-11-14" } },
  };
  const asked = { sheet, mapping, method, person: "MB", file: "class.csv", from: null };
  const quiet = () => Promise.resolve();
  expect(mustHold(await importTable(db, asked, new Date(), quiet))).toEqual({ runs: 1, isHere: 0 });
}

/** Does everything once that can be done with a lab, and draws many requests to runs of some methods. */
async function muchWork(db: Database): Promise<void> {
  const dice = new Dice(16);
  const bottle: AddSolution = {
    ...{ intent: "add", form: "solution", formula: "NaOH", name: "Base", how: "certificate" },
    ...{ value: "0.1000", plusMinus: "0.0002", person: "MB", amount: "500", restandardizeBy: "" },
    ...{ hazards: "", note: "" },
  };
  const solid = { form: "solid", formula: "KHC8H4O4", name: "Phthalate", value: "99.95" } as const;
  await putAll(db, [bottle, { ...bottle, ...solid }]);
  // All or nothing: the bottle before the wrong one takes no number.
  expect(await putAll(db, [bottle, { ...bottle, value: "0" }])).toHaveProperty("problems");
  const jar = (await listShelf(db)).find(({ form }) => form === "solid")!;
  const weighed: MakeSolution = {
    ...{ intent: "make", formula: "KHC8H4O4", name: "Standard", person: "MB", amount: "250" },
    ...{ restandardizeBy: "", hazards: "", note: "", fromId: jar.id },
    making: {
      ...{ how: "weighed", solid: "KHC8H4O4", solidName: "phthalate", weighing: "transfer" },
      ...{ purity: { percent: "99.95", plusMinus: "0.05" }, flaskMl: "250.0" },
    },
    typed: { "m:mass.before": "8.1056", "m:mass.after": "3.0000" },
  };
  const made = await makeSolution(db, weighed);
  if ("problems" in made) throw new Error(JSON.stringify(made.problems));
  const there = (await listShelf(db)).find(({ id }) => id === made.id)!;
  await editSolution(db, made.id, {
    intent: "edit",
    ...{ name: "Standard of the class", amountLeft: "200", restandardizeBy: "", hazards: "", note: "" },
    ...{ usedUp: false, revision: there.revision, person: "MB", reason: "a label" },
  });
  const by = { person: "MB", reason: "tried" };
  const [own] = methods;
  await saveMethod(db, { ...own!, id: "own", title: "Own" }, by);
  await removeMethod(db, "own", by);
  await saveMethod(db, { ...own!, id: "own", title: "Own once more" }, by);
  const stood = await begin("Followed");
  await change(stood, {
    ...{
      intent: "start-timer",
      id: randomUUID(),
      stageKey: "standardize",
      trialId: null,
      what: "let it stand",
    },
    ...{ flask: "", counts: "for", strict: false, inSeconds: null, seconds: 60 },
  });
  const followed = "base-by-phthalate-then-acid";
  expect(await removeMethod(db, followed, by)).toBe("retired");
  await bringMethodBack(db, followed, by);
  await saveHouseRules(db, { ...defaultHouseRules, dropMl: 0.04 } as typeof defaultHouseRules, by);
  await setClockRight(db, "MB", null, new Date());
  await saveLetterhead(db, { text: "Tern Rock Aquarium", person: "MB" }, null, new Date());
  const drawn = [methods.find(({ id }) => id === followed)!, ...methods.slice(3, 30)];
  for (const method of drawn.filter((_, i) => i % 3 === 0)) {
    const start = {
      intent: "start",
      methodId: method.id,
      title: method.title,
      sample: "",
      bench: "1",
    } as const;
    const runId = mustHold(await startRun(db, start));
    for (let i = 0; i < 24; i++) {
      const record = await loadRunRecord(db, runId);
      if (!record) throw new Error("run missing");
      let request = wellFormed({ runId, method: record.method, record }, defaultHouseRules, dice);
      const { undo, redo } = (await loadRunState(db, runId)) ?? {};
      if (undo && dice.chance(0.15)) request = { intent: "undo", eventId: undo.eventId };
      if (redo && dice.chance(0.5)) request = { intent: "redo", eventId: redo.eventId };
      const answer = await changeRun(db, runId, request);
      // What is sent once more is not written once more.
      if (answer.status === "done" && request.intent === "observe")
        expect((await changeRun(db, runId, request)).status).toBe("done");
    }
  }
  await importOne(db);
  const empty = await begin("Begun by mistake");
  expect((await change(empty, { intent: "delete" })).status).toBe("done");
}

test("a journal replayed on an empty database gives the same rows, whatever was done", async () => {
  const folder = newFolder();
  open = await openDatabase(folder);
  await muchWork(open.db);
  const before = await everything(open.db);
  const left = leftOver(folder);
  await open.close();
  expect(Number(before.observation?.length)).toBeGreaterThan(60);
  for (const table of tables.filter((t) => !["recomputation", "trace"].includes(t)))
    expect([table, Number(before[table]?.length) > 0]).toEqual([table, true]);

  await afterCut(left, async (lab) => {
    expect(lab.recovered).toEqual([
      expect.stringMatching(
        /rebuilt from its beginning and \d+ changes in the journal; nothing that was confirmed is missing/,
      ),
    ]);
    const after = await everything(lab.db);
    // What was done to it stands in the lab's trail, as one line more.
    expect(after.lab_event?.pop()).toMatch(/rebuilt from its beginning/);
    for (const table of tables.filter((t) => t !== "lab"))
      expect([table, after[table]]).toEqual([table, before[table]]);
    const [was, is] = [before, after].map(({ lab: [row = "{}"] = [] }) => JSON.parse(row) as { id: string });
    expect(is?.id).toBe(was?.id);
  });
});

describe("after a power cut", () => {
  test("the database is put together from the newest backup, whatever its files hold, and goes on in the same journal", async () => {
    const folder = newFolder();
    open = await openDatabase(folder);
    const runId = await begin("Before the backup");
    await change(runId, reading("11111111-1111-4111-8111-111111111111", "m", "mass.before", "2.6106"));
    const backup = await makeBackup(open, folder, open.lab.id, "daily");
    const stored = await open.db.execute<{ chain: unknown }>(
      sql`select chain from lab_event where chain is not null`,
    );
    expect(stored.rows).toEqual([{ chain: backup.journal }]);
    const later = await begin("After it");
    const before = await everything(open.db);
    const left = leftOver(folder);
    await open.close();
    // Files of the database that are older than others, and one that is half written.
    writeFileSync(path.join(left, "postgres/global/pg_control"), "half");
    for (let cut = 1; cut <= 2; cut++) {
      await afterCut(left, async (lab) => {
        expect(lab.recovered[0]).toContain(`the backup of ${backup.at.slice(0, 16).replace("T", " ")} UTC`);
        open = lab;
        expect((await loadRunRecord(lab.db, later))?.title).toBe("After it");
        expect((await everything(lab.db)).observation).toHaveLength(cut);
        const other = `2222222${cut}-1111-4111-8111-111111111111`;
        expect(await change(later, reading(other, "m", "mass.before", "2.5000"))).toHaveProperty("state");
        expect(before.run).toHaveLength(2);
      });
      // The machine stops again, before the lab was closed.
      const marker = path.join(left, "lab.json");
      const text = JSON.parse(readFileSync(marker, "utf8")) as object;
      writeFileSync(marker, JSON.stringify({ ...text, open: "another boot" }));
    }
  });

  test("lines that were never confirmed are left out, and the journal goes on before them", async () => {
    const folder = newFolder();
    open = await openDatabase(folder);
    const runId = await begin();
    const left = leftOver(folder);
    const trial = "11111111-1111-4111-8111-111111111111";
    await change(runId, reading(trial, "m", "mass.before", "2.6106"));
    await open.close();
    const [{ segments: [segment] = [], head }] = [readJournal(left)!];
    const whole = readJournal(folder)!.segments[0]!.lines.at(-1)!;
    // Half a line: the cut came in the middle of a write.
    appendFileSync(segment!.file, JSON.stringify(whole).slice(0, 200));
    await afterCut(left, async (lab) => {
      open = lab;
      expect(readJournal(left)?.faults).toEqual([]);
      expect((await everything(lab.db)).observation).toHaveLength(0);
      await change(runId, reading(trial, "m", "mass.before", "2.6106"));
      expect((await everything(lab.db)).observation).toHaveLength(1);
    });
    const stored = readJournal(left)!;
    expect(stored.faults).toEqual([]);
    expect(stored.head.seq).toBe(head.seq + 2);
  });

  test("a damaged line is told as missing where it was needed, and only there", async () => {
    const folder = newFolder();
    open = await openDatabase(folder);
    const runId = await begin();
    for (let i = 1; i <= 3; i++)
      await change(runId, reading(`0000000${i}-1111-4111-8111-111111111111`, "m", "mass.before", "2.6106"));
    const left = leftOver(folder);
    await open.close();
    for (const place of [folder, left]) {
      const [segment] = readJournal(place)!.segments;
      const line = segment!.lines.at(-2)!;
      const text = readFileSync(segment!.file, "utf8");
      writeFileSync(
        segment!.file,
        text.replace(
          line.check,
          line.check.replace(/^./, (c) => (c === "0" ? "1" : "0")),
        ),
      );
    }
    const damaged = readJournal(left)!.faults.map(({ seq }) => seq);
    expect(damaged).toHaveLength(1);
    // The database was closed whole: nothing is missing in it, and the check tells of the line.
    open = await openDatabase(folder);
    expect(open.recovered).toEqual([]);
    expect(await checkJournal(open.db, folder)).toHaveLength(1);
    await open.close();
    await afterCut(left, async (lab) => {
      expect(lab.recovered[0]).not.toMatch(/nothing that was confirmed is missing/);
      expect(lab.recovered[1]).toContain(`Line ${damaged[0]} of the journal is damaged`);
      expect((await everything(lab.db)).observation).toHaveLength(2);
    });
  });

  test("a lab that was restored stays restored", async () => {
    const folder = newFolder();
    open = await openDatabase(folder);
    await begin("Kept");
    const backup = await makeBackup(open, folder, open.lab.id, "by hand");
    await begin("Given up");
    await open.close();
    await restoreLab(folder, chosenBackup(folder, backup.name));
    open = await openDatabase(folder);
    await begin("Begun since");
    const left = leftOver(folder);
    await open.close();
    await afterCut(left, async (lab) => {
      const titles = (await everything(lab.db)).run?.map(
        (row) => (JSON.parse(row) as { title: string }).title,
      );
      expect(titles?.sort()).toEqual(["Begun since", "Kept"]);
    });
  });
});

test("a line that was altered, taken out or put in is found; a chain made anew by the database and the trail", async () => {
  const folder = newFolder();
  open = await openDatabase(folder);
  const runId = await begin();
  for (let i = 0; i < 4; i++)
    await change(runId, reading(`0000000${i}-1111-4111-8111-111111111111`, "m", "mass.before", "2.6106"));
  const file = readJournal(folder)!.segments[0]!.file;
  const [header = "", ...lines] = readFileSync(file, "utf8").trimEnd().split("\n");
  const found = async (changed: readonly string[]) => {
    writeFileSync(file, `${[header, ...changed].join("\n")}\n`);
    return (await checkJournal(open.db, folder)).map(({ message }) => message);
  };
  const last = lines.length;
  expect(await found(lines)).toEqual([]);
  expect(await found(lines.map((l, i) => (i === last - 3 ? l.replace("2.6106", "2.6107") : l)))).toEqual([
    expect.stringContaining(`Line ${last - 2} of the journal is not what was written`),
  ]);
  expect((await found(lines.filter((_, i) => i !== last - 3)))[0]).toMatch(/taken out or put in before line/);
  expect((await found([...lines.slice(0, -2), lines[2]!, ...lines.slice(-2)]))[0]).toMatch(
    /taken out or put in/,
  );
  expect(await found(lines.slice(0, -1))).toEqual([
    expect.stringContaining("the one that the database names"),
  ]);
  // Who can write the file can seal it anew; the database knows another end then.
  let before = readLine(lines[last - 4]!)!;
  const anew = lines.slice(last - 3).map((text, i) => {
    const { data, ...line } = readLine(text)!;
    const altered: unknown = i === 0 ? JSON.parse(JSON.stringify(data).replace("2.6106", "2.6107")) : data;
    const made = sealed({ ...line, data: altered, before: before.check });
    before = made.line;
    return made.text.trimEnd();
  });
  expect(await found([...lines.slice(0, last - 3), ...anew])).toEqual([
    expect.stringContaining("the one that the database names"),
  ]);
  writeFileSync(file, `${[header, ...lines].join("\n")}\n`);
  await open.close();
});

test("a command that fails at its commit leaves no line, and one that is refused none either", async () => {
  const folder = newFolder();
  open = await openDatabase(folder);
  const runId = await begin();
  const journal = journalOf(open.db)!;
  const before = journal.head;
  expect((await change(runId, { intent: "undo", eventId: runId })).status).not.toBe("done");
  await open.client.exec(
    `create function no() returns trigger language plpgsql as $$ begin raise exception 'no'; end $$;
     create constraint trigger no after insert on observation deferrable initially deferred for each row execute function no();`,
  );
  const one = reading("11111111-1111-4111-8111-111111111111", "m", "mass.before", "2.6106");
  await expect(change(runId, one)).rejects.toThrow();
  expect(journal.head).toEqual(before);
  await open.client.exec("drop trigger no on observation");
  expect((await change(runId, one)).status).toBe("done");
  expect(journal.head.seq).toBe(before.seq + 1);
  await open.close();
  expect(readJournal(folder)).toMatchObject({ faults: [], head: journal.head });
});

test("a line that was flushed and taken back leaves its number to one that is flushed anew", async () => {
  const folder = newFolder();
  open = await openDatabase(folder);
  const journal = journalOf(open.db)!;
  const flush = jest.spyOn(journal as unknown as { flush: () => Promise<void> }, "flush");
  const entry = journal.next("deed", {}, new Date());
  const takeBack = journal.append(entry);
  const flushing = journal.onDisk(entry.line.seq);
  await flushing;
  takeBack();
  const again = journal.next("deed", { again: true }, new Date());
  expect(again.line.seq).toBe(entry.line.seq);
  const before = flush.mock.calls.length;
  const once = journal.append(again);
  await journal.onDisk(again.line.seq);
  expect(flush.mock.calls.length).toBe(before + 1);
  once();
  await open.close();
});

test("after a flush that failed nothing more is accepted, and nobody is told that it was saved", async () => {
  const folder = newFolder();
  open = await openDatabase(folder);
  const runId = await begin();
  const journal = journalOf(open.db)!;
  const handles = journal as unknown as { handles: { file: number } };
  const { file } = handles.handles;
  const one = (n: number) => reading(`0000000${n}-1111-4111-8111-111111111111`, "m", "mass.before", "2.6106");
  // No such file is open: as where the disk gives an error.
  handles.handles.file = 9999;
  await expect(change(runId, one(1))).rejects.toThrow(/EBADF/);
  handles.handles.file = file;
  expect(journal.trouble?.message).toMatch(/could not be written to the disk/);
  await expect(change(runId, one(2))).rejects.toThrow(/could not be written to the disk/);
  await open.close();
});

test("all that wait together share a flush; nobody is answered before it", async () => {
  const folder = newFolder();
  open = await openDatabase(folder);
  const runId = await begin();
  const journal = journalOf(open.db)!;
  const flushed = jest.spyOn(journal as unknown as { flush: () => Promise<void> }, "flush");
  const before = journal.head.seq;
  await Promise.all(
    Array.from({ length: 12 }, (_, i) =>
      change(runId, reading(`000000${10 + i}-1111-4111-8111-111111111111`, "m", "mass.before", "2.6106")),
    ),
  );
  expect(journal.head.seq).toBe(before + 12);
  expect(flushed.mock.calls.length).toBeLessThanOrEqual(12);
  await open.close();
});
