import canonicalize from "canonicalize";
import type { RunRecord } from "../../core/run";
import { msg, type Phrase } from "../../core/text";
import { loadRunRecord } from "../queries/stored-run";
import type { DatabaseConnection } from "../database/types";
import { partsElsewhere, unfitIds } from "./ids";

/** What becomes of a run that comes from a file: it is new, it is here already as it is there, or it cannot be taken. */
export type Fate =
  | { readonly state: "new" }
  | { readonly state: "here" }
  | { readonly state: "refused"; readonly why: Phrase };

/** The text by which two records are the same run: bottles may be called otherwise here, and a method may bear another id. */
const told = (record: RunRecord): string =>
  canonicalize({
    ...record,
    method: { ...record.method, id: "" },
    solutions: record.solutions
      ?.map(({ code: _, name: __, ...used }) => used)
      .sort((a, b) => (a.assignmentId < b.assignmentId ? -1 : 1)),
  }) ?? "";

export const isSameRun = (a: RunRecord, b: RunRecord): boolean => told(a) === told(b);

/** Looks at what would become of a run; changes nothing. */
export async function fateOf(db: DatabaseConnection, record: RunRecord): Promise<Fate> {
  const unfit = unfitIds(record);
  if (unfit) return { state: "refused", why: unfit };
  const here = await loadRunRecord(db, record.id);
  if (here)
    return isSameRun(here, record)
      ? { state: "here" }
      : {
          state: "refused",
          why: msg`This run is here already, and differs from the file: it stays as it is`,
        };
  if (await partsElsewhere(db, record))
    return { state: "refused", why: msg`Readings of this run stand in another run of this lab` };
  return { state: "new" };
}
