import canonicalize from "canonicalize";
import { v5 as namedId } from "uuid";
import { applyChange, type RunChange } from "~/core/change";
import { changeContext, evaluateRun, type ListedRun, listedRun, onceClosed } from "~/core/evaluate";
import type { Method } from "~/core/method";
import type { Observation } from "~/core/record";
import { failure, type Result, success } from "~/core/result";
import type { HouseRules } from "~/core/rules";
import type { RunRecord } from "~/core/run";
import { reasonsOf } from "~/core/stages";
import { msg, type Phrase, unitText } from "~/core/text";
import { stagesBefore, type Target, targetsOf } from "./columns";
import type { Mapping } from "./mapping";
import { dateOf, readingOf, unitsFor } from "./numbers";
import type { Sheet } from "./sheet";

/*
 * A table as runs: rows of the same sample, day and person are trials of one run, in the order in which they stand. Readings go through
 * the same checks as typed ones.
 */

/** What is wrong with a row, counted as the spreadsheet counts; and in which column, where it is one. */
export interface RowProblem {
  readonly row: number;
  /** From 0; null where the row as a whole is meant. */
  readonly column: number | null;
  readonly message: Phrase;
}

/** A run of the table, with the rows that it stands in. Where no column says who read something, nobody did yet: see `readBy`. */
export interface TableRun {
  readonly record: RunRecord;
  readonly rows: readonly number[];
  readonly listed: ListedRun;
  /** Why it has no result; null where it has one. */
  readonly open: Phrase | null;
}

export interface TableRuns {
  readonly runs: readonly TableRun[];
  /** Where there are any, nothing is imported. */
  readonly problems: readonly RowProblem[];
}

export interface TableSetting {
  readonly mapping: Mapping;
  readonly method: Method;
  readonly rules: HouseRules;
  readonly now: Date;
}

/** Ids follow from what the rows say: the same table gives the same runs. */
const namespace = "6a1f6d0e-3b0c-4f6c-9b57-3f0a3f1d5c11";
const idOf = (...parts: readonly unknown[]): string => namedId(canonicalize(parts) ?? "", namespace);

/** Rows with these problems are told one by one; a table in which every row is wrong has one fault, not thousands. */
const mostProblems = 50;
/** Trials that one run takes. */
const mostTrials = 100;

interface Cell {
  readonly text: string;
  /** Null where it is the same for all rows. */
  readonly column: number | null;
}

interface Row {
  readonly row: number;
  readonly at: (key: string) => Cell;
}

/** The rows of a table by what they stand for. */
function rowsOf({ cells, lines }: Sheet, { columns, fixed, headings }: Mapping): readonly Row[] {
  const places = new Map(columns.flatMap((use, i) => (use ? [[use.target, i] as const] : [])));
  const first = headings ? 1 : 0;
  return cells.slice(first).map((texts, i) => ({
    row: lines[i + first] ?? 0,
    at: (key) => {
      const column = places.get(key);
      return column === undefined
        ? { text: (fixed[key] ?? "").trim(), column: null }
        : { text: texts[column] ?? "", column };
    },
  }));
}

/** What is wrong with a mapping as a whole; null where nothing is. */
export function problemOfMapping({ columns }: Mapping, targets: readonly Target[]): Phrase | null {
  const used = columns.flatMap((use) => (use ? [use.target] : []));
  const twice = targets.find(({ key }) => used.filter((one) => one === key).length > 1);
  if (twice) return msg`Two columns stand for the same: ${twice.label}`;
  const unknown = used.find((key) => !targets.some((one) => one.key === key));
  if (unknown !== undefined) return msg`A column stands for something that this method does not have`;
  if (!targets.some(({ key, per, fills }) => fills && per === "row" && used.includes(key)))
    return msg`Say which columns hold the readings`;
  // What a heading calls a unit may be none, or one that takes chemistry to convert: nothing is taken for what it is not.
  for (const use of columns) {
    const target = targets.find(({ key, unit }) => key === use?.target && unit !== "");
    if (use && target && !unitsFor(target.unit).includes(use.unit))
      return msg`${target.label} is in "${use.unit}", and ${unitText(target.unit)} is needed: say which unit the column is in`;
  }
  return null;
}

/** A change of a run, and the row that it comes from. */
interface Step {
  readonly change: RunChange;
  readonly row: Row;
}

/** Reads rows as runs. */
class TableReader {
  readonly problems: RowProblem[] = [];
  private readonly targets: readonly Target[];
  /** Which stages are known, once it was found. */
  private choices: RunRecord["choices"] | null = null;

  constructor(private readonly setting: TableSetting) {
    const { method, mapping, rules } = setting;
    this.targets = targetsOf(method, mapping.stageKey, rules);
  }

