import {
  cpSync,
  existsSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  truncateSync,
  writeFileSync,
} from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { afterAll, beforeAll, describe, expect, jest, test } from "@jest/globals";
import { sql } from "drizzle-orm";
import { v7 as newId } from "uuid";
import { type OpenDatabase, openDatabase } from "../lab/open-database";
import { closeDatabase, database, withDatabaseClosed } from "../lab/current";
import { LabFolderError } from "../lab/lab-folder";
import { backupDue, backupTrouble } from "../maintenance/health";
import { benchOn, reading, wholeFlask } from "../tests/bench";
import { checkLab } from "./check";
import { type Backup, listBackups, toKeep } from "./files";
import { ask } from "./inspect";
import { BackupError, makeBackup } from "./make";
import { chosenBackup, restoreLab } from "./restore";
import { putRunBack } from "./run-rows";
import { plain } from "~/core/testing/plain";

/* A lab in a folder: what became of it, and the way back. One lab is made once and copied, since making one takes seconds. */

const root = mkdtempSync(path.join(tmpdir(), "steady-bead-lab-"));
const at = (name: string) => path.join(root, name);
process.env.STEADY_BEAD_LABS = at("labs.json");
let runId = "";
let backup: Backup;

let open: OpenDatabase;
const { begin, change, record } = benchOn(() => open);

/** Opens a lab, looks, and closes it. */
async function within<T>(folder: string, look: (lab: OpenDatabase) => Promise<T>): Promise<T> {
  open = await openDatabase(folder);
  try {
    return await look(open);
  } finally {
    await open.close();
  }
}

const textsIn = (folder: string, id = runId) =>
  within(folder, async () =>
    (await record(id)).stages.flatMap((s) => s.trials.flatMap((t) => t.observations.map((o) => o.text))),
  );
const opening = (folder: string) =>
  openDatabase(folder).then(
    async (lab) => (await lab.close(), "opened"),
    (error: unknown) => (error instanceof LabFolderError ? error.message : `not told: ${String(error)}`),
  );

let copies = 0;
/** The lab as it was, in a folder of its own. */
function copy(): string {
  const folder = at(`copy-${++copies}`);
  cpSync(at("lab"), folder, { recursive: true });
  return folder;
}
const fileOf = (folder: string, name: string) => path.join(folder, "postgres", name);

/** Spoils the files of a table, as a failing disk does. */
async function spoil(folder: string, table: string) {
  const file = await within(folder, async ({ client }) => {
    await client.exec("checkpoint");
    const { rows } = await client.query<{ place: string }>(
      `select pg_relation_filepath('${table}') as place`,
    );
    return rows[0]!.place;
  });
  const bytes = readFileSync(fileOf(folder, file));
  bytes.fill(0x5a, 200, 3000);
  writeFileSync(fileOf(folder, file), bytes);
}

beforeAll(async () => {
  await within(at("lab"), async (lab) => {
    runId = await begin("Rinse acid");
    for (const one of wholeFlask(newId(), "2.1000", "25.00")) await change(runId, one);
    backup = await makeBackup(lab, at("lab"), lab.lab.id, "by hand");
  });
}, 300_000);
jest.setTimeout(300_000);
afterAll(() => rmSync(root, { recursive: true, force: true }));

describe("a folder that held a lab", () => {
  test.each([
    [
      "whose version file is gone",
      (f: string) => rmSync(fileOf(f, "PG_VERSION")),
      /not whole: PG_VERSION is missing/,
    ],
    [
      "whose control file is gone",
      (f: string) => rmSync(fileOf(f, "global/pg_control")),
      /not whole: global\/pg_control/,
    ],
    [
      "whose database is gone",
      (f: string) => rmSync(fileOf(f, ""), { recursive: true }),
      /A lab lives in .*, one run\), but its database is gone/,
    ],
    [
      "whose control file is cut off",
      (f: string) => truncateSync(fileOf(f, "global/pg_control"), 100),
      /is damaged: it cannot be opened/,
    ],
    [
      "whose log is empty",
      (f: string) =>
        readdirSync(fileOf(f, "pg_wal")).forEach(
          (name) =>
            statSync(fileOf(f, `pg_wal/${name}`)).isFile() && truncateSync(fileOf(f, `pg_wal/${name}`), 0),
        ),
      /is damaged: it cannot be opened/,
    ],
    [
      "of a newer PostgreSQL",
      (f: string) => writeFileSync(fileOf(f, "PG_VERSION"), "99\n"),
      /PostgreSQL 99.*newer than this program/,
    ],
  ])("%s is told in words with the ways out, and nothing is created", async (_what, harm, words) => {
    const folder = copy();
    harm(folder);
    const before = readdirSync(folder).sort();
    const message = await opening(folder);
    expect(message).toMatch(words);
    expect(message).toMatch(/restore the newest backup, of 20\d\d-|newer than this program/);
    expect(readdirSync(folder).sort()).toEqual(before);
  });

  test("and is suddenly empty is no new lab, unless somebody says so", async () => {
    const folder = copy();
    await textsIn(folder);
    rmSync(folder, { recursive: true });
    expect(await opening(folder)).toMatch(
      /is empty, and a lab with one run was open there on .* not mounted\?.*NEW_LAB=yes/s,
    );
    expect(existsSync(folder)).toBe(false);
    process.env.NEW_LAB = "yes";
    try {
      expect(await opening(folder)).toBe("opened");
    } finally {
      delete process.env.NEW_LAB;
    }
  });

  test("and was used by a newer program is refused as it is", async () => {
    const folder = copy();
    await within(folder, ({ client }) =>
      client.exec("insert into drizzle.__drizzle_migrations (hash, created_at) values ('x', 9999999999999)"),
    );
    expect(await opening(folder)).toMatch(/last used by a newer Steady Bead/);
  });

  test("where a start was cut short before the first database was whole begins anew", async () => {
    const folder = at("cut-short");
    cpSync(path.join(at("lab"), "postgres"), path.join(folder, "postgres.new"), { recursive: true });
    rmSync(path.join(folder, "postgres.new", "global"), { recursive: true });
    expect(await opening(folder)).toBe("opened");
  });
});

