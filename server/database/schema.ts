import { sql } from "drizzle-orm";
import {
  type AnyPgColumn,
  bigint,
  boolean,
  date,
  doublePrecision,
  index,
  integer,
  jsonb,
  numeric,
  pgTable,
  primaryKey,
  text,
  timestamp,
  uniqueIndex,
  uuid,
} from "drizzle-orm/pg-core";
import type { HouseRules } from "../../core/rules";
import type { Method } from "../../core/method";
import type { CurvePlace, Observation, ObservationKind, TimerRecord, TraceRecord } from "../../core/record";
import type { RunRecord, RunStatus } from "../../core/run";
import type { RunSummary } from "../../protocol/answers";
import type { TrailSubject } from "../../formats/trail";
import type { Role } from "../../protocol/access";
import type { AmountUnit, How, ResultChange } from "../../protocol/shelf";
import type { ChangeDetail, Inverse } from "../../core/change";
import { type Phrase } from "~/core/text";

/** Counts rows in the order in which they were written: true even when the clock was set back in between. */
const seq = () => bigint("seq", { mode: "number" }).generatedAlwaysAsIdentity().notNull();

const at = (name: string) => timestamp(name, { withTimezone: true, mode: "date" });

/** A method as data; a version is never changed once a run stands on it. */
export const method = pgTable(
  "method",
  {
    id: text("id").notNull(),
    version: integer("version").notNull(),
    title: text("title").notNull(),
    data: jsonb("data").$type<Method>().notNull(),
    /** Who saved this version, and why; null for those of the library and for versions from before that was asked. */
    savedAt: at("saved_at"),
    savedBy: text("saved_by"),
    reason: text("reason"),
    /** Since when it is offered no more, though runs stand on it. The same for all versions. */
    retiredAt: at("retired_at"),
  },
  (t) => [primaryKey({ columns: [t.id, t.version] })],
);

/**
 * House rules, append-only: the newest row of the lab is in force, a run keeps the row with which it began. A row that was
 * made for one run names it, and is in force nowhere else.
 */
export const houseRules = pgTable("house_rules", {
  id: uuid("id").primaryKey(),
  seq: seq(),
  runId: uuid("run_id").references((): AnyPgColumn => run.id, { onDelete: "cascade" }),
  createdAt: at("created_at").notNull(),
  data: jsonb("data").$type<HouseRules>().notNull(),
  /** Who made them, and why; null for the first ones and for those from before that was asked. */
  person: text("person"),
  reason: text("reason"),
});

export const run = pgTable(
  "run",
  {
    id: uuid("id").primaryKey(),
    methodId: text("method_id").notNull(),
    methodVersion: integer("method_version").notNull(),
    houseRulesId: uuid("house_rules_id")
      .notNull()
      .references(() => houseRules.id),
    title: text("title").notNull(),
    sample: text("sample").notNull(),
    bench: text("bench").notNull(),
    /** Title, sample and bench in small letters, for searching. */
    search: text("search").notNull(),
    status: text("status").$type<RunStatus>().notNull(),
    startedAt: at("started_at").notNull(),
    updatedAt: at("updated_at").notNull(),
    finishedAt: at("finished_at"),
    /** Counts changes, so that a screen knows which of two states is the newer. */
    revision: integer("revision").notNull().default(0),
    /** Inputs that are had in another way than the method says. */
    choices: jsonb("choices").$type<NonNullable<RunRecord["choices"]>>(),
    /** The series that it belongs to, and what it is in it; null where it is in none. */
    series: jsonb("series").$type<NonNullable<RunRecord["series"]>>(),
    /** Who stands for it beside whoever carried it out; null while it can be changed. */
    countersigned: jsonb("countersigned").$type<NonNullable<RunRecord["countersigned"]>>(),
    /** Who read something in it, for lists; null where it was not written down yet. */
    people: text("people"),
    /** What lists show, so that no list evaluates a run. */
    summary: jsonb("summary").$type<RunSummary>().notNull(),
  },
  (t) => [
    index("run_open_by_update").on(t.status, t.updatedAt),
    index("run_by_finish").on(t.status, t.finishedAt),
    index("run_by_start").on(t.startedAt),
    index("run_of_series").on(sql`(${t.series} ->> 'id')`),
  ],
);