  /** What a cell means as a reading; null where it is empty, or no number. */
  private meant(row: Row, { key, unit, fills }: Target): string | null {
    const { text, column } = row.at(key);
    if (text === "" || !fills) return null;
    // What is typed beside the table is typed with a point, or with a comma, as people do.
    const typed = text.includes(",") ? "comma" : "point";
    if (column === null) return readingOf(text, { decimal: typed, from: unit, to: unit, decimals: null });
    const { mapping } = this.setting;
    const { decimals = null } = fills.field.rules;
    return readingOf(text, {
      decimal: mapping.decimal,
      from: mapping.columns[column]?.unit ?? unit,
      to: unit,
      decimals: mapping.zeros ? decimals : null,
    });
  }

  /** A reading of a cell; null where it is empty, or wrong, which is told. */
  private reading(row: Row, target: Target): string | null {
    const read = this.meant(row, target);
    const { text, column } = row.at(target.key);
    if (read === null && text !== "")
      this.wrong(row, column, msg`"${text}" is not a number, or its decimals stand behind another sign`);
    return read;
  }

  /**
   * What a row says, as it is understood: the same rows with a unit corrected are another run. A day that the table does not say is no part
   * of it: imported on another day it is the same table.
   */
  private meaning(row: Row): readonly string[] {
    return this.targets.map((target) => {
      const { text, column } = row.at(target.key);
      if (target.fills) return this.meant(row, target) ?? "";
      if (target.key !== "date") return text;
      return column === null ? "" : String(dateOf(text, this.setting.mapping.dates)?.getTime() ?? "");
    });
  }

  wrong({ row }: Row, column: number | null, message: Phrase): void {
    this.problems.push({ row, column, message });
  }

  /** When the run of a row was begun; null where the date is wrong, which is told. */
  private begun(row: Row): Date | null {
    const { text, column } = row.at("date");
    if (text === "") {
      this.wrong(row, column, msg`The date is missing`);
      return null;
    }
    const date = dateOf(text, column === null ? "ymd" : this.setting.mapping.dates);
    if (!date) this.wrong(row, column, msg`"${text}" is not a date`);
    else if (date.getTime() > this.setting.now.getTime() + 86_400_000)
      this.wrong(row, column, msg`${text} is in the future`);
    else return date;
    return null;
  }

  /** Rows that belong together, in order. */
  groups(sheet: Sheet): readonly { readonly begun: Date; readonly rows: readonly Row[] }[] {
    const found = new Map<string, { begun: Date; rows: Row[] }>();
    for (const row of rowsOf(sheet, this.setting.mapping)) {
      const begun = this.begun(row);
      if (!begun) continue;
      const key = [row.at("sample").text, row.at("person").text, begun.toDateString()].join("\n");
      const there = found.get(key) ?? { begun, rows: [] };
      there.rows.push(row);
      found.set(key, there);
    }
    return [...found.values()];
  }

  /** What is stated once for a run: it must be the same in all of its rows. */
  private once(rows: readonly Row[], target: Target): string | null {
    const [first] = rows;
    if (!first) return null;
    const { text } = first.at(target.key);
    const other = rows.find((row) => row.at(target.key).text !== text);
    if (other) {
      const { text: differs, column } = other.at(target.key);
      this.wrong(
        other,
        column,
        msg`${target.label} is ${differs || "empty"} here and ${text || "empty"} in row ${first.row}, for the same run`,
      );
      return null;
    }
    return this.reading(first, target);
  }

  private trials(rows: readonly Row[], id: string): readonly Step[] {
    const labels = new Map<string, Row>();
    const each = this.targets.filter(({ per, fills }) => per === "row" && fills);
    return rows.flatMap((row, i) => {
      const { text: label, column } = row.at("trial");
      const before = labels.get(label.toLowerCase());
      if (label !== "" && before)
        this.wrong(row, column, msg`Trial ${label} is in row ${before.row} already`);
      labels.set(label.toLowerCase(), row);
      if (label.length > 40) this.wrong(row, column, msg`The name of the trial is longer than 40 characters`);
      const readings = each.flatMap((target) => {
        const text = this.reading(row, target);
        if (text === null || !target.fills) return [];
        const { symbol, kind } = target.fills.field;
        return [{ id: idOf(id, i, target.key), symbol, kind, text, person: row.at("person").text }];
      });
      if (each.every(({ key }) => row.at(key).text === ""))
        this.wrong(row, null, msg`The row has no readings`);
      if (readings.length === 0) return [];
      // A number that is the trial's place anyway is no name.
      const named = label === "" || label === String(i + 1) ? {} : { label };
      const trial = { id: idOf(id, i, "trial"), kind: "fine" as const, ...named };
      const enter = { intent: "enter", stageKey: this.setting.mapping.stageKey, source: "imported" } as const;
      return [{ change: { ...enter, rows: [{ trial, readings }] }, row }];
    });
  }

  /** The changes that make a run of its rows, each with the row that it comes from. */
  private changes(rows: readonly Row[], first: Row, id: string): readonly Step[] {
    const stated = this.targets
      .filter(({ per, fills }) => per === "run" && fills)
      .flatMap((target): Step[] => {
        const text = this.once(rows, target);
        if (text === null || !target.fills) return [];
        const { stageKey, field } = target.fills;
        const { symbol, kind } = field;
        const reading = { intent: "observe", trial: null, supersedes: null, reason: null } as const;
        return [
          { change: { ...reading, id: idOf(id, target.key), stageKey, symbol, kind, text }, row: first },
        ];
      });
    return [...stated, ...this.trials(rows, id)];
  }