describe("damage within the tables", () => {
  test("of readings: the lab opens and says which run cannot be read; a copy of it is no backup", async () => {
    const folder = copy();
    await spoil(folder, "observation");
    const rows = await ask("run", backup.file, runId);
    await within(folder, async (lab) => {
      expect(lab.findings.map((f) => f.message)).toEqual([
        expect.stringMatching(/observation cannot be read: invalid page/),
      ]);
      const report = await checkLab(lab.db);
      expect(report.findings.filter((f) => f.runId === runId)).toEqual([
        {
          kind: "damaged",
          runId,
          message: expect.stringMatching(/"Rinse acid" .* cannot be read: invalid page/),
        },
      ]);
      // A copy of what is damaged is no backup.
      await expect(makeBackup(lab, folder, lab.lab.id, "daily")).rejects.toThrow(BackupError);
      await expect(putRunBack(lab.db, rows)).rejects.toThrow();
    });
    expect(listBackups(folder).map((b) => b.name)).toEqual([backup.name]);
  });

  test("of the runs themselves: the lab is refused, and restored over; the damaged files are kept", async () => {
    const folder = copy();
    await spoil(folder, "run");
    expect(await opening(folder)).toMatch(
      /is damaged. The table run cannot be read.*restore the newest backup/s,
    );
    const replaced = await restoreLab(folder, chosenBackup(folder, "latest"));
    expect(replaced.was).toBe("damaged");
    expect(existsSync((replaced as { keptIn: string }).keptIn)).toBe(true);
    expect(await textsIn(folder)).toEqual(["2.6106", "2.1000", "0.00", "25.00"]);
  });

  test("that no checksum shows is found by what must hold between rows, and by computing again", async () => {
    const folder = copy();
    await within(folder, async ({ db }) => {
      expect((await checkLab(db)).findings).toEqual([]);
      await db.execute(sql`alter table observation drop constraint observation_trial_id_trial_id_fk`);
      await db.execute(sql`update observation set supersedes = gen_random_uuid() where text = '25.00'`);
      await db.execute(sql`update run set summary = jsonb_set(summary, '{result}', '{"text": "0.5 mol/L"}')`);
      const { findings } = await checkLab(db);
      expect(findings.map(({ kind, message }) => [kind, message])).toEqual([
        ["broken", expect.stringMatching(/^One correction of a reading that is not there/)],
        ["differs", expect.stringMatching(/result is kept as 0.5 mol\/L and computed as none/)],
      ]);
    });
  });
});

