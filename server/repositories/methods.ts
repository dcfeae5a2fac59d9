import { and, asc, desc, eq, sql } from "drizzle-orm";
import { compileMethod, type Method } from "../../core/run";
import { mustHold, type Result, success } from "../../core/result";
import type { Connection, Database } from "../database/types";
import { method } from "../database/schema";

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
}

/** The newest version of each method, by title. */
export async function listMethods(db: Connection): Promise<MethodEntry[]> {
  const rows = await db.selectDistinctOn([method.id]).from(method).orderBy(method.id, desc(method.version));
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
export async function saveMethod(db: Database, data: Method): Promise<Result<number>> {
  const compiled = compileMethod(data);
  if (!compiled.ok) return compiled;
  return db.transaction(async (tx) => {
    const newest = (await versionsOf(tx, data.id)).at(-1) ?? 0;
    const version = newest + 1;
    const saved: Method = { ...data, version };
    await tx.insert(method).values({ id: data.id, version, title: data.title, data: saved });
    return success(version);
  });
}