  /** A run in which nothing was read; the results of the stages before the table's own are stated. */
  private begin(begun: Date, id: string, first: Row): RunRecord | null {
    const { method, rules, mapping } = this.setting;
    const sample = first.at("sample").text;
    const startedAt = begun.toISOString();
    let record: RunRecord = {
      ...{ format: "steady-bead/run", formatVersion: 1, id, sample, bench: "", status: "open" },
      title: sample === "" ? method.title : sample,
      ...{ startedAt, finishedAt: null, method, houseRules: rules },
      stages: method.stages.map(({ key }) => ({ id: idOf(id, key), key, observations: [], trials: [] })),
    };
    // What is known is the same in all runs: said once, it is one object, by which what follows from it is remembered.
    if (this.choices) return { ...record, choices: this.choices };
    const context = changeContext({ now: startedAt, person: "", newId: () => "" });
    for (const { key } of stagesBefore(method, mapping.stageKey)) {
      const change = { intent: "know-stage", stageKey: key, known: { from: "" } } as const;
      const applied = applyChange(record, change, context);
      if (!applied.ok) {
        this.wrong(first, null, applied.problem.message);
        return null;
      }
      record = applied.value?.record ?? record;
    }
    this.choices = record.choices ?? null;
    return record;
  }

  /** The run of some rows; null where something is wrong with them, which is told. */
  run(begun: Date, rows: readonly Row[]): TableRun | null {
    const [first] = rows;
    if (!first) return null;
    const { method, mapping } = this.setting;
    if (rows.length > mostTrials) {
      this.wrong(
        first,
        null,
        msg`More than ${mostTrials} rows belong to one run: is the column of the sample missing?`,
      );
      return null;
    }
    const id = idOf(
      method.id,
      mapping.stageKey,
      rows.map((row) => this.meaning(row)),
    );
    const told = this.problems.length;
    const changes = this.changes(rows, first, id);
    if (this.problems.length > told) return null;
    const now = begun.toISOString();
    const by = first.at("person").text;
    let record = this.begin(begun, id, first);
    if (!record) return null;
    let made = 0;
    const context = changeContext({ now, person: by, newId: (of) => idOf(id, of, ++made) });
    for (const { change, row } of changes) {
      const applied = applyChange(record, change, context);
      if (!applied.ok) {
        this.wrong(row, null, applied.problem.message);
        return null;
      }
      record = applied.value?.record ?? record;
    }
    const whole = { rows: rows.map(({ row }) => row) };
    const evaluation = evaluateRun(record);
    if (!evaluation.result) {
      const stage = evaluation.stages.find(({ key }) => key === mapping.stageKey);
      const why = stage && !stage.done ? (stage.problem ?? reasonsOf(stage)[0]) : null;
      const open = why ?? msg`later stages are not done`;
      return { ...whole, record, listed: listedRun(evaluation), open };
    }
    const closed: RunRecord = { ...record, status: "finished", finishedAt: now };
    const all = evaluation.stages.every(({ done }) => done);
    return {
      ...{ ...whole, record: closed, open: null },
      listed: listedRun(all ? onceClosed(closed, evaluation) : evaluateRun(closed)),
    };
  }
}

/** A run of a table with whoever imports it as the person who read what no column says who did. */
export function readBy(record: RunRecord, person: string): RunRecord {
  const named = (observations: readonly Observation[]) =>
    observations.map((read) => (read.person === "" ? { ...read, person } : read));
  return {
    ...record,
    stages: record.stages.map((stage) => ({
      ...stage,
      observations: named(stage.observations),
      trials: stage.trials.map((trial) => ({ ...trial, observations: named(trial.observations) })),
    })),
  };
}

/** How far the reading of a table has come: runs of all. */
export type Progress = (done: number, of: number) => Promise<void> | void;

/**
 * Reads a table as runs. `progress` is called after every few runs, and may stop it by throwing. Where anything is wrong with any row, the
 * problems say where.
 */
export async function runsOfTable(
  sheet: Sheet,
  setting: TableSetting,
  progress: Progress = () => {},
): Promise<Result<TableRuns>> {
  const { method, mapping, rules } = setting;
  const wrong = problemOfMapping(mapping, targetsOf(method, mapping.stageKey, rules));
  if (wrong) return failure(wrong);
  const reader = new TableReader(setting);
  const groups = reader.groups(sheet);
  const runs: TableRun[] = [];
  for (const [i, { begun, rows }] of groups.entries()) {
    if (reader.problems.length > mostProblems) break;
    if (i % 20 === 0) await progress(i, groups.length);
    const run = reader.run(begun, rows);
    if (run) runs.push(run);
  }
  await progress(groups.length, groups.length);
  return success({ runs, problems: reader.problems.slice(0, mostProblems) });
}