/**
 * The results of runs that are closed, as numbers: what lists filter and sort by, and what control charts show. Written anew whenever the run
 * is; none while it is open.
 */
export const runResult = pgTable(
  "run_result",
  {
    runId: uuid("run_id")
      .notNull()
      .references(() => run.id, { onDelete: "cascade" }),
    /** Its place among the results of its run. */
    position: integer("position").notNull(),
    /** True for the result that the run was for. */
    main: boolean("main").notNull(),
    stageKey: text("stage_key").notNull(),
    symbol: text("symbol").notNull(),
    name: text("name").notNull(),
    unit: text("unit").notNull(),
    /** In the unit, with its standard uncertainty. */
    value: doublePrecision("value").notNull(),
    u: doublePrecision("u").notNull(),
    shown: jsonb("shown").$type<Phrase>().notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.runId, t.position] }),
    index("run_result_by_value").on(t.unit, t.symbol, t.value),
  ],
);

export const stage = pgTable(
  "stage",
  {
    id: uuid("id").primaryKey(),
    runId: uuid("run_id")
      .notNull()
      .references(() => run.id, { onDelete: "cascade" }),
    key: text("key").notNull(),
    position: integer("position").notNull(),
    /** What was chosen in place of what the method takes; null where nothing was. */
    choices: jsonb("choices").$type<Record<string, string>>(),
  },
  (t) => [uniqueIndex("stage_of_run").on(t.runId, t.key)],
);

export const trial = pgTable(
  "trial",
  {
    id: uuid("id").primaryKey(),
    stageId: uuid("stage_id")
      .notNull()
      .references(() => stage.id, { onDelete: "cascade" }),
    position: integer("position").notNull(),
    number: integer("number"),
    label: text("label"),
    kind: text("kind").$type<"rough" | "fine">().notNull(),
    struckAt: at("struck_at"),
    struckBy: text("struck_by"),
    struckReason: text("struck_reason"),
  },
  (t) => [uniqueIndex("trial_position_in_stage").on(t.stageId, t.position)],
);

/** Append-only. What was typed is `text`; `value` is the same decimal, exact. */
export const observation = pgTable(
  "observation",
  {
    id: uuid("id").primaryKey(),
    seq: seq(),
    stageId: uuid("stage_id")
      .notNull()
      .references(() => stage.id, { onDelete: "cascade" }),
    trialId: uuid("trial_id").references(() => trial.id, { onDelete: "cascade" }),
    symbol: text("symbol").notNull(),
    kind: text("kind").$type<ObservationKind>().notNull(),
    text: text("text").notNull(),
    value: numeric("value"),
    unit: text("unit").notNull(),
    source: text("source").$type<Observation["source"]>().notNull(),
    person: text("person").notNull(),
    at: at("at").notNull(),
    supersedes: uuid("supersedes"),
    reason: text("reason"),
    /** Where the value was taken from the shelf: the concentration that a bottle had then. */
    assignmentId: uuid("assignment_id").references((): AnyPgColumn => assignment.id),
    /** Where it is a point of a titration curve. */
    point: jsonb("point").$type<CurvePlace>(),
  },
  (t) => [
    index("observation_of_stage").on(t.stageId, t.seq),
    // Few readings come from the shelf; lineage looks for just those.
    index("observation_from_shelf")
      .on(t.assignmentId)
      .where(sql`${t.assignmentId} is not null`),
    // A reading is corrected once; the correction is what is corrected next.
    uniqueIndex("observation_superseded_once")
      .on(t.supersedes)
      .where(sql`${t.supersedes} is not null`),
  ],
);

/** A spectrum, or absorbance in time, as an instrument or a file gave it at once. Kept when it is put away. */
export const trace = pgTable(
  "trace",
  {
    id: uuid("id").primaryKey(),
    stageId: uuid("stage_id")
      .notNull()
      .references(() => stage.id, { onDelete: "cascade" }),
    trialId: uuid("trial_id").references(() => trial.id, { onDelete: "cascade" }),
    name: text("name").notNull(),
    xUnit: text("x_unit").$type<TraceRecord["xUnit"]>().notNull(),
    x: jsonb("x").$type<number[]>().notNull(),
    absorbance: jsonb("absorbance").$type<number[]>().notNull(),
    /** Decimals with which the numbers came; null where nothing is known of that. */
    decimals: jsonb("decimals").$type<NonNullable<TraceRecord["decimals"]>>(),
    source: text("source").$type<TraceRecord["source"]>().notNull(),
    person: text("person").notNull(),
    at: at("at").notNull(),
    removedAt: at("removed_at"),
    removedBy: text("removed_by"),
    removedReason: text("removed_reason"),
  },
  (t) => [index("trace_of_stage").on(t.stageId, t.id)],
);

