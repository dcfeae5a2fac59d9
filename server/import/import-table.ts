import { createHash } from "node:crypto";
import { inArray } from "drizzle-orm";
import type { Method } from "../../core/method";
import { type Result, success } from "../../core/result";
import { guessed, targetsOf, unitIn } from "../../formats/table/columns";
import type { Mapping } from "../../formats/table/mapping";
import { decimalSign, fittingUnit, ordersOf } from "../../formats/table/numbers";
import { readBy, type TableRun, type TableRuns } from "../../formats/table/runs";
import type { Sheet } from "../../formats/table/sheet";
import type { LookedTable, OpenedTable, TableLine, TableRunView } from "../../protocol/table-import";
import { run } from "../database/schema";
import type { Database, DatabaseConnection } from "../database/types";
import { makingMuch } from "../maintenance/memory";
import { currentHouseRules } from "../queries/house-rules";
import { importRecords } from "./import-records";
import { readTable } from "./read-table";

/* Tables that others kept: looked at first, then imported as runs, all or nothing. */

const mostPreviewed = 8;
const mostShown = 50;

/** What can be said of a table before anybody says what it means. */
export function openedTable(sheet: Sheet): OpenedTable {
  const { cells, commas } = sheet;
  const [first = [], ...others] = cells;
  const isNumber = (cell: string) => /\d/.test(cell) && !/\p{L}{2}/u.test(cell);
  const headings = others.length > 0 && !first.some(isNumber);
  const body = headings ? others : cells;
  return {
    rows: body.length,
    preview: cells.slice(0, mostPreviewed),
    headings,
    decimal: decimalSign(body, commas),
    orders: first.map((_head, i) => {
      const column = body.map((row) => row[i] ?? "");
      return column.every((cell) => cell === "") ? [] : ordersOf(column);
    }),
  };
}

/** What the columns of a table can stand for in a stage of a method, and which they probably do. */
export async function tableTargets(
  db: DatabaseConnection,
  sheet: Sheet,
  method: Method,
  stageKey: string,
): Promise<Extract<TableLine, { status: "targets" }>> {
  const targets = targetsOf(method, stageKey, (await currentHouseRules(db)).data);
  const headings = sheet.cells[0] ?? [];
  return {
    status: "targets",
    targets: targets.map(({ key, label, unit, per, needed, usual, byMethod }) => ({
      ...{ key, label, unit, per, needed, usual, byMethod },
    })),
    guessed: guessed(headings, targets).map((key, i) => {
      const target = targets.find((one) => one.key === key);
      if (!target) return null;
      // A unit that does not fit stands as it was written: it has to be said what is meant.
      const written = unitIn(headings[i] ?? "");
      const unit = target.unit === "" ? "" : (fittingUnit(written, target.unit) ?? written);
      return { target: target.key, unit };
    }),
  };
}

export interface TableAsked {
  readonly sheet: Sheet;
  readonly mapping: Mapping;
  readonly method: Method;
  readonly person: string;
}

/** Called as the work goes on; lets others have their turn, and may stop it by throwing. */
export type Working = (what: "reading" | "writing", done: number, of: number) => Promise<void>;

/** What was read last: who has looked at a table imports it next. Forgotten after some minutes. */
let lately: { readonly key: string; readonly outcome: Result<TableRuns> } | null = null;
let forgetting: NodeJS.Timeout | undefined;
const rememberedMs = 5 * 60_000;

async function read(
  db: DatabaseConnection,
  { sheet, mapping, method }: TableAsked,
  now: Date,
  working: Working,
): Promise<Result<TableRuns>> {
  const rules = (await currentHouseRules(db)).data;
  const basis = JSON.stringify([sheet, mapping, method, rules, now.toISOString().slice(0, 10)]);
  const key = createHash("sha256").update(basis).digest("hex");
  clearTimeout(forgetting);
  forgetting = setTimeout(() => (lately = null), rememberedMs).unref();
  if (lately?.key === key) return lately.outcome;
  lately = null;
  const setting = { mapping, method, rules, now };
  const outcome = await makingMuch(() =>
    readTable(sheet, setting, (done, of) => working("reading", done, of)),
  );
  lately = { key, outcome };
  return outcome;
}

/** The ids of runs that are in the lab already. */
async function idsHere(db: DatabaseConnection, runs: readonly TableRun[]): Promise<ReadonlySet<string>> {
  const ids = runs.map(({ record }) => record.id);
  if (ids.length === 0) return new Set();
  const rows = await db.select({ id: run.id }).from(run).where(inArray(run.id, ids));
  return new Set(rows.map(({ id }) => id));
}

const viewOf = (
  { record, rows, flasks, open, listed }: TableRun,
  here: ReadonlySet<string>,
): TableRunView => ({
  title: record.title,
  trials: rows.length,
  flasks,
  rows: [rows[0] ?? 0, rows.at(-1) ?? 0],
  result: listed.result?.text ?? null,
  open,
  isHere: here.has(record.id),
});

/** Reads a table as runs and tells what came of it; changes nothing. */
export async function lookAtTable(
  db: DatabaseConnection,
  asked: TableAsked,
  now: Date,
  working: Working,
): Promise<Result<LookedTable>> {
  const outcome = await read(db, asked, now, working);
  if (!outcome.ok) return outcome;
  const { runs, problems } = outcome.value;
  const here = await idsHere(db, runs);
  return success({
    runs: runs.length,
    isHere: here.size,
    withoutResult: runs.filter(({ open }) => open !== null).length,
    some: runs.slice(0, mostShown).map((one) => viewOf(one, here)),
    problems,
  });
}

/** Imports the runs of a table that are not in the lab yet; nothing where any row is wrong. */
export async function importTable(
  db: Database,
  asked: TableAsked & { readonly file: string; readonly from: string | null },
  now: Date,
  working: Working,
): Promise<
  Result<{ readonly runs: number; readonly isHere: number }, TableRuns["problems"][number]["message"]>
> {
  const outcome = await read(db, asked, now, working);
  if (!outcome.ok) return { ok: false, problem: outcome.problem.message };
  const { runs, problems } = outcome.value;
  const [wrong] = problems;
  if (wrong) return { ok: false, problem: wrong.message };
  const here = await idsHere(db, runs);
  const { file, person, from } = asked;
  const fresh = runs.filter(({ record }) => !here.has(record.id));
  const records = fresh.map(({ record }) => readBy(record, person));
  if (records.length > 0)
    await importRecords(db, { file, person, from, runs: records, methods: [], shelf: null }, now, {
      progress: (done, of) => working("writing", done, of),
      listed: new Map(fresh.map(({ record, listed }) => [record.id, listed])),
      made: true,
    });
  lately = null;
  return success({ runs: records.length, isHere: here.size });
}