describe("restoring", () => {
  test("into an empty folder brings everything back; over a lab, that is backed up first", async () => {
    const folder = at("restored");
    expect(await restoreLab(folder, backup)).toEqual({ was: "empty" });
    expect(await textsIn(folder)).toHaveLength(4);
    await within(folder, () => change(runId, reading(newId(), "m", "mass.before", "2.7000")));
    const replaced = await restoreLab(folder, backup);
    expect(replaced.was).toBe("lab");
    expect(await textsIn(folder)).toHaveLength(4);
    // What was replaced can be had again.
    expect(await ask("runs", (replaced as { backup: Backup }).backup.file)).toMatchObject([{ id: runId }]);
  }, 120_000);

  test("over a whole lab that cannot be backed up is refused, and the lab stays as it is", async () => {
    const folder = copy();
    process.env.BACKUP_DIR = path.join(folder, "not", "mounted");
    try {
      await expect(restoreLab(folder, backup)).rejects.toThrow(
        /no second copy could be written to .*Is that disk connected/,
      );
    } finally {
      delete process.env.BACKUP_DIR;
    }
    expect(readdirSync(folder).filter((name) => name.startsWith("postgres"))).toEqual(["postgres"]);
    expect(await textsIn(folder)).toHaveLength(4);
  });

  test("one run alone puts back what it was, and leaves the others as they are", async () => {
    const folder = copy();
    const rows = await ask("run", backup.file, runId);
    await within(folder, async (lab) => {
      const other = await begin("Another");
      await change(other, reading(newId(), "m", "mass.before", "1.5000"));
      const was = await record(runId);
      await change(runId, reading(newId(), "m", "mass.before", "2.7000"));
      await lab.client.exec(`update observation set text = 'x' where text = '25.00'`);
      await putRunBack(lab.db, rows);
      expect(await record(runId)).toEqual(was);
      expect((await record(other)).stages[0]?.trials[0]?.observations[0]?.text).toBe("1.5000");
      // What is written afterwards comes after what was put back.
      expect(plain(await change(runId, reading(newId(), "m", "mass.before", "2.8000")))).toMatchObject({
        status: "done",
      });
      // Gone altogether, it comes back too.
      await lab.client.exec(`delete from run where id = '${runId}'`);
      await putRunBack(lab.db, rows);
      expect(await record(runId)).toEqual(was);
    });
  });

  test("from a file that is not what it was is refused before anything is touched", async () => {
    const folder = copy();
    const spoiled = path.join(folder, "backups", backup.name);
    const bytes = readFileSync(spoiled);
    bytes.fill(0, 100_000, 101_000);
    writeFileSync(spoiled, bytes);
    await expect(restoreLab(folder, chosenBackup(folder, spoiled))).rejects.toThrow(/its checksum differs/);
    expect(() => chosenBackup(folder, "nothing.tar.gz")).toThrow(/is no backup/);
    expect(await textsIn(folder)).toHaveLength(4);
  });
});

test("whoever asks for the database while it is exchanged gets the one that is there afterwards", async () => {
  const folder = copy();
  process.env.DATA_DIR = folder;
  try {
    const before = await database();
    let meanwhile: Promise<unknown> = Promise.resolve();
    await withDatabaseClosed(async () => {
      meanwhile = database();
      // Nobody has the folder open: it can be taken.
      await within(folder, () => Promise.resolve());
    });
    const after = await database();
    expect(after).not.toBe(before);
    expect(await meanwhile).toBe(after);
    // Also where the work fails, the lab is open again.
    await expect(withDatabaseClosed(() => Promise.reject(new Error("no")))).rejects.toThrow("no");
    expect((await checkLab(await database())).findings).toEqual([]);
  } finally {
    await closeDatabase();
    delete process.env.DATA_DIR;
  }
});

describe("which backups are kept, and when one is due", () => {
  const day = 86_400_000;
  const start = Date.parse("2026-11-28T12:00:00Z");
  const daily = (ago: number, verified = true) => ({
    name: `d${ago}`,
    at: new Date(start - ago * day).toISOString(),
    reason: "daily" as const,
    verified: verified ? { at: "", runs: 1 } : null,
  });

  test("seven days and four weeks, five made by hand, and the newest that is sound", () => {
    const all = Array.from({ length: 60 }, (_, i) => daily(i));
    const kept = [...toKeep(all)].map((name) => Number(name.slice(1))).sort((a, b) => a - b);
    expect(kept.slice(0, 7)).toEqual([0, 1, 2, 3, 4, 5, 6]);
    expect(kept.length).toBeLessThanOrEqual(11);
    // The newest of a week that is three weeks back.
    expect(kept.at(-1)).toBeGreaterThanOrEqual(14);
    const byHand = Array.from({ length: 9 }, (_, i) => ({
      ...daily(i + 40),
      name: `h${i}`,
      reason: "by hand" as const,
      verified: null,
    }));
    expect([...toKeep(byHand)]).toEqual(["h0", "h1", "h2", "h3", "h4"]);
    // One that failed does not push the last good one out.
    expect(toKeep([daily(0, false), daily(1, false), daily(2)])).toEqual(new Set(["d2"]));
  });

  test("once a day, not for a lab that holds nothing; told after two days, or when it failed", () => {
    const lab = { createdAt: new Date(start - 10 * day), runs: 3 };
    const ago = (days: number) => new Date(start - days * day);
    const now = new Date(start);
    expect([null, ago(0.9), ago(1.1)].map((newest) => backupDue(newest, lab, 40, now))).toEqual([
      true,
      false,
      true,
    ]);
    expect(backupDue(null, { ...lab, runs: 0 }, null, now)).toBe(false);
    // A journal with nothing to go on from, or much to carry out again.
    expect([null, 5000].map((lines) => backupDue(ago(0.1), lab, lines, now))).toEqual([true, true]);
    expect(backupTrouble(ago(1.5), lab, null, now)).toBeNull();
    expect(backupTrouble(ago(3), lab, null, now)).toBe("The newest backup is 3 days old.");
    expect(backupTrouble(null, lab, null, now)).toBe("There is no backup of this lab.");
    expect(backupTrouble(ago(0.1), lab, "The disk is full", now)).toBe("The disk is full");
  });
});
