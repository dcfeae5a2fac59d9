import { seriesTable, type SeriesTable } from "~/core/evaluate";
import type { RunRecord } from "~/core/run";
import { linksHead } from "~/formats/proof/head";
import { fileWithResults } from "~/formats/results/stated";

/** Several runs on one sheet: a table for each method, and by what each record is proven. */
export interface ClassSheet {
  readonly groups: readonly { readonly method: string; readonly table: SeriesTable }[];
  readonly heads: readonly { readonly title: string; readonly head: string }[];
  readonly labKey: string | null;
}

/** The sheet of some runs as they are stored, in the words of the lab. Results stand beside each other where they are of one method. */
export function classSheetOf(
  stored: readonly RunRecord[],
  inWords: (record: RunRecord) => RunRecord,
  labKey: string | null,
): ClassSheet {
  const records = stored.map(inWords);
  const methods = [...new Set(records.map(({ method }) => method.id))];
  return {
    groups: methods.map((id) => {
      const own = records.filter(({ method }) => method.id === id);
      return { method: own[0]?.method.title ?? "", table: seriesTable(own, "") };
    }),
    heads: stored.map((record) => ({ title: record.title, head: linksHead(fileWithResults(record)).head })),
    labKey,
  };
}
