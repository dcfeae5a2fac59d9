import { chmodSync, existsSync, readFileSync, rmSync } from "node:fs";
import { randomBytes, randomInt } from "node:crypto";
import path from "node:path";
import { writeDurably } from "../database/durable-file";
import type { KeptPassphrase } from "./passphrase";
import type { Role } from "../../protocol/access";

/**
 * Who may come in. It stands in the data folder beside the database, readable by this user alone, and in no backup: restoring a lab does not
 * change who may open it. Without this file there is no sign-in, and nobody but this machine may reach the server.
 */
export interface Access {
  /** Signs the cookies. */
  readonly secret: string;
  /** Sessions that were begun under another count are over. */
  readonly count: number;
  readonly passphrases: Readonly<Record<Role, KeptPassphrase | null>>;
}

const accessFile = (folder: string): string => path.join(folder, "access.json");

/** The file of who may come in cannot be read: nobody is let in by guessing. */
export class AccessFileError extends Error {
  override readonly name = "AccessFileError";
}

function read(file: string): Access {
  try {
    return JSON.parse(readFileSync(file, "utf8")) as Access;
  } catch (cause) {
    throw new AccessFileError(
      `${file} says who may sign in, and cannot be read. Put it right, or remove it and set a new passphrase with bin/passphrase.`,
      { cause },
    );
  }
}

/** As this process has read or written them last, by their folders. */
const known = new Map<string, Access | null>();

/** Who may come in; null where there is no sign-in. Throws where the file cannot be read: then nobody may. */
export function accessOf(folder: string): Access | null {
  const there = known.get(folder);
  if (there !== undefined) return there;
  const file = accessFile(folder);
  const access = existsSync(file) ? read(file) : null;
  known.set(folder, access);
  return access;
}

function write(folder: string, access: Access): void {
  const file = accessFile(folder);
  writeDurably(file, `${JSON.stringify(access, null, 2)}\n`, 0o600);
  chmodSync(file, 0o600);
  known.set(folder, access);
}

/** From now on this passphrase is a role's. The first one is an instructor's, and begins the sign-in. Ends all sessions that are open. */
export function writePassphrase(folder: string, role: Role, kept: KeptPassphrase | null): void {
  const before = accessOf(folder) ?? {
    secret: randomBytes(32).toString("base64url"),
    // Not from nothing: sessions of a sign-in that was taken away stay over.
    count: randomInt(2 ** 30),
    passphrases: { instructor: null, assistant: null },
  };
  write(folder, {
    ...before,
    count: before.count + 1,
    passphrases: { ...before.passphrases, [role]: kept },
  });
}

/** Ends all sessions, as after another lab was put in the place of this one, with its own. */
export function endAllSessions(folder: string): void {
  const access = accessOf(folder);
  if (access) write(folder, { ...access, count: access.count + 1 });
}

/** From now on nobody signs in. */
export function removeAccess(folder: string): void {
  rmSync(accessFile(folder), { force: true });
  known.set(folder, null);
}
