import { sql } from "drizzle-orm";
import {
  boolean,
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
import type { HouseRules, Method, ObservationKind, RunStatus } from "../../core/run";
import type { RunSummary } from "../../formats/answers";
import type { Inverse } from "./stored";

const at = (name: string) => timestamp(name, { withTimezone: true, mode: "date" });

/** A method as data; a version is never changed once a run stands on it. */
export const method = pgTable(
  "method",
  {
    id: text("id").notNull(),
    version: integer("version").notNull(),
    title: text("title").notNull(),
    data: jsonb("data").$type<Method>().notNull(),
  },
  (t) => [primaryKey({ columns: [t.id, t.version] })],
);

/** House rules, append-only: the newest row is in force, a run keeps the row with which it began. */
export const houseRules = pgTable("house_rules", {
  id: uuid("id").primaryKey(),
  createdAt: at("created_at").notNull(),
  data: jsonb("data").$type<HouseRules>().notNull(),
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
    /** What lists show, so that no list evaluates a run. */
    summary: jsonb("summary").$type<RunSummary>().notNull(),
  },
  (t) => [
    index("run_open_by_update").on(t.status, t.updatedAt),
    index("run_by_finish").on(t.status, t.finishedAt),
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
    stageId: uuid("stage_id")
      .notNull()
      .references(() => stage.id, { onDelete: "cascade" }),
    trialId: uuid("trial_id").references(() => trial.id, { onDelete: "cascade" }),
    symbol: text("symbol").notNull(),
    kind: text("kind").$type<ObservationKind>().notNull(),
    text: text("text").notNull(),
    value: numeric("value"),
    unit: text("unit").notNull(),
    source: text("source").$type<"typed" | "instrument" | "imported">().notNull(),
    person: text("person").notNull(),
    at: at("at").notNull(),
    supersedes: uuid("supersedes"),
    reason: text("reason"),
  },
  (t) => [
    index("observation_of_stage").on(t.stageId, t.id),
    // A reading is corrected once; the correction is what is corrected next.
    uniqueIndex("observation_superseded_once")
      .on(t.supersedes)
      .where(sql`${t.supersedes} is not null`),
  ],
);

/** Every change to a run, with what takes it back. */
export const runEvent = pgTable(
  "run_event",
  {
    id: uuid("id").primaryKey(),
    runId: uuid("run_id")
      .notNull()
      .references(() => run.id, { onDelete: "cascade" }),
    at: at("at").notNull(),
    person: text("person").notNull(),
    description: text("description").notNull(),
    inverse: jsonb("inverse").$type<Inverse>().notNull(),
    undone: boolean("undone").notNull().default(false),
  },
  (t) => [index("run_event_of_run").on(t.runId, t.id)],
);
