import { count, inArray } from "drizzle-orm";
import type { RunRecord } from "../../core/run";
import type { ListedRun } from "../../core/evaluate";
import { rememberDeed } from "../commands/lab";
import { run } from "../database/schema";
import { analyze } from "../database/analyze";
import { bothUnderRuns, mustStandUnderRuns, nothingUnderRuns } from "../database/references";
import type { DatabaseConnection, Transacting } from "../database/types";
import { makingMuch } from "../maintenance/memory";
import { recorded } from "../journal/recorded";
import { forgetMethods } from "../queries/methods";
import { type ImportRecords, packed } from "./packed";
import { partIds, partsHere, unfitIds } from "./ids";
import { otherConcentration } from "./import-status";
import { linkShelf, putShelf, putUsed, shelfOfRecord } from "./put-shelf";
import { type KnownMethods, putMethod, putRuns } from "./put-runs";

/** What was new, and is in the lab now. */
export interface Imported {
  readonly runs: readonly string[];
  readonly methods: number;
  readonly bottles: number;
}

/** What helps an import, and changes nothing in what it writes. */
interface ImportHelp {
  /** Called before every few runs; stops it by throwing. */
  readonly progress?: (done: number, of: number) => Promise<void> | void;
  /** What lists show of runs that were evaluated already, by their ids. */
  readonly listed?: ReadonlyMap<string, ListedRun>;
  /** True for runs that this program has just made of a table, and that are not in the lab: it gave the ids of all that is in them. */
  readonly made?: boolean;
}

/** So many runs are written together: what one statement takes of them is a few hundred kilobytes. */
const together = 100;

/** Those of some runs that are new to the lab, with the bottles that they name put on the shelf where they are missing. */
async function newOf(
  db: DatabaseConnection,
  runs: readonly RunRecord[],
): Promise<{ readonly records: readonly RunRecord[]; readonly bottles: number }> {
  const fit = runs.filter((record) => unfitIds(record) === null);
  const there = await db
    .select({ id: run.id })
    .from(run)
    .where(
      inArray(
        run.id,
        fit.map(({ id }) => id),
      ),
    );
  // Nothing stands in a lab twice, whether it was there before or comes with another run of the file.
  const taken = new Set([...there.map(({ id }) => id), ...(await partsHere(db, fit))]);
  const records: RunRecord[] = [];
  let bottles = 0;
  for (const record of fit) {
    const ids = [record.id, ...partIds(record)];
    if (ids.some((id) => taken.has(id)) || (await otherConcentration(db, record))) continue;
    for (const id of ids) taken.add(id);
    const used = shelfOfRecord(record);
    bottles += (await putShelf(db, used)).length;
    await putUsed(db, used);
    records.push(record);
  }
  return { records, bottles };
}

/**
 * Imports what is not in the lab yet, all or nothing: a run that is here already, or that is refused, is left out. Importing twice changes
 * nothing. Throws where the database refuses something; then nothing was written.
 */
export function importRecords(
  db: Transacting,
  asked: ImportRecords,
  now = new Date(),
  { progress = () => {}, listed, made = false }: ImportHelp = {},
): Promise<Imported> {
  const write = async (tx: DatabaseConnection): Promise<Imported> => {
    const { file, person, from, runs, methods, shelf } = asked;
    let newMethods = 0;
    for (const method of methods) if ((await putMethod(tx, method)).added) newMethods++;
    const added = shelf ? await putShelf(tx, shelf) : [];
    let bottles = added.length;
    const taken: string[] = [];
    const methodsHere: KnownMethods = new Map();
    let written = nothingUnderRuns;
    const shapes = made ? new Set<string>() : null;
    // A lab that becomes many times what it is has to be looked at anew, or keys are looked up as in one that is empty.
    const [lab] = await tx.select({ runs: count() }).from(run);
    const before = lab?.runs ?? 0;
    let analyzed = Math.max(together / 2, before);
    for (let at = 0; at < runs.length; at += together) {
      // Whoever stops it throws: then nothing was written.
      await progress(at, runs.length);
      const next = runs.slice(at, at + together);
      const some = made ? { records: next, bottles: 0 } : await newOf(tx, next);
      bottles += some.bottles;
      const put = await putRuns(tx, some.records, now, { methods: methodsHere, listed, shapes });
      written = bothUnderRuns(written, put);
      taken.push(...some.records.map(({ id }) => id));
      if (before + taken.length >= 4 * analyzed) {
        await analyze(tx);
        analyzed = before + taken.length;
      }
    }
    await mustStandUnderRuns(tx, taken, written);
    await linkShelf(tx, added);
    const summary = [`${taken.length} runs`, `${bottles} bottles`, `${newMethods} methods`].join(", ");
    const deed = { about: "run", subject: file, person, from, detail: { to: summary } } as const;
    await rememberDeed(tx, { ...deed, description: "imported from a file" }, now);
    return { runs: taken, methods: newMethods, bottles };
  };
  return makingMuch(() => recorded(db, "import", packed(asked), now, write)).catch((error: unknown) => {
    forgetMethods();
    throw error;
  });
}
