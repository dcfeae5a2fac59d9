import { availableParallelism } from "node:os";
import { type Result, success } from "../../core/result";
import type { TableSetting } from "../../formats/table/cells";
import { type Part, type Progress, runsOfTable, type TableRuns, togetherOf } from "../../formats/table/runs";
import type { Sheet } from "../../formats/table/sheet";
import { hasThreads, Thread } from "../threads/thread";

/** What a thread is asked: a table, and which part of its runs to read. */
interface PartAsked {
  readonly sheet: Sheet;
  readonly setting: TableSetting;
  readonly part: Part;
  /** Shared with whoever asked: not 0 once nobody wants it any more. */
  readonly stopped: Int32Array<SharedArrayBuffer>;
}

/** Runs that a thread has read, of those that it reads. */
type Reached = readonly [done: number, of: number];

/** Reads a part of a table; what a thread for it does. */
export const readPart = (
  { sheet, setting, part, stopped }: PartAsked,
  onProgress: (reached: Reached) => void,
): Promise<Result<TableRuns>> => {
  const progress: Progress = (done, of) => {
    if (Atomics.load(stopped, 0) !== 0) throw new Error("The reading of a table was stopped");
    onProgress([done, of]);
  };
  return runsOfTable(sheet, setting, progress, part);
};

/** A table with fewer rows is read sooner than a thread for it begins. */
const fewRows = 500;
/** Whoever looks at a table has its columns to name, and imports it next. */
const idleMs = 3 * 60_000;

const threads = Array.from(
  { length: Math.min(4, availableParallelism()) },
  () => new Thread<PartAsked, Result<TableRuns>, Reached>("table", idleMs),
);

/** True for a table that is read in threads. */
const takesThreads = ({ cells }: Sheet): boolean => hasThreads() && cells.length > fewRows;

/** Begins what a table that was opened will need: it is ready by the time that its columns have names. */
export function expectTable(sheet: Sheet): void {
  if (takesThreads(sheet)) for (const thread of threads) thread.begin();
}

/** Parts that were read of a table, with its method and rules as they are here: what comes from a thread has copies. */
function ofParts(parts: readonly Result<TableRuns>[], { method, rules }: TableSetting): Result<TableRuns> {
  const wrong = parts.find((part) => !part.ok);
  if (wrong) return wrong;
  const { runs, problems } = togetherOf(parts.flatMap((part) => (part.ok ? [part.value] : [])));
  const own = { method, houseRules: rules };
  return success({ runs: runs.map((one) => ({ ...one, record: { ...one.record, ...own } })), problems });
}

/**
 * Reads a table as runs, as `runsOfTable` does: a large one in as many threads as there are processors, so that the server saves readings
 * meanwhile. Whatever `progress` throws stops it, and is thrown.
 */
export async function readTable(
  sheet: Sheet,
  setting: TableSetting,
  progress: Progress,
): Promise<Result<TableRuns>> {
  if (!takesThreads(sheet)) return runsOfTable(sheet, setting, progress);
  const stopped = new Int32Array(new SharedArrayBuffer(4));
  const reached = threads.map((): Reached => [0, 0]);
  const sum = (which: 0 | 1) => reached.reduce((before, one) => before + one[which], 0);
  try {
    return await new Promise((resolve, reject) => {
      const parts = threads.map((thread, index) =>
        thread.ask({ sheet, setting, part: { index, of: threads.length }, stopped }, (now) => {
          reached[index] = now;
          Promise.resolve(progress(sum(0), sum(1))).catch(reject);
        }),
      );
      Promise.all(parts).then((read) => resolve(ofParts(read, setting)), reject);
    });
  } catch (error) {
    Atomics.store(stopped, 0, 1);
    throw error;
  }
}
