import { createHash, randomBytes } from "node:crypto";
import { and, desc, eq, gt, isNull } from "drizzle-orm";
import type { Role, SessionView } from "../../protocol/access";
import { session } from "../database/schema";
import type { Database } from "../database/types";

/** A session that nobody has used for so long is over, ms. */
const idleMs = 12 * 3_600_000;
/** When it was used last is written down no more often than this, ms. */
const seenEveryMs = 5 * 60_000;

type Row = typeof session.$inferSelect;

/** Those that were asked for since the server was started, so that not every request asks the database. */
const remembered = new WeakMap<Database, Map<string, Row>>();

function rowsOf(db: Database): Map<string, Row> {
  const rows = remembered.get(db) ?? new Map<string, Row>();
  remembered.set(db, rows);
  return rows;
}

const idOf = (token: string): string => createHash("sha256").update(token).digest("hex");

/** Begins a session, and returns what its cookie holds. */
export async function beginSession(
  db: Database,
  of: { readonly role: Role; readonly count: number; readonly address: string; readonly browser: string },
  now: Date,
): Promise<string> {
  const token = randomBytes(32).toString("base64url");
  const browser = of.browser.slice(0, 200);
  const row = { ...of, browser, id: idOf(token), beganAt: now, seenAt: now, endedAt: null };
  await db.insert(session).values(row);
  rowsOf(db).set(row.id, row);
  return token;
}

/** The session of a cookie; null where it is over, or none of this lab's. `count` is that of the access file. */
export async function sessionOf(
  db: Database,
  token: string,
  count: number,
  now: Date,
): Promise<{ readonly id: string; readonly role: Role } | null> {
  const id = idOf(token);
  const rows = rowsOf(db);
  const row = rows.get(id) ?? (await db.select().from(session).where(eq(session.id, id)))[0];
  if (!row) return null;
  rows.set(id, row);
  const unused = now.getTime() - row.seenAt.getTime();
  if (row.endedAt !== null || row.count !== count || unused > idleMs) return null;
  if (unused > seenEveryMs) {
    rows.set(id, { ...row, seenAt: now });
    await db.update(session).set({ seenAt: now }).where(eq(session.id, id));
  }
  return { id, role: row.role };
}

/** Ends a session, or all of a role. */
export async function endSessions(
  db: Database,
  which: { readonly id: string } | { readonly role: Role },
  now: Date,
): Promise<void> {
  const those = "id" in which ? eq(session.id, which.id) : eq(session.role, which.role);
  await db
    .update(session)
    .set({ endedAt: now })
    .where(and(those, isNull(session.endedAt)));
  remembered.delete(db);
}

/** Sessions that are open, the latest first. */
export async function openSessions(
  db: Database,
  count: number,
  own: string | null,
  now: Date,
): Promise<SessionView[]> {
  const used = gt(session.seenAt, new Date(now.getTime() - idleMs));
  const rows = await db
    .select()
    .from(session)
    .where(and(isNull(session.endedAt), eq(session.count, count), used))
    .orderBy(desc(session.seenAt));
  return rows.map(({ id, role, address, browser, beganAt, seenAt }) => ({
    ...{ id, role, address, browser, own: id === own },
    beganAt: beganAt.toISOString(),
    seenAt: seenAt.toISOString(),
  }));
}