/** Something that takes its time: planned, begun, ended. All instants by this server's clock. */
export const timer = pgTable(
  "timer",
  {
    id: uuid("id").primaryKey(),
    seq: seq(),
    stageId: uuid("stage_id")
      .notNull()
      .references(() => stage.id, { onDelete: "cascade" }),
    /** A flask may be timed before anything is read of it. */
    trialId: uuid("trial_id"),
    what: text("what").notNull(),
    flask: text("flask").notNull(),
    counts: text("counts").$type<TimerRecord["counts"]>().notNull(),
    seconds: numeric("seconds", { mode: "number" }).notNull(),
    strict: boolean("strict").notNull(),
    plannedAt: at("planned_at"),
    startedAt: at("started_at"),
    endedAt: at("ended_at"),
    outcome: text("outcome").$type<NonNullable<TimerRecord["outcome"]>>(),
    person: text("person").notNull(),
  },
  (t) => [
    index("timer_of_stage").on(t.stageId, t.seq),
    // All screens show the running ones.
    index("timer_running")
      .on(t.seq)
      .where(sql`${t.endedAt} is null`),
  ],
);

/** Every change to a run, with what takes it back. */
export const runEvent = pgTable(
  "run_event",
  {
    id: uuid("id").primaryKey(),
    seq: seq(),
    runId: uuid("run_id")
      .notNull()
      .references(() => run.id, { onDelete: "cascade" }),
    at: at("at").notNull(),
    person: text("person").notNull(),
    /** What was done, in plain English: the trail is searched by it. */
    description: text("description").notNull(),
    /** The same as screens show it, in the words of the lab; nothing where it reads as the description does. */
    phrase: jsonb("phrase").$type<Phrase>(),
    inverse: jsonb("inverse").$type<Inverse>().notNull(),
    /** What the trail shows of it beside its description; readings tell that themselves. */
    detail: jsonb("detail").$type<ChangeDetail>(),
    undone: boolean("undone").notNull().default(false),
    undoneAt: at("undone_at"),
    undoneBy: text("undone_by"),
    /** What makes it again, after it was undone; nothing once another change was made. */
    redo: jsonb("redo").$type<Inverse>(),
    /** The address that it came from, as the server saw it; what else it tells of person and time the sender said. */
    receivedFrom: text("received_from"),
  },
  (t) => [index("run_event_of_run").on(t.runId, t.seq), index("run_event_order").on(t.seq)],
);

/** A bottle or jar on the shelf. Its concentration, or a solid's purity, is what its newest assignment says. */
export const solution = pgTable(
  "solution",
  {
    id: uuid("id").primaryKey(),
    /** What stands on its label: S-12. One more than the highest before, so that a command that was refused leaves no gap. */
    number: integer("number").notNull(),
    form: text("form").$type<"solution" | "solid">().notNull(),
    formula: text("formula").notNull(),
    name: text("name").notNull(),
    madeAt: at("made_at").notNull(),
    madeBy: text("made_by").notNull(),
    amountMade: numeric("amount_made"),
    amountLeft: numeric("amount_left"),
    amountUnit: text("amount_unit").$type<AmountUnit>().notNull(),
    restandardizeBy: date("restandardize_by"),
    usedUpAt: at("used_up_at"),
    hazards: text("hazards").notNull(),
    note: text("note").notNull(),
    /** Counts changes, so that the second of two people editing it is told. */
    revision: integer("revision").notNull().default(1),
    /** What it was made by, where it was made here. */
    making: jsonb("making").$type<RunRecord>(),
  },
  (t) => [uniqueIndex("solution_number").on(t.number), index("solution_by_formula").on(t.formula)],
);

