import canonicalize from "canonicalize";
import { v5 as namedId } from "uuid";
import { applyChange, type ChangeContext, type RunChange } from "~/core/change";
import { changeContext, evaluateRun, type ListedRun, listedRun, onceClosed } from "~/core/evaluate";
import type { Observation } from "~/core/record";
import { failure, type Result, success } from "~/core/result";
import type { RunRecord } from "~/core/run";
import { reasonsOf } from "~/core/stages";
import { msg, type Phrase } from "~/core/text";
import {
  CellReader,
  faultOf,
  type Filling,
  problemOfMapping,
  type RowProblem,
  type TableSetting,
} from "./cells";
import { type Place, type RowKind, stagesBefore, type Target, targetsOf } from "./columns";
import { isRough, type Row, rowsOf } from "./rows";
import type { Sheet } from "./sheet";

/*
 * A table as runs: rows of the same sample, day and person are trials of one run, in the order in which they stand. The standards and blanks
 * of a day go into each run of that day. Readings go through the same checks as typed ones.
 */

/** A run of the table, with the rows that it stands in. Where no column says who read something, nobody did yet: see `readBy`. */
export interface TableRun {
  readonly record: RunRecord;
  readonly rows: readonly number[];
  /** How many rows of its day are standards of its line, and blanks. */
  readonly flasks: { readonly standards: number; readonly blanks: number };
  readonly listed: ListedRun;
  /** Why it has no result; null where it has one. */
  readonly open: Phrase | null;
}

export interface TableRuns {
  readonly runs: readonly TableRun[];
  /** Where there are any, nothing is imported. */
  readonly problems: readonly RowProblem[];
}

/** Ids follow from what the rows say: the same table gives the same runs. */
const namespace = "6a1f6d0e-3b0c-4f6c-9b57-3f0a3f1d5c11";
const idOf = (...parts: readonly unknown[]): string => namedId(canonicalize(parts) ?? "", namespace);

/**
 * Ids of the parts of a run, one after the other: the run's own, with their number added to its last twelve digits. Of the other twenty, those
 * that are free are random enough that no two runs share them.
 */
function partIds(runId: string): () => string {
  const [head, tail] = [runId.slice(0, -12), Number.parseInt(runId.slice(-12), 16)];
  let made = 0;
  return () => head + ((tail + ++made) % 2 ** 48).toString(16).padStart(12, "0");
}

/** Rows with these problems are told one by one; a table in which every row is wrong has one fault, not thousands. */
const mostProblems = 50;
/** Trials that one run takes. */
const mostTrials = 100;

/** A change of a run, and the row that it comes from. */
interface Step {
  readonly change: RunChange;
  readonly row: Row;
}

/** Steps with the rows of each stage as one: entering many at once takes less time than one after the other. */
function enteredTogether(steps: readonly Step[]): readonly Step[] {
  const found: Step[] = [];
  for (const step of steps) {
    const last = found.at(-1);
    const [{ change } = step, own] = [last, step.change];
    if (last && change.intent === "enter" && own.intent === "enter" && change.stageKey === own.stageKey)
      found[found.length - 1] = { ...last, change: { ...change, rows: [...change.rows, ...own.rows] } };
    else found.push(step);
  }
  return found;
}

/** A record after some steps; or what was refused, and in which row. */
function after(
  begun: RunRecord,
  steps: readonly Step[],
  context: ChangeContext,
): Result<RunRecord, { readonly row: Row; readonly message: Phrase }> {
  let record = begun;
  for (const { change, row } of steps) {
    const applied = applyChange(record, change, context);
    if (!applied.ok) return { ok: false, problem: { row, message: applied.problem.message } };
    record = applied.value?.record ?? record;
  }
  return success(record);
}

/** Rows that make a run, with those of its standards and blanks. */
interface RowGroup {
  readonly begun: Date;
  readonly rows: readonly Row[];
  readonly flasks: readonly Row[];
}

/** Standards and blanks by their day and person. */
class FlaskRows {
  private readonly rows = new Map<string, Row[]>();
  private readonly used = new Set<string>();

  private key(kind: RowKind, day: Date, person: string): string {
    return [kind, day.toDateString(), person].join("\n");
  }

  add(kind: RowKind, day: Date, row: Row): void {
    const key = this.key(kind, day, row.at("person").text);
    const rows = this.rows.get(key) ?? [];
    rows.push(row);
    this.rows.set(key, rows);
  }

  /** Those of a day: of a person who has some, or else those that name nobody. */
  take(kind: RowKind, day: Date, person: string): readonly Row[] {
    for (const key of [this.key(kind, day, person), this.key(kind, day, "")]) {
      const rows = this.rows.get(key);
      if (!rows) continue;
      this.used.add(key);
      return rows;
    }
    return [];
  }

  /** The first of each that nobody took. */
  unused(): readonly Row[] {
    return [...this.rows].flatMap(([key, rows]) => (this.used.has(key) ? [] : rows.slice(0, 1)));
  }
}

/** Reads rows as runs. */
class TableReader extends CellReader {
  /** Which stages are known, once it was found. */
  private choices: RunRecord["choices"] | null = null;

