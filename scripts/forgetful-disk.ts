import {
  cpSync,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
} from "node:fs";
import path from "node:path";

/* What a machine finds on its disk after a power cut, where a layer (forgetful-disk.mjs) kept apart what had been flushed. */

const page = 4096;

const filesIn = (folder: string): string[] =>
  existsSync(folder)
    ? readdirSync(folder, { recursive: true, withFileTypes: true })
        .filter((entry) => entry.isFile())
        .map((entry) => path.relative(folder, path.join(entry.parentPath, entry.name)))
    : [];

const read = (file: string): Buffer | null =>
  existsSync(file) && statSync(file).isFile() ? readFileSync(file) : null;

/** A file of which some pages were written since it was flushed, in any order, and some were not. */
function mixed(flushed: Buffer, written: Buffer, chance: (p: number) => boolean, p: number): Buffer {
  const length = chance(p) ? written.length : flushed.length;
  const found = Buffer.alloc(length);
  for (let at = 0; at < length; at += page) {
    const from = chance(p) ? written : flushed;
    // A page beyond the end of what was flushed holds zeros until it is written.
    if (at < from.length) from.copy(found, at, at, Math.min(at + page, from.length, length));
  }
  return found;
}

export interface ForgetfulDisk {
  /** What is set in the environment of the server. */
  readonly env: Record<string, string>;
  /** Puts everything on the disk, as a start from a quiet machine does. */
  readonly settle: () => void;
  /** Makes of the folder what is left after a power cut; of what was not flushed, a share `p` had been written, page by page. */
  readonly cut: (chance: (p: number) => boolean, p: number) => void;
  /** Puts away what was made for it. */
  readonly end?: () => void;
}

/** A disk under a folder; `beside` is a folder of its own for what was flushed. */
export function forgetfulDisk(folder: string, beside: string): ForgetfulDisk {
  const shadow = path.join(beside, "flushed");
  const renames = path.join(beside, "renames.json");
  const settle = () => {
    rmSync(shadow, { recursive: true, force: true });
    cpSync(folder, shadow, { recursive: true });
    writeFileSync(renames, "[]");
  };
  const cut: ForgetfulDisk["cut"] = (chance, p) => {
    const pending = JSON.parse(readFileSync(renames, "utf8")) as [from: string, to: string][];
    const renamed = new Set(pending.flat().map((file) => path.relative(folder, file)));
    for (const [from, to] of pending) {
      const [a, b] = [from, to].map((file) => path.join(shadow, path.relative(folder, file)));
      // A name that was not flushed: the old file or the new one, never a mixture.
      if (a && b && existsSync(a) && chance(p)) renameSync(a, b);
    }
    const found = `${beside}/found`;
    rmSync(found, { recursive: true, force: true });
    cpSync(shadow, found, { recursive: true });
    for (const name of new Set([...filesIn(folder), ...filesIn(shadow)])) {
      if (renamed.has(name)) continue;
      const [flushed, written] = [read(path.join(shadow, name)), read(path.join(folder, name))];
      if (!written || (flushed && written.equals(flushed))) continue;
      // A new file that was never flushed may not be there at all.
      if (!flushed && !chance(p)) continue;
      mkdirSync(path.dirname(path.join(found, name)), { recursive: true });
      writeFileSync(path.join(found, name), mixed(flushed ?? Buffer.alloc(0), written, chance, p));
    }
    rmSync(folder, { recursive: true, force: true });
    renameSync(found, folder);
    for (const left of ["server.pid", "server.json"]) rmSync(path.join(folder, left), { force: true });
    rmSync(path.join(folder, "server.lock"), { recursive: true, force: true });
    settle();
  };
  return {
    env: {
      NODE_OPTIONS: `--import ${path.resolve("scripts/forgetful-disk.mjs")}`,
      FORGETFUL_FOLDER: folder,
      FORGETFUL_SHADOW: shadow,
    },
    settle,
    cut,
  };
}
