import type { Method } from "../../core/method";
import type { RunRecord } from "../../core/run";
import type { ShelfFile } from "../../formats/archive/schema";
import { rememberDeed } from "../commands/lab";
import type { Transacting } from "../database/types";
import { recorded } from "../journal/recorded";
import { forgetMethods } from "../queries/methods";
import { importStatusOf } from "./import-status";
import { linkShelf, putShelf, putUsed, shelfOfRecord } from "./put-shelf";
import { type KnownMethods, putMethod, putRun } from "./put-run";

/** Runs, methods and bottles from a file, and who imports them. */
export interface ImportRecords {
  readonly file: string;
  readonly person: string;
  readonly from: string | null;
  readonly runs: readonly RunRecord[];
  readonly methods: readonly Method[];
  readonly shelf: ShelfFile | null;
}

/** What was new, and is in the lab now. */
export interface Imported {
  readonly runs: readonly string[];
  readonly methods: number;
  readonly bottles: number;
}

/**
 * Imports what is not in the lab yet, all or nothing: a run that is here already, or that is refused, is left out. Importing twice changes
 * nothing. Throws where the database refuses something; then nothing was written.
 */
export function importRecords(
  db: Transacting,
  asked: ImportRecords,
  now = new Date(),
  progress: (done: number, of: number) => Promise<void> | void = () => {},
): Promise<Imported> {
  return recorded(db, "import", asked, now, async (tx) => {
    const { file, person, from, runs, methods, shelf } = asked;
    let newMethods = 0;
    for (const method of methods) if ((await putMethod(tx, method)).added) newMethods++;
    const added = shelf ? await putShelf(tx, shelf) : [];
    let bottles = added.length;
    const taken: string[] = [];
    const known: KnownMethods = new Map();
    for (const [i, record] of runs.entries()) {
      // Whoever stops it throws: then nothing was written.
      await progress(i, runs.length);
      if ((await importStatusOf(tx, record)).state !== "new") continue;
      const used = shelfOfRecord(record);
      bottles += (await putShelf(tx, used)).length;
      await putUsed(tx, used);
      await putRun(tx, record, now, known);
      taken.push(record.id);
    }
    await linkShelf(tx, added);
    const summary = [`${taken.length} runs`, `${bottles} bottles`, `${newMethods} methods`].join(", ");
    const deed = { about: "run", subject: file, person, from, detail: { to: summary } } as const;
    await rememberDeed(tx, { ...deed, description: "imported from a file" }, now);
    return { runs: taken, methods: newMethods, bottles };
  }).catch((error: unknown) => {
    forgetMethods();
    throw error;
  });
}
