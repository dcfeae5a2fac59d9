import { statfsSync } from "node:fs";

/** The disk does not take what should be saved. Its message is for the person at the screen or the terminal. */
export class StorageError extends Error {
  override readonly name = "StorageError";
}

const full = (folder: string) =>
  new StorageError(
    `The disk is full: nothing more can be saved in ${folder}. Make room on it; what was saved before is safe, and ` +
      "readings wait in the browser until there is room.",
  );

const readOnly = (folder: string) =>
  new StorageError(
    `The data folder ${folder} cannot be written to. Give this user the right to write there, or choose another folder ` +
      "with DATA_DIR.",
  );

/** What is wrong with the disk, where that is what an error is about; null for any other error. */
export function storageError(error: unknown, folder: string): StorageError | null {
  if (error instanceof StorageError) return error;
  // Errors come wrapped: by the query builder, and by the database around those of the file system.
  for (let e = error; e instanceof Error; e = e.cause) {
    const { code = "" } = e as { code?: string };
    const text = `${code} ${e.message}`;
    if (/ENOSPC|EDQUOT|53100|no space left/i.test(text)) return full(folder);
    if (/EROFS|EACCES|EPERM|read-only file system|permission denied/i.test(text)) return readOnly(folder);
  }
  return null;
}

/** Room that is left free, bytes: two of the files that the database keeps its log in, and what a screen of readings takes. */
const spareBytes = 48 * 1024 * 1024;

/**
 * What is wrong with the disk before anything is written to it; null where there is room. A database whose log finds no room
 * in the middle of a change can neither finish nor give up: so nothing is begun that might not fit.
 */
export function noRoom(folder: string): StorageError | null {
  const { bavail, bsize } = statfsSync(folder);
  return bavail * bsize < spareBytes ? full(folder) : null;
}
