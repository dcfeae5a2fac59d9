import { createHash } from "node:crypto";
import { existsSync, mkdirSync, readdirSync, readFileSync, renameSync, rmSync, writeFileSync } from "node:fs";
import path from "node:path";
import { gunzipSync, gzipSync } from "node:zlib";
import { extract } from "tar";
import { connect, createClient } from "./connection";
import { bringUpToDate } from "./migrations";

/*
 * The database of a new lab, with its tables and nothing in them, ships with the build: making one takes seconds, a copy of one a
 * fraction of a second. It holds good for one release of the database program and one set of migrations.
 */

const folder = () => path.resolve("build");
const prefix = "empty-database-";

function fileName(): string {
  const hash = createHash("sha256")
    .update(readFileSync(path.resolve("node_modules/@electric-sql/pglite/package.json")))
    .update(readFileSync(path.resolve("server/migrations/meta/_journal.json")));
  return `${prefix}${hash.digest("hex").slice(0, 12)}.tar.gz`;
}

/** The file of the prepared database; null where none of this release is there. */
function preparedFile(from = folder()): string | null {
  const file = path.join(from, fileName());
  return existsSync(file) ? file : null;
}

/** The prepared database as an archive of its folder, for one in memory; null where there is none. */
export function emptyDatabase(): Blob | null {
  const file = preparedFile();
  return file === null ? null : new Blob([new Uint8Array(gunzipSync(readFileSync(file)))]);
}

/** Puts a new, empty database into a folder: a copy of the prepared one, or where none can be read, one made there. */
export async function putEmptyDatabase(into: string, from = folder()): Promise<void> {
  const file = preparedFile(from);
  if (file !== null) {
    try {
      mkdirSync(into, { recursive: true });
      extract({ file, cwd: into, sync: true });
      return;
    } catch (error) {
      console.error("The prepared database cannot be read; one is made anew:", (error as Error).message);
      rmSync(into, { recursive: true, force: true });
    }
  }
  const client = await createClient(into, null);
  await client.close();
}

/** Makes the prepared database where there is none of this release yet, and takes those of earlier ones away. */
export async function prepareEmptyDatabase(): Promise<string> {
  const name = fileName();
  const file = path.join(folder(), name);
  if (existsSync(file)) return file;
  const client = await createClient(null, null);
  await bringUpToDate(connect(client));
  // What stands in the log only would be read again at each first start.
  await client.exec("checkpoint");
  const archive = await client.dumpDataDir("none");
  await client.close();
  mkdirSync(folder(), { recursive: true });
  for (const old of readdirSync(folder())) if (old.startsWith(prefix)) rmSync(path.join(folder(), old));
  // Put in its place whole: a build that is cut short leaves none by halves.
  writeFileSync(`${file}.new`, gzipSync(Buffer.from(await archive.arrayBuffer())));
  renameSync(`${file}.new`, file);
  return file;
}
