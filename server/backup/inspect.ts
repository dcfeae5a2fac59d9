import { spawn } from "node:child_process";
import { readFileSync } from "node:fs";
import { gunzipSync } from "node:zlib";
import { PGlite } from "@electric-sql/pglite";
import { drizzle } from "drizzle-orm/pglite";
import { bringUpToDate } from "../database/migrations";
import * as schema from "../database/schema";
import type { Database } from "../database/types";
import type { RunInBackup } from "../../protocol/lab";
import { type CheckReport, checkLab } from "./check";
import { type RunRows, rowsOfRun } from "./run-rows";

/** What can be asked of a backup without restoring it. */
export interface Questions {
  readonly verify: CheckReport;
  readonly runs: readonly RunInBackup[];
  readonly run: RunRows;
}

/** A backup's data as PGlite takes them; unpacked here, where it is faster. */
const dataIn = (file: string): Blob => new Blob([new Uint8Array(gunzipSync(readFileSync(file)))]);

/** Opens a copy of a backup in memory, brought up to this program's tables; the file stays as it is. */
async function opened<T>(file: string, look: (db: Database) => Promise<T>): Promise<T> {
  const client = await PGlite.create({ loadDataDir: dataIn(file) });
  try {
    const db = drizzle(client, { schema });
    await bringUpToDate(db);
    return await look(db);
  } finally {
    await client.close();
  }
}

/** Answers in this process; it is busy meanwhile. */
export function answer<Q extends keyof Questions>(
  what: Q,
  file: string,
  runId: string,
): Promise<Questions[Q]>;
export function answer(what: keyof Questions, file: string, runId: string): Promise<unknown> {
  return opened<unknown>(file, async (db) => {
    switch (what) {
      case "verify":
        return checkLab(db, 200);
      case "runs":
        return db
          .select({
            id: schema.run.id,
            title: schema.run.title,
            sample: schema.run.sample,
            bench: schema.run.bench,
            startedAt: schema.run.startedAt,
            status: schema.run.status,
          })
          .from(schema.run)
          .orderBy(schema.run.startedAt);
      case "run":
        return rowsOfRun(db, runId);
    }
  });
}

/** The built server asks the built program, tools that run from the sources ask those, and tests one that they bundled. */
const inspector = (): readonly string[] => {
  if (import.meta.url.includes("/build/server/")) return ["scripts/inspect-backup.mjs"];
  const bundled = process.env.STEADY_BEAD_INSPECTOR;
  return bundled === undefined ? ["--import", "tsx", "scripts/inspect-backup.ts"] : [bundled];
};

/** Asks another process, so that this one goes on serving. Rejects with what that process said where it failed. */
export function ask<Q extends keyof Questions>(what: Q, file: string, runId = ""): Promise<Questions[Q]> {
  return new Promise((resolve, reject) => {
    // Soon over: optimizing the database's code would take longer than what it looks at.
    const child = spawn(process.execPath, ["--liftoff-only", ...inspector(), what, file, runId], {
      stdio: ["ignore", "pipe", "pipe"],
      // The runner of the tests has flags of its own.
      env: { ...process.env, NODE_OPTIONS: "" },
    });
    const [out, err]: [Buffer[], Buffer[]] = [[], []];
    child.stdout.on("data", (part: Buffer) => out.push(part));
    child.stderr.on("data", (part: Buffer) => err.push(part));
    child.once("error", reject);
    child.once("close", (code) => {
      if (code === 0) resolve(JSON.parse(Buffer.concat(out).toString()) as Questions[Q]);
      else {
        const output = Buffer.concat(err).toString().trim();
        reject(
          new Error(/^\w*Error: (.*)$/m.exec(output)?.[1] ?? (output.slice(-300) || `ended with ${code}`)),
        );
      }
    });
  });
}
