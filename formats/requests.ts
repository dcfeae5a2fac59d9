import { type Static, Type } from "@sinclair/typebox";
import { ObservationKindSchema } from "~/core/run";
import { checker } from "./validate";

/** What the screens may ask of the server, as JSON. Everything posted is checked against these before it is looked at. */

const Closed = { additionalProperties: false } as const;
const Id = Type.String({ format: "uuid" });
const Reason = Type.String({ minLength: 1, maxLength: 500, pattern: "\\S" });
const Short = Type.String({ maxLength: 120 });

export const StartRunSchema = Type.Object(
  {
    intent: Type.Literal("start"),
    methodId: Type.String({ minLength: 1 }),
    title: Type.String({ minLength: 1, maxLength: 120, pattern: "\\S" }),
    sample: Short,
    bench: Short,
  },
  Closed,
);
export type StartRun = Static<typeof StartRunSchema>;

export const ObserveSchema = Type.Object(
  {
    intent: Type.Literal("observe"),
    /** Made by the sender, so that a request sent again after a lost answer is written once. */
    id: Id,
    stageKey: Type.String({ minLength: 1 }),
    /** Null for what is read once for a stage. A new id begins a trial. */
    trial: Type.Union([
      Type.Object({ id: Id, kind: Type.Union([Type.Literal("rough"), Type.Literal("fine")]) }, Closed),
      Type.Null(),
    ]),
    symbol: Type.String({ minLength: 1 }),
    kind: ObservationKindSchema,
    text: Type.String({ minLength: 1, maxLength: 40 }),
    supersedes: Type.Union([Id, Type.Null()]),
    reason: Type.Union([Reason, Type.Null()]),
    /** Who read it, where that is not the run's bench. */
    person: Type.Optional(Short),
  },
  Closed,
);
export type Observe = Static<typeof ObserveSchema>;

const Trial = Type.Object(
  {
    id: Id,
    kind: Type.Union([Type.Literal("rough"), Type.Literal("fine")]),
    label: Type.Optional(Type.String({ maxLength: 40 })),
  },
  Closed,
);

/** Many readings at once, all or none: a flask with what was taken for it and its first reading, or a table of a class. */
export const EnterSchema = Type.Object(
  {
    intent: Type.Literal("enter"),
    stageKey: Type.String({ minLength: 1 }),
    source: Type.Union([Type.Literal("typed"), Type.Literal("instrument"), Type.Literal("imported")]),
    rows: Type.Array(
      Type.Object(
        {
          trial: Type.Union([Trial, Type.Null()]),
          readings: Type.Array(
            Type.Object(
              {
                id: Id,
                symbol: Type.String({ minLength: 1 }),
                kind: ObservationKindSchema,
                text: Type.String({ minLength: 1, maxLength: 40 }),
                person: Short,
              },
              Closed,
            ),
            { minItems: 1, maxItems: 200 },
          ),
        },
        Closed,
      ),
      { minItems: 1, maxItems: 100 },
    ),
  },
  Closed,
);
export type Enter = Static<typeof EnterSchema>;

/** A spectrum or a course, from an instrument or a file. */
export const AddTraceSchema = Type.Object(
  {
    intent: Type.Literal("trace"),
    id: Id,
    stageKey: Type.String({ minLength: 1 }),
    /** A new id begins a trial. */
    trialId: Type.Union([Id, Type.Null()]),
    /** What is typed for that trial with it. */
    readings: Type.Array(
      Type.Object(
        {
          id: Id,
          symbol: Type.String({ minLength: 1 }),
          kind: ObservationKindSchema,
          text: Type.String({ minLength: 1, maxLength: 40 }),
        },
        Closed,
      ),
      { maxItems: 20 },
    ),
    name: Type.String({ minLength: 1, maxLength: 80 }),
    xUnit: Type.Union([Type.Literal("nm"), Type.Literal("s")]),
    x: Type.Array(Type.Number(), { minItems: 2, maxItems: 20_000 }),
    absorbance: Type.Array(Type.Number(), { minItems: 2, maxItems: 20_000 }),
    source: Type.Union([Type.Literal("instrument"), Type.Literal("imported")]),
    person: Short,
  },
  Closed,
);
export type AddTrace = Static<typeof AddTraceSchema>;

const onTrial = { trialId: Id };

export const RunRequestSchema = Type.Union([
  ObserveSchema,
  EnterSchema,
  AddTraceSchema,
  Type.Object({ intent: Type.Literal("put-away"), traceId: Id, reason: Reason }, Closed),
  Type.Object({ intent: Type.Literal("bring-back"), traceId: Id }, Closed),
  /** One reading of many, struck out by hand; nothing strikes one out by itself. */
  Type.Object({ intent: Type.Literal("strike-reading"), observationId: Id, reason: Reason }, Closed),
  Type.Object({ intent: Type.Literal("restore-reading"), observationId: Id }, Closed),
  /** What is taken in place of what the method takes: the line, its weights, the zero standard, the order. */
  Type.Object(
    {
      intent: Type.Literal("choose"),
      stageKey: Type.String({ minLength: 1 }),
      name: Type.Union(["model", "weighting", "zero", "order", "unit"].map((name) => Type.Literal(name))),
      value: Type.String({ maxLength: 20 }),
    },
    Closed,
  ),
  Type.Object({ intent: Type.Literal("strike"), ...onTrial, reason: Reason }, Closed),
  Type.Object({ intent: Type.Literal("restore"), ...onTrial }, Closed),
  Type.Object(
    {
      intent: Type.Literal("mark"),
      ...onTrial,
      kind: Type.Union([Type.Literal("rough"), Type.Literal("fine")]),
    },
    Closed,
  ),
  Type.Object({ intent: Type.Literal("label"), ...onTrial, label: Type.String({ maxLength: 40 }) }, Closed),
  Type.Object(
    {
      intent: Type.Literal("rename"),
      title: Type.String({ minLength: 1, maxLength: 120, pattern: "\\S" }),
      sample: Short,
      bench: Short,
    },
    Closed,
  ),
  /** Takes a concentration, or a purity, from a bottle on the shelf. */
  Type.Object(
    {
      intent: Type.Literal("take"),
      stageKey: Type.String({ minLength: 1 }),
      symbol: Type.String({ minLength: 1 }),
      assignmentId: Id,
      reason: Type.Union([Reason, Type.Null()]),
    },
    Closed,
  ),
  /** Puts what a stage found on the shelf: to a bottle there, or to a new one. */
  Type.Object(
    {
      intent: Type.Literal("shelve"),
      stageKey: Type.String({ minLength: 1 }),
      solutionId: Type.Union([Id, Type.Null()]),
      name: Type.String({ maxLength: 120 }),
      restandardizeBy: Type.String({ pattern: "^(\\d{4}-\\d{2}-\\d{2})?$" }),
    },
    Closed,
  ),
  /** Computes a finished run again with the newest concentrations of its bottles, beside the result that it has. */
  Type.Object({ intent: Type.Literal("recompute") }, Closed),
  Type.Object({ intent: Type.Literal("finish") }, Closed),
  Type.Object({ intent: Type.Literal("reopen") }, Closed),
  Type.Object({ intent: Type.Literal("archive") }, Closed),
  Type.Object({ intent: Type.Literal("delete") }, Closed),
  Type.Object({ intent: Type.Literal("undo"), eventId: Id }, Closed),
]);
export type RunRequest = Static<typeof RunRequestSchema>;

export const checkStartRun = checker(StartRunSchema);
export const checkRunRequest = checker(RunRequestSchema);
