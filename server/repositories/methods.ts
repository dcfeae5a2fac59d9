import { and, asc, count, desc, eq, isNull, sql } from "drizzle-orm";
import { compileMethod, type Method } from "../../core/method";
import { mustHold, type Result, success } from "../../core/result";
import type { Connection, Database } from "../database/types";
import { method, run } from "../database/schema";
import type { By } from "./deed";
import { rememberDeed } from "./lab";

/** Puts methods into the library; one that is there in this version stays as it is. Throws on one that does not hold together. */
export async function putMethods(db: Connection, methods: readonly Method[]): Promise<void> {
  for (const data of methods) {
    mustHold(compileMethod(data));
    await db
      .insert(method)
      .values({ id: data.id, version: data.version, title: data.title, data })
      .onConflictDoNothing();
  }
}

const read = new Map<string, Method>();

/** After another database was opened, what was read of the one before holds no longer. */
export const forgetMethods = (): void => read.clear();

/** One version of a method. A version never changes, so it is read once and stays the same object. */
export async function methodVersion(db: Connection, id: string, version: number): Promise<Method> {
  const key = `${id}@${version}`;
  const known = read.get(key);
  if (known) return known;
  const [row] = await db
    .select({ data: method.data })
    .from(method)
    .where(and(eq(method.id, id), eq(method.version, version)));
  if (!row) throw new Error(`Method ${key} is not in the database`);
  read.set(key, row.data);
  return row.data;
}

export interface MethodEntry {
  readonly id: string;
  readonly version: number;
  readonly title: string;
  readonly data: Method;
  readonly retiredAt: Date | null;
}

/** The newest version of each method, by title. */
export async function listMethods(db: Connection): Promise<MethodEntry[]> {
  const rows = await db.selectDistinctOn([method.id]).from(method).orderBy(method.id, desc(method.version));
  // Retired ones stay listed, and say so.
  return rows.sort((a, b) => a.title.localeCompare(b.title));
}

/** What a list to choose from shows of the newest version of each method, by title; the rest of it is not read. */
export async function methodChoices(
  db: Connection,
): Promise<{ readonly id: string; readonly title: string; readonly purpose: string }[]> {
  const rows = await db
    .selectDistinctOn([method.id], {
      id: method.id,
      title: method.title,
      purpose: sql<string>`${method.data} ->> 'purpose'`,
    })
    .from(method)
    .where(isNull(method.retiredAt))
    .orderBy(method.id, desc(method.version));
  return rows.sort((a, b) => a.title.localeCompare(b.title));
}

/** Numbers of all versions of a method, oldest first. */
export async function versionsOf(db: Connection, id: string): Promise<number[]> {
  const rows = await db
    .select({ version: method.version })
    .from(method)
    .where(eq(method.id, id))
    .orderBy(asc(method.version));
  return rows.map(({ version }) => version);
}

/** The newest version of a method, or one by its number; null where there is none. */
export async function findMethod(db: Connection, id: string, version?: number): Promise<Method | null> {
  const versions = await versionsOf(db, id);
  const wanted = version ?? versions.at(-1);
  return wanted === undefined || !versions.includes(wanted) ? null : methodVersion(db, id, wanted);
}

/**
 * Saves a method as the next version of its id: one that runs stand on is never changed. Says what is wrong with one that
 * does not hold together, and returns the version that it got.
 */
export async function saveMethod(
  db: Database,
  data: Method,
  by: By,
  now = new Date(),
): Promise<Result<number>> {
  const compiled = compileMethod(data);
  if (!compiled.ok) return compiled;
  return db.transaction(async (tx) => {
    const newest = (await versionsOf(tx, data.id)).at(-1) ?? 0;
    const version = newest + 1;
    const saved: Method = { ...data, version };
    const { person, reason, from = null } = by;
    // A method that was retired and is saved anew is offered again.
    await tx.update(method).set({ retiredAt: null }).where(eq(method.id, data.id));
    await tx.insert(method).values({
      id: data.id,
      version,
      title: data.title,
      data: saved,
      savedAt: now,
      savedBy: person,
      reason,
    });
    const detail = { to: `version ${version}`, why: reason };
    const deed = { about: "method", subjectId: data.id, subject: data.title, person, from, detail } as const;
    await rememberDeed(tx, { ...deed, description: version === 1 ? "method added" : "method changed" }, now);
    return success(version);
  });
}

/** How many runs follow any version of a method. */
export async function runsBy(db: Connection, id: string): Promise<number> {
  const [row] = await db.select({ runs: count() }).from(run).where(eq(run.methodId, id));
  return row?.runs ?? 0;
}

/**
 * Takes a method out of the library: all of it where no run follows it, else it is offered no more and its runs keep it. Null
 * where there is no such method.
 */
export function removeMethod(
  db: Database,
  id: string,
  { person, reason, from = null }: By,
  now = new Date(),
): Promise<"deleted" | "retired" | null> {
  return db.transaction(async (tx) => {
    const [newest] = await tx
      .select()
      .from(method)
      .where(eq(method.id, id))
      .orderBy(desc(method.version))
      .limit(1);
    if (!newest) return null;
    const used = await runsBy(tx, id);
    if (used === 0) await tx.delete(method).where(eq(method.id, id));
    else await tx.update(method).set({ retiredAt: now }).where(eq(method.id, id));
    if (used === 0)
      [...read.keys()].filter((key) => key.startsWith(`${id}@`)).forEach((key) => read.delete(key));
    const deed = {
      about: "method",
      subjectId: id,
      subject: newest.title,
      person,
      from,
      detail: { why: reason },
    } as const;
    await rememberDeed(tx, { ...deed, description: used === 0 ? "method deleted" : "method retired" }, now);
    return used === 0 ? "deleted" : "retired";
  });
}

/** Offers a method again that was retired. */
export function bringMethodBack(
  db: Database,
  id: string,
  { person, reason, from = null }: By,
  now = new Date(),
): Promise<boolean> {
  return db.transaction(async (tx) => {
    const [row] = await tx.update(method).set({ retiredAt: null }).where(eq(method.id, id)).returning();
    if (!row) return false;
    const deed = {
      about: "method",
      subjectId: id,
      subject: row.title,
      person,
      from,
      detail: { why: reason },
    } as const;
    await rememberDeed(tx, { ...deed, description: "method brought back" }, now);
    return true;
  });
}

/** True where a method is offered no more. */
export async function isRetired(db: Connection, id: string): Promise<boolean> {
  const [row] = await db.select({ at: method.retiredAt }).from(method).where(eq(method.id, id)).limit(1);
  return row?.at != null;
}
