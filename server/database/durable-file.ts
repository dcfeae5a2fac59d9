import {
  closeSync,
  fsyncSync,
  openSync,
  readdirSync,
  readFileSync,
  renameSync,
  writeFileSync,
} from "node:fs";
import path from "node:path";

/** What a JSON file holds; null where there is none. A file that cannot be read as JSON counts as one that says nothing. */
export function readJson<T extends object>(file: string): T | null {
  let text: string;
  try {
    text = readFileSync(file, "utf8");
  } catch {
    return null;
  }
  try {
    return JSON.parse(text) as T;
  } catch {
    return {} as T;
  }
}

/** Sees to it that what was written under a path is on the disk: of a file its contents, of a folder its names. */
export function flush(place: string): void {
  const handle = openSync(place, "r");
  try {
    fsyncSync(handle);
  } finally {
    closeSync(handle);
  }
}

/** Writes a whole file or none of it: under another name first, flushed, then put in its place. `mode` says who may read it. */
export function writeDurably(file: string, data: string | Buffer, mode = 0o666): void {
  const part = `${file}.part`;
  writeFileSync(part, data, { mode });
  flush(part);
  renameSync(part, file);
  flush(path.dirname(file));
}

/** Sees to it that all files below a folder are on the disk. */
export function flushAll(folder: string): void {
  for (const entry of readdirSync(folder, { recursive: true, withFileTypes: true }))
    if (entry.isFile() || entry.isDirectory()) flush(path.join(entry.parentPath, entry.name));
  flush(folder);
}
