import { isDeepStrictEqual } from "node:util";
import canonicalize from "canonicalize";
import { inArray } from "drizzle-orm";
import type { RunRecord } from "../../core/run";
import { msg, type Phrase } from "../../core/text";
import { assignment } from "../database/schema";
import type { DatabaseConnection } from "../database/types";
import { loadRunRecord } from "../queries/stored-run";
import { partsHere, unfitIds } from "./ids";

/** Whether a run from a file can be imported: it is new, it is in the lab already as the file has it, or it is refused. */
export type ImportStatus =
  | { readonly state: "new" }
  | { readonly state: "here" }
  | { readonly state: "refused"; readonly why: Phrase };

const known = new WeakMap<object, string>();

/** One text for a method, whatever its id, or for house rules. Many runs share them: each is written out once. */
export function sharedText(part: object): string {
  const there = known.get(part) ?? canonicalize({ ...part, id: "" }) ?? "";
  known.set(part, there);
  return there;
}

/** One text for all records of the same run: bottles may have other names here, and a method another id. */
const comparable = (record: RunRecord): string =>
  canonicalize({
    ...record,
    method: sharedText(record.method),
    houseRules: sharedText(record.houseRules),
    solutions: record.solutions
      ?.map(({ code: _, name: __, ...used }) => used)
      .sort((a, b) => (a.assignmentId < b.assignmentId ? -1 : 1)),
  }) ?? "";

export const isSameRun = (a: RunRecord, b: RunRecord): boolean =>
  isDeepStrictEqual(a, b) || comparable(a) === comparable(b);

/** A bottle whose concentration the record states otherwise than this lab has it; null where there is none. */
export async function otherConcentration(
  db: DatabaseConnection,
  { solutions = [] }: RunRecord,
): Promise<Phrase | null> {
  if (solutions.length === 0) return null;
  const ids = solutions.map(({ assignmentId }) => assignmentId);
  const rows = await db.select().from(assignment).where(inArray(assignment.id, ids));
  const differs = solutions.find((used) => {
    const row = rows.find(({ id }) => id === used.assignmentId);
    return (
      row &&
      (["value", "plusMinus", "shape", "unit", "solutionId"] as const).some((key) => row[key] !== used[key])
    );
  });
  return differs
    ? msg`The file gives ${differs.value} ${differs.unit} for bottle ${differs.code}, which has another concentration in this lab`
    : null;
}

/** Checks whether a run could be imported; changes nothing. */
export async function importStatusOf(db: DatabaseConnection, record: RunRecord): Promise<ImportStatus> {
  const refused = (why: Phrase): ImportStatus => ({ state: "refused", why });
  const unfit = unfitIds(record);
  if (unfit) return refused(unfit);
  const here = await loadRunRecord(db, record.id);
  if (here)
    return isSameRun(here, record)
      ? { state: "here" }
      : refused(msg`This run is in the lab already and differs from the file: it stays as it is`);
  if ((await partsHere(db, [record])).size > 0)
    return refused(msg`Readings of this run belong to another run of this lab`);
  const other = await otherConcentration(db, record);
  return other ? refused(other) : { state: "new" };
}
