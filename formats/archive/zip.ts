import { unzipSync, zip } from "fflate";
import { failure, type Result, success } from "~/core/result";
import { msg, type Phrase } from "~/core/text";

const megabyte = 1024 * 1024;

/** How much an archive may hold once it is unpacked: more is a mistake, or meant to fill the memory. */
export const mostUnpacked = { files: 50_000, bytesOfFile: 64 * megabyte, bytes: 400 * megabyte } as const;

/** The files of an archive by their names. */
export type Entries = ReadonlyMap<string, Uint8Array>;

/** Whether bytes begin as a ZIP archive does. */
export const isZip = (bytes: Uint8Array): boolean => bytes[0] === 0x50 && bytes[1] === 0x4b;

class Unfit extends Error {
  constructor(readonly phrase: Phrase) {
    super();
  }
}

/** A name that stays within the folder that an archive is unpacked into, and that every system reads alike. */
const isInside = (name: string) =>
  !/[\\:\0]|^\//.test(name) && !name.split("/").some((part) => part === ".." || part === ".");

/**
 * Unpacks an archive in memory. Refused are archives that are cut off, that hold more than `mostUnpacked`, one name twice, or names that
 * lead out of the folder.
 */
export function unzipped(bytes: Uint8Array): Result<Entries> {
  const names = new Set<string>();
  let total = 0;
  try {
    const files = unzipSync(bytes, {
      filter: ({ name, originalSize }) => {
        if (!isInside(name))
          throw new Unfit(msg`The archive holds a file name that leads out of it: ${name}`);
        if (names.has(name)) throw new Unfit(msg`The archive holds ${name} twice`);
        names.add(name);
        total += originalSize;
        if (names.size > mostUnpacked.files)
          throw new Unfit(msg`The archive holds more than ${mostUnpacked.files} files`);
        if (originalSize > mostUnpacked.bytesOfFile || total > mostUnpacked.bytes)
          throw new Unfit(
            msg`Unpacked, the archive is larger than ${mostUnpacked.bytes / megabyte} MB, or one file of it larger than ${mostUnpacked.bytesOfFile / megabyte} MB`,
          );
        return !name.endsWith("/");
      },
    });
    return success(new Map(Object.entries(files)));
  } catch (error) {
    if (error instanceof Unfit) return failure(error.phrase);
    return failure(msg`The archive is cut off or damaged: it cannot be unpacked`);
  }
}

/** Packs files, in a thread of its own. */
export const zipped = (entries: Entries): Promise<Uint8Array<ArrayBuffer>> =>
  new Promise((done, failed) => {
    zip(Object.fromEntries(entries), { level: 6 }, (error, bytes) =>
      error ? failed(error) : done(new Uint8Array(bytes)),
    );
  });
