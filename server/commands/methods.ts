import type { DatabaseConnection, Database } from "../database/types";
import { type Method } from "../../core/method";
import { compileMethod, type MethodProblem } from "../../core/stages";
import { mustHold, type Result, success } from "../../core/result";
import { method } from "../database/schema";
import type { By } from "./deed";
import { versionsOf, runsBy, knownMethods } from "../queries/methods";
import { eq, desc } from "drizzle-orm";
import { recorded } from "../journal/recorded";
import { clockSeen, rememberDeed } from "./lab";

/** Puts methods into the library. Throws on one that does not hold together. */
export async function putMethods(db: DatabaseConnection, methods: readonly Method[]): Promise<void> {
  for (const data of methods) {
    mustHold(compileMethod(data));
    const { id, version, title } = data;
    await db.insert(method).values({ id, version, title, data }).onConflictDoNothing();
  }
}

/** Puts those methods into the library that are not there in their version, as after an update of this program. */
export async function putMissingMethods(
  db: Database,
  methods: readonly Method[],
  now = new Date(),
): Promise<void> {
  const rows = await db.select({ id: method.id, version: method.version }).from(method);
  const there = new Set(rows.map(({ id, version }) => `${id}@${version}`));
  const missing = methods.filter(({ id, version }) => !there.has(`${id}@${version}`));
  if (missing.length === 0) return;
  await recorded(db, "catalog", missing, now, async (tx) => {
    await clockSeen(tx, now);
    await putMethods(tx, missing);
  });
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
): Promise<Result<number, MethodProblem>> {
  const compiled = compileMethod(data);
  if (!compiled.ok) return compiled;
  return recorded(db, "method", { data, by }, now, async (tx) => {
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

/**
 * Takes a method out of the library: all of it where no run follows it, else it is offered no more and its runs keep it. Null
 * where there is no such method.
 */
export function removeMethod(
  db: Database,
  id: string,
  by: By,
  now = new Date(),
): Promise<"deleted" | "retired" | null> {
  const { person, reason, from = null } = by;
  return recorded(db, "remove-method", { id, by }, now, async (tx) => {
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
      [...knownMethods.keys()]
        .filter((key) => key.startsWith(`${id}@`))
        .forEach((key) => knownMethods.delete(key));
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
export function bringMethodBack(db: Database, id: string, by: By, now = new Date()): Promise<boolean> {
  const { person, reason, from = null } = by;
  return recorded(db, "method-back", { id, by }, now, async (tx) => {
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
