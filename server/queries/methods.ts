import { Bug } from "../../core/result";
import type { Method } from "../../core/method";
import { aliased } from "../../core/run";
import { aliasOf, isShipped, withAliases } from "../../catalog/methods";
import type { LabWords } from "./in-words";
import type { MethodChoice } from "../../protocol/answers";
import type { DatabaseConnection } from "../database/types";
import { method, run } from "../database/schema";
import { and, eq, desc, inArray, asc, count } from "drizzle-orm";

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
  readonly title: string;
  readonly data: Method;
  readonly retiredAt: Date | null;
}

/**
 * The newest version of each method and what the library offers of them under a name of its own, by title. A method that stood in an
 * older library under such a name is offered as that.
 */
export async function listMethods(db: DatabaseConnection): Promise<MethodEntry[]> {
  const rows = await db
    .selectDistinctOn([method.id], { id: method.id, version: method.version, retiredAt: method.retiredAt })
    .from(method)
    .orderBy(method.id, desc(method.version));
  await readVersions(db, rows);
  const entries: MethodEntry[] = [];
  for (const { id, version, retiredAt } of rows) {
    const data = await methodVersion(db, id, version);
    if (!aliasOf(id)) entries.push({ id, title: data.title, data, retiredAt });
  }
  const aliased = withAliases(entries.map(({ data }) => data)).slice(entries.length);
  entries.push(...aliased.map((data) => ({ id: data.id, title: data.title, data, retiredAt: null })));
  // Retired ones stay listed, and say so.
  return entries.sort((a, b) => a.title.localeCompare(b.title));
}

/** Reads at once what has not been read yet of several versions. */
async function readVersions(
  db: DatabaseConnection,
  versions: readonly { readonly id: string; readonly version: number }[],
): Promise<void> {
  const ids = versions.filter(({ id, version }) => !knownMethods.has(`${id}@${version}`)).map(({ id }) => id);
  if (ids.length === 0) return;
  const rows = await db
    .selectDistinctOn([method.id], { id: method.id, version: method.version, data: method.data })
    .from(method)
    .where(inArray(method.id, ids))
    .orderBy(method.id, desc(method.version));
  for (const { id, version, data } of rows) knownMethods.set(`${id}@${version}`, data);
}

/** So many methods are offered first, since they were used last. */
const recentMethods = 4;
/** Of the runs that were begun last, so many. */
const runsLookedAt = 60;

/** What a method is looked for by, in the words of the lab. */
function choiceOf(written: Method, { say }: LabWords): Omit<MethodChoice, "recent"> {
  const { id, title, purpose, family, equations, substances, stages } = written;
  const text = (as: string) => (isShipped(id) ? say({ message: as }) : as);
  const last = stages.at(-1);
  return {
    ...{ id, family, title: text(title), purpose: text(purpose) },
    equation: equations.at(-1)?.equation ?? "",
    standardizes: stages.some(({ kind, result }) => kind === "titration" && result.assigns !== undefined),
    findsUnknown: last?.result.assigns === undefined && family !== "colorimetric",
    words: [title, purpose, family, ...Object.entries(substances).flat()].join(" ").toLowerCase(),
  };
}

/** The methods that a run can be begun by, by title. */
export async function methodChoices(db: DatabaseConnection, words: LabWords): Promise<MethodChoice[]> {
  const last = await db.select({ id: run.methodId }).from(run).orderBy(desc(run.id)).limit(runsLookedAt);
  const used = [...new Set(last.map(({ id }) => id))].slice(0, recentMethods);
  const choices = (await listMethods(db))
    .filter(({ retiredAt }) => retiredAt === null)
    .map(({ id, data }): MethodChoice => {
      const place = used.indexOf(id);
      return { ...choiceOf(data, words), recent: place < 0 ? null : place };
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

/** A method as it is offered: under an alias with the choices of that made; null where nothing is offered by that name. */
export async function offeredMethod(
  db: DatabaseConnection,
  id: string,
  version?: number,
): Promise<Method | null> {
  const alias = aliasOf(id);
  // An old link may ask for a version of the method that stood under that name.
  const there = !alias || version !== undefined ? await findMethod(db, id, version) : null;
  if (!alias || there) return there;
  const of = await findMethod(db, alias.of, version);
  return of && aliased(alias, of);
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
