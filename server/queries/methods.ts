import { Bug } from "../../core/result";
import type { Method } from "../../core/method";
import { isShipped } from "../../catalog/methods";
import type { LabWords } from "./in-words";
import type { MethodChoice } from "../../protocol/answers";
import type { DatabaseConnection } from "../database/types";
import { method, run } from "../database/schema";
import { and, eq, desc, sql, isNull, asc, count } from "drizzle-orm";

export const knownMethods = new Map<string, Method>();

/** After another database was opened, what was read of the one before holds no longer. */
export const forgetMethods = (): void => knownMethods.clear();

/** One version of a method. A version never changes, so it is read once and stays the same object. */
export async function methodVersion(db: DatabaseConnection, id: string, version: number): Promise<Method> {
  const key = `${id}@${version}`;
  const known = knownMethods.get(key);
  if (known) return known;
  const [row] = await db
    .select({ data: method.data })
    .from(method)
    .where(and(eq(method.id, id), eq(method.version, version)));
  if (!row) throw new Bug(`Method ${key} is not in the database`);
  knownMethods.set(key, row.data);
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
export async function listMethods(db: DatabaseConnection): Promise<MethodEntry[]> {
  const rows = await db.selectDistinctOn([method.id]).from(method).orderBy(method.id, desc(method.version));
  // Retired ones stay listed, and say so.
  return rows.sort((a, b) => a.title.localeCompare(b.title));
}

/** So many methods are offered first, since they were used last. */
const recentMethods = 4;
/** Of the runs that were begun last, so many. */
const runsLookedAt = 60;

/** The methods that a run can be begun by, by title. */
export async function methodChoices(db: DatabaseConnection, { say }: LabWords): Promise<MethodChoice[]> {
  const last = await db.select({ id: run.methodId }).from(run).orderBy(desc(run.id)).limit(runsLookedAt);
  const used = [...new Set(last.map(({ id }) => id))].slice(0, recentMethods);
  const rows = await db
    .selectDistinctOn([method.id], {
      id: method.id,
      title: method.title,
      purpose: sql<string>`${method.data} ->> 'purpose'`,
      family: sql<string>`${method.data} ->> 'family'`,
      equation: sql<string>`coalesce(${method.data} -> 'equations' -> -1 ->> 'equation', '')`,
      standardizes: sql<boolean>`jsonb_path_exists(${method.data}, '$.stages[*] ? (@.kind == "titration").result.assigns')`,
      findsUnknown: sql<boolean>`${method.data} -> 'stages' -> -1 -> 'result' -> 'assigns' is null and ${method.data} ->> 'family' <> 'colorimetric'`,
      substances: sql<string>`coalesce(${method.data} ->> 'substances', '')`,
    })
    .from(method)
    .where(isNull(method.retiredAt))
    .orderBy(method.id, desc(method.version));
  const choices = rows.map(({ substances, ...choice }): MethodChoice => {
    const place = used.indexOf(choice.id);
    const text = (as: string) => (isShipped(choice.id) ? say({ message: as }) : as);
    return {
      ...choice,
      title: text(choice.title),
      purpose: text(choice.purpose),
      recent: place < 0 ? null : place,
      words: [choice.title, choice.purpose, choice.family, substances].join(" ").toLowerCase(),
    };
  });
  return choices.toSorted((a, b) => a.title.localeCompare(b.title));
}

/** Numbers of all versions of a method, oldest first. */
export async function versionsOf(db: DatabaseConnection, id: string): Promise<number[]> {
  const rows = await db
    .select({ version: method.version })
    .from(method)
    .where(eq(method.id, id))
    .orderBy(asc(method.version));
  return rows.map(({ version }) => version);
}

/** The newest version of a method, or one by its number; null where there is none. */
export async function findMethod(
  db: DatabaseConnection,
  id: string,
  version?: number,
): Promise<Method | null> {
  const versions = await versionsOf(db, id);
  const wanted = version ?? versions.at(-1);
  return wanted === undefined || !versions.includes(wanted) ? null : methodVersion(db, id, wanted);
}

/** How many runs follow any version of a method. */
export async function runsBy(db: DatabaseConnection, id: string): Promise<number> {
  const [row] = await db.select({ runs: count() }).from(run).where(eq(run.methodId, id));
  return row?.runs ?? 0;
}

/** True where a method is offered no more. */
export async function isRetired(db: DatabaseConnection, id: string): Promise<boolean> {
  const [row] = await db.select({ at: method.retiredAt }).from(method).where(eq(method.id, id)).limit(1);
  return row?.at != null;
}
