import { and, desc, eq } from "drizzle-orm";
import { compileMethod, type Method } from "../../core/run";
import { mustHold } from "../../core/result";
import type { Connection } from "../database/types";
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