  /** Rows that belong together, in order; each with the standards and blanks of its day. */
  groups(sheet: Sheet): readonly RowGroup[] {
    const samples = new Map<string, { readonly begun: Date; readonly rows: Row[] }>();
    const flasks = new FlaskRows();
    for (const row of rowsOf(sheet, this.setting.mapping)) {
      const begun = this.begun(row);
      if (!begun) continue;
      const kind = this.kindOf(row);
      if (kind !== "sample") {
        flasks.add(kind, begun, row);
        continue;
      }
      const key = [row.at("sample").text, row.at("person").text, begun.toDateString()].join("\n");
      const group = samples.get(key) ?? { begun, rows: [] };
      group.rows.push(row);
      samples.set(key, group);
    }
    const groups = [...samples.values()].map(({ begun, rows }): RowGroup => {
      const person = rows[0]?.at("person").text ?? "";
      const of = (kind: "standard" | "blank") => flasks.take(kind, begun, person);
      return { begun, rows, flasks: [...of("blank"), ...of("standard")] };
    });
    if (this.line) this.checkFlasks(groups, flasks);
    return groups;
  }

  /** Reports samples without standards, and standards and blanks that would be left out. */
  private checkFlasks(groups: readonly RowGroup[], flasks: FlaskRows): void {
    for (const { rows, flasks: own } of groups) {
      const [first] = rows;
      if (first && !own.some((row) => this.kindOf(row) === "standard"))
        this.wrong(first, null, msg`There are no standards of this day for this sample`);
    }
    for (const row of flasks.unused())
      this.wrong(row, null, msg`There is no sample of this day for this standard or blank`);
  }

  /** What is stated once for a run: it must be the same in all of its rows; among standards and samples it may be left empty. */
  private once(rows: readonly Row[], target: Target, place: Place): string | null {
    const stating = this.line ? rows.filter((row) => row.at(target.key).text !== "") : rows;
    const [first] = stating;
    if (!first) return null;
    const { text } = first.at(target.key);
    const other = stating.find((row) => row.at(target.key).text !== text);
    if (other) {
      const { text: differs, column } = other.at(target.key);
      this.wrong(
        other,
        column,
        msg`${target.label} is ${differs || "empty"} here and ${text || "empty"} in row ${first.row}, for the same run`,
      );
      return null;
    }
    return this.reading(first, first.at(target.key), target, place);
  }

  /** The readings of a row, as a change takes them. */
  private readings(row: Row, kind: RowKind, newId: () => string) {
    const person = row.at("person").text;
    return this.ofRow[kind].flatMap(({ target, place }) => {
      const { symbol, kind: of } = place.field;
      return row.all(target.key).flatMap((cell) => {
        const text = this.reading(row, cell, target, place);
        return text === null ? [] : [{ id: newId(), symbol, kind: of, text, person }];
      });
    });
  }

  /** Tells what is wrong with a row as a whole. */
  private checkRow(row: Row, kind: RowKind): void {
    const of = this.ofRow[kind];
    const isEmpty = ({ target }: Filling) => row.all(target.key).every(({ text }) => text === "");
    if (of.every(isEmpty)) return this.wrong(row, null, msg`The row has no readings`);
    // An open trial of a titration is told of; a flask without its amount or its absorbance is none.
    const lacks = this.line ? of.find((one) => one.target.needed && isEmpty(one)) : undefined;
    if (lacks) this.wrong(row, null, msg`${lacks.target.label} is missing`);
  }

  private trials(rows: readonly Row[], newId: () => string, kind: "sample" | "standard"): readonly Step[] {
    const { stageKey } = kind === "sample" ? this.setting.mapping : { stageKey: this.line?.key ?? "" };
    const labels = new Map<string, Row>();
    return rows.flatMap((row, i) => {
      const { text: label, column } = row.at("trial");
      const before = labels.get(label.toLowerCase());
      if (label !== "" && before)
        this.wrong(row, column, msg`Trial ${label} is in row ${before.row} already`);
      labels.set(label.toLowerCase(), row);
      if (label.length > 40) this.wrong(row, column, msg`The name of the trial is longer than 40 characters`);
      const readings = this.readings(row, kind, newId);
      this.checkRow(row, kind);
      if (readings.length === 0) return [];
      // A number that is the trial's place anyway is no name.
      const named = label === "" || label === String(i + 1) ? {} : { label };
      const trial = {
        id: newId(),
        kind: isRough(row) ? "rough" : "fine",
        ...named,
      } as const;
      const enter = { intent: "enter", stageKey, source: "imported" } as const;
      return [{ change: { ...enter, rows: [{ trial, readings }] }, row }];
    });
  }

  /** The blanks of a run, which are read for the whole stage of its standards. */
  private blanks(rows: readonly Row[], newId: () => string): readonly Step[] {
    return rows.flatMap((row): Step[] => {
      const readings = this.readings(row, "blank", newId);
      this.checkRow(row, "blank");
      if (readings.length === 0 || !this.line) return [];
      const enter = { intent: "enter", stageKey: this.line.key, source: "imported" } as const;
      return [{ change: { ...enter, rows: [{ trial: null, readings }] }, row }];
    });
  }

