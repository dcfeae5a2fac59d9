import type { Method } from "../../core/method";
import type { RunRecord } from "../../core/run";
import type { ShelfFile } from "../../formats/archive/schema";
import { rememberDeed } from "../commands/lab";
import type { Transacting } from "../database/types";
import { recorded } from "../journal/recorded";
import { forgetMethods } from "../queries/methods";
import { fateOf } from "./fate";
import { linkShelf, putShelf, shelfOfRecord } from "./put-shelf";
import { putMethodOf, putRun } from "./put-run";

/** Runs, methods and bottles from a file, and who brings them in. */
export interface ImportRecords {
  readonly file: string;
  readonly person: string;
  readonly from: string | null;
  readonly runs: readonly RunRecord[];
  readonly methods: readonly Method[];
  readonly shelf: ShelfFile | null;
}

/** What was taken. */
export interface Imported {
  readonly runs: readonly string[];
  readonly methods: number;
  readonly bottles: number;
}

/**
 * Takes what is not there yet, all or nothing: a run that is here already, or that cannot be taken, is left out. What is taken twice is there
 * once. Throws where the database refuses something; then nothing was written.
 */
export function importRecords(db: Transacting, asked: ImportRecords, now = new Date()): Promise<Imported> {
  return recorded(db, "import", asked, now, async (tx) => {
    const { file, person, from, runs, methods, shelf } = asked;
    for (const method of methods) await putMethodOf(tx, method);
    let bottles = shelf ? await putShelf(tx, shelf) : 0;
    const taken: string[] = [];
    for (const record of runs) {
      if ((await fateOf(tx, record)).state !== "new") continue;
      bottles += await putShelf(tx, shelfOfRecord(record));
      await putRun(tx, record, now);
      taken.push(record.id);
    }
    if (shelf) await linkShelf(tx, shelf);
    const told = [`${taken.length} runs`, `${bottles} bottles`, `${methods.length} methods`].join(", ");
    const deed = { about: "run", subject: file, person, from, detail: { to: told } } as const;
    await rememberDeed(tx, { ...deed, description: "brought in from a file" }, now);
    return { runs: taken, methods: methods.length, bottles };
  }).catch((error: unknown) => {
    forgetMethods();
    throw error;
  });
}