/** A concentration given to a solution, or a purity to a solid. Append-only: the newest holds, runs keep theirs. */
export const assignment = pgTable(
  "assignment",
  {
    id: uuid("id").primaryKey(),
    seq: seq(),
    solutionId: uuid("solution_id")
      .notNull()
      .references(() => solution.id, { onDelete: "cascade" }),
    at: at("at").notNull(),
    person: text("person").notNull(),
    how: text("how").$type<How>().notNull(),
    value: numeric("value").notNull(),
    /** Half a width where the shape is rectangular, a standard uncertainty where it is normal; in the unit. */
    plusMinus: numeric("plus_minus").notNull(),
    shape: text("shape").$type<"rectangular" | "normal">().notNull(),
    unit: text("unit").notNull(),
    /** The stage of the run that found it. */
    runId: uuid("run_id").references(() => run.id),
    stageKey: text("stage_key"),
  },
  (t) => [index("assignment_of_solution").on(t.solutionId, t.seq)],
);

/** What an assignment stands on: the assignments of the stock, the solid or the standard that it came from. */
export const assignmentSource = pgTable(
  "assignment_source",
  {
    assignmentId: uuid("assignment_id")
      .notNull()
      .references(() => assignment.id, { onDelete: "cascade" }),
    sourceId: uuid("source_id")
      .notNull()
      .references(() => assignment.id, { onDelete: "cascade" }),
  },
  (t) => [primaryKey({ columns: [t.assignmentId, t.sourceId] })],
);

/** A finished run computed again with newer concentrations; the result it was finished with stays. */
export const recomputation = pgTable(
  "recomputation",
  {
    id: uuid("id").primaryKey(),
    runId: uuid("run_id")
      .notNull()
      .references(() => run.id, { onDelete: "cascade" }),
    at: at("at").notNull(),
    person: text("person").notNull(),
    changes: jsonb("changes").$type<ResultChange[]>().notNull(),
    replaced: jsonb("replaced").$type<string[]>().notNull(),
  },
  (t) => [index("recomputation_of_run").on(t.runId, t.id)],
);

/** The lab that lives in this database. One row. */
export const lab = pgTable("lab", {
  id: uuid("id").primaryKey(),
  createdAt: at("created_at").notNull(),
  /** The latest time that this server's clock has shown while something was saved. */
  clockHigh: at("clock_high").notNull(),
  /** How far this database has come, in which journal. */
  journal: uuid("journal"),
  journalSeq: bigint("journal_seq", { mode: "number" }).notNull().default(0),
  journalCheck: text("journal_check").notNull().default(""),
  /** What stands at the head of a report: whose it is. */
  letterhead: text("letterhead").notNull().default(""),
});

/** What was done that belongs to no run: house rules, methods, bottles, backups. Append-only. */
export const labEvent = pgTable(
  "lab_event",
  {
    id: uuid("id").primaryKey(),
    /** Counted together with the changes of runs, so that all stand in one order. */
    seq: bigint("seq", { mode: "number" })
      .notNull()
      .default(sql`nextval('run_event_seq_seq')`),
    at: at("at").notNull(),
    person: text("person").notNull(),
    about: text("about").$type<TrailSubject>().notNull(),
    /** What it was done to, where that has an id and a name. */
    subjectId: text("subject_id"),
    subject: text("subject").notNull(),
    description: text("description").notNull(),
    detail: jsonb("detail").$type<ChangeDetail>(),
    /** The head of the journal's chain, where this tells it. */
    chain: jsonb("chain").$type<{ readonly journal: string; readonly seq: number; readonly check: string }>(),
    receivedFrom: text("received_from"),
  },
  (t) => [index("lab_event_order").on(t.seq)],
);

/** Who is signed in, and was. It belongs to the server rather than to the lab: no line of the journal, and over once another lab is restored. */
export const session = pgTable("session", {
  /** SHA-256 of what the cookie holds: nobody signs in by reading the database. */
  id: text("id").primaryKey(),
  /** The count of the access file under which it was begun. */
  count: integer("count").notNull(),
  role: text("role").$type<Role>().notNull(),
  address: text("address").notNull(),
  /** The browser, as it names itself. */
  browser: text("browser").notNull(),
  beganAt: at("began_at").notNull(),
  seenAt: at("seen_at").notNull(),
  endedAt: at("ended_at"),
});