  /** The changes that make a run of its rows, each with the row that it comes from. */
  private changes({ rows, flasks }: RowGroup, first: Row, newId: () => string): readonly Step[] {
    const stated = this.ofRun.flatMap(({ target, place }): Step[] => {
      const text = this.once([...rows, ...flasks], target, place);
      if (text === null) return [];
      const { stageKey, field } = place;
      const { symbol, kind } = field;
      const reading = { intent: "observe", trial: null, supersedes: null, reason: null } as const;
      return [{ change: { ...reading, id: newId(), stageKey, symbol, kind, text }, row: first }];
    });
    const of = (kind: RowKind) => flasks.filter((row) => this.kindOf(row) === kind);
    return [
      ...stated,
      ...this.blanks(of("blank"), newId),
      ...this.trials(of("standard"), newId, "standard"),
      ...this.trials(rows, newId, "sample"),
    ];
  }

  /** A run in which nothing was read; the results of the stages before the table's own are stated. */
  private begin(begun: Date, id: string, newId: () => string, first: Row): RunRecord | null {
    const { method, rules, mapping } = this.setting;
    const sample = first.at("sample").text;
    const startedAt = begun.toISOString();
    let record: RunRecord = {
      ...{ format: "steady-bead/run", formatVersion: 1, id, sample, bench: "", status: "open" },
      title: sample === "" ? method.title : sample,
      ...{ startedAt, finishedAt: null, method, houseRules: rules },
      stages: method.stages.map(({ key }) => ({ id: newId(), key, observations: [], trials: [] })),
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

  /** The record after some changes; null where one is refused, which is told by its row. */
  private changed(empty: RunRecord, steps: readonly Step[], context: ChangeContext): RunRecord | null {
    const together = after(empty, enteredTogether(steps), context);
    // Where rows are refused together, one by one they say which.
    const outcome = together.ok ? together : after(empty, steps, context);
    if (outcome.ok) return outcome.value;
    this.wrong(outcome.problem.row, null, outcome.problem.message);
    return null;
  }

  /** The run of some rows; null where something is wrong with them, which is told. */
  run(group: RowGroup): TableRun | null {
    const { begun, rows, flasks } = group;
    const [first] = rows;
    if (!first) return null;
    const { method, mapping } = this.setting;
    if (Math.max(rows.length, flasks.length) > mostTrials) {
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
      [...flasks, ...rows].map((row) => this.meaning(row)),
    );
    const { faults } = this;
    const newId = partIds(id);
    const changes = this.changes(group, first, newId);
    if (this.faults > faults) return null;
    const now = begun.toISOString();
    const by = first.at("person").text;
    const empty = this.begin(begun, id, newId, first);
    if (!empty) return null;
    const record = this.changed(empty, changes, changeContext({ now, person: by, newId }));
    if (!record) return null;
    const standards = flasks.filter((row) => this.kindOf(row) === "standard").length;
    const whole = {
      rows: rows.map(({ row }) => row),
      flasks: { standards, blanks: flasks.length - standards },
    };
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

/** One of `of` parts of about the same number of runs, in order; `index` from 0. */
export interface Part {
  readonly index: number;
  readonly of: number;
}

/** The first problems, in the order of their rows. */
const firstOf = (problems: readonly RowProblem[]): readonly RowProblem[] =>
  problems.toSorted((a, b) => a.row - b.row).slice(0, mostProblems);

/**
 * Reads a table as runs, or a part of these. `progress` is called after every few runs, and may stop it by throwing. Where anything is wrong with
 * any row, the problems say where.
 */
export async function runsOfTable(
  sheet: Sheet,
  setting: TableSetting,
  progress: Progress = () => {},
  part: Part = { index: 0, of: 1 },
): Promise<Result<TableRuns>> {
  const { method, mapping, rules } = setting;
  const wrong = problemOfMapping(mapping, targetsOf(method, mapping.stageKey, rules));
  if (wrong) return failure(wrong);
  const reader = new TableReader(setting);
  const all = reader.groups(sheet);
  const before = (parts: number) => Math.round((all.length * parts) / part.of);
  const groups = all.slice(before(part.index), before(part.index + 1));
  const runs: TableRun[] = [];
  for (const [i, group] of groups.entries()) {
    if (reader.problems.length > mostProblems) break;
    if (i % 20 === 0) await progress(i, groups.length);
    const run = reader.run(group);
    if (run) runs.push(run);
  }
  await progress(groups.length, groups.length);
  return success({ runs, problems: firstOf(reader.problems) });
}

/** All parts of a table, in their order. What is wrong with a row that stands in several of them is reported once. */
export function togetherOf(parts: readonly TableRuns[]): TableRuns {
  const faults = parts.flatMap(({ problems }) => problems.map((one) => [faultOf(one), one] as const));
  return { runs: parts.flatMap(({ runs }) => runs), problems: firstOf([...new Map(faults).values()]) };
}
