import { createHash } from "node:crypto";
import { createCookie } from "react-router";
import type { AccessView, Role } from "../../protocol/access";
import { longestPassphrase } from "../../protocol/access";
import { recordDeed } from "../commands/lab";
import type { Database } from "../database/types";
import { isOpen } from "../http/hosts";
import { type Access, accessOf, removeAccess, writePassphrase } from "./access-file";
import { Attempts } from "./attempts";
import { isPassphrase, keepPassphrase } from "./passphrase";
import { beginSession, endSessions, openSessions, sessionOf } from "./sessions";
import { singleUser, type Viewer } from "./viewer";

/* Who comes in, and how: the one place in which a request is told whose it is. */

/** The database and the data folder that a door belongs to. */
export interface Lab {
  readonly db: Database;
  readonly folder: string;
}

/** Where a request comes from. */
export interface From {
  readonly address: string;
  readonly browser: string;
}

/** The cookie of a lab: of two on one machine each has its own, since browsers do not tell ports apart. */
const cookieOf = ({ secret }: Access) =>
  createCookie(`steady-bead-${createHash("sha256").update(secret).digest("hex").slice(0, 8)}`, {
    ...{ secrets: [secret], httpOnly: true, sameSite: "lax", path: "/" },
    secure: Boolean(process.env.TLS_CERT),
  });

/** Who sends a request with this Cookie header; null where they have to sign in first. */
export async function viewerOf(
  { db, folder }: Lab,
  cookies: string | undefined,
  now = new Date(),
): Promise<Viewer | null> {
  const access = accessOf(folder);
  // Without a passphrase the server is reached by this machine alone.
  if (!access) return isOpen() ? null : singleUser;
  const token: unknown = await cookieOf(access)
    .parse(cookies ?? "")
    .catch(() => null);
  if (typeof token !== "string") return null;
  const found = await sessionOf(db, token, access.count, now);
  return found && { role: found.role, session: found.id };
}

const attempts = new Attempts();
const wait = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

/** The Set-Cookie header of a new session. */
async function newSession({ db, folder }: Lab, role: Role, from: From, now: Date): Promise<string> {
  const access = accessOf(folder);
  if (!access) throw new Error("A session without a sign-in");
  const token = await beginSession(db, { role, count: access.count, ...from }, now);
  return cookieOf(access).serialize(token);
}

/**
 * Signs somebody in by a passphrase: returns the Set-Cookie header of their session, or null where it is nobody's. Who has tried wrong ones
 * waits longer and longer.
 */
export async function signIn(
  lab: Lab,
  passphrase: string,
  from: From,
  now = new Date(),
): Promise<string | null> {
  const access = accessOf(lab.folder);
  if (!access) return null;
  await wait(attempts.waitMs(from.address));
  const text = passphrase.slice(0, longestPassphrase);
  // Each is tried, so that the time tells nothing.
  const fits = await Promise.all(
    (["instructor", "assistant"] as const).map(async (role) =>
      (await isPassphrase(text, access.passphrases[role])) ? role : null,
    ),
  );
  const role = fits.find((one) => one !== null);
  if (!role) {
    attempts.failed(from.address);
    return null;
  }
  return newSession(lab, role, from, now);
}

/** Ends somebody's session; returns the header that takes their cookie away. */
export async function signOut({ db, folder }: Lab, viewer: Viewer, now = new Date()): Promise<string> {
  const access = accessOf(folder);
  if (viewer.session !== null) await endSessions(db, { id: viewer.session }, now);
  return access ? cookieOf(access).serialize("", { maxAge: 0 }) : "";
}

const words: Readonly<Record<Role, string>> = {
  instructor: "passphrase of the instructors set",
  assistant: "passphrase of the assistants set",
};

/** Assistants sign in where instructors do. */
export class NoSignInError extends Error {
  override readonly name = "NoSignInError";

  constructor() {
    super("Set the passphrase of the instructors first: without it nobody signs in.");
  }
}

/** From now on this passphrase is a role's; all sessions that are open end, and null takes that of the assistants away. */
export async function setPassphrase(
  { db, folder }: Lab,
  role: Role,
  text: string | null,
  from: string | null,
  now = new Date(),
): Promise<void> {
  if (role === "assistant" && accessOf(folder) === null) throw new NoSignInError();
  writePassphrase(folder, role, text === null ? null : await keepPassphrase(text));
  const description = text === null ? "passphrase of the assistants taken away" : words[role];
  await recordDeed(db, { about: "access", subject: "Access", person: "", from, description }, now);
}

/** The same on the screen, where whoever sets it stays signed in: returns the Set-Cookie header of their new session. */
export async function setPassphraseHere(
  lab: Lab,
  role: Role,
  text: string | null,
  from: From,
  now = new Date(),
): Promise<string> {
  await setPassphrase(lab, role, text, from.address, now);
  return newSession(lab, "instructor", from, now);
}

/** From now on nobody signs in. False where others than this machine reach the server: then it stays. */
export async function takeSignInAway({ db, folder }: Lab, from: string, now = new Date()): Promise<boolean> {
  if (isOpen()) return false;
  removeAccess(folder);
  const deed = { about: "access", subject: "Access", person: "", from } as const;
  await recordDeed(db, { ...deed, description: "sign-in taken away" }, now);
  return true;
}

/** Who may come in, and who is in. */
export async function accessView({ db, folder }: Lab, viewer: Viewer, now = new Date()): Promise<AccessView> {
  const access = accessOf(folder);
  return {
    signsIn: access !== null,
    assistants: access !== null && access.passphrases.assistant !== null,
    loopback: !isOpen(),
    sessions: access ? await openSessions(db, access.count, viewer.session, now) : [],
  };
}
