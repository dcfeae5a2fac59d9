import { desc } from "drizzle-orm";
import { compileMethod, type Method } from "../../core/run";
import { mustHold } from "../../core/result";
import type { Connection } from "../database/connection";
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
