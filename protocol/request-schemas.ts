import { type Static, Type } from "@sinclair/typebox";
import { HouseRulesSchema } from "~/core/rules";
import { mostPoints, ObservationKindSchema, TimerRecordSchema } from "~/core/record";

/** What the screens may ask of the server, as JSON. Everything posted is checked against these before it is looked at. */

const Closed = { additionalProperties: false } as const;
const Id = Type.String({ format: "uuid" });
const Key = Type.String({ minLength: 1, maxLength: 120 });
const Symbol_ = Type.String({ minLength: 1, maxLength: 40 });
const Reason = Type.String({ minLength: 1, maxLength: 500, pattern: "\\S" });
const Short = Type.String({ maxLength: 120 });

/**
 * How long ago it happened, s, for what waited until the server could be reached. Told so, and not as a time of day, since
 * the clocks of two devices seldom agree.
 */
const Held = Type.Optional(Type.Number({ minimum: 0, maximum: 30 * 86_400 }));

export const StartRunSchema = Type.Object(
  {
    intent: Type.Literal("start"),
    methodId: Key,
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
    stageKey: Key,
    /** Null for what is read once for a stage. A new id begins a trial. */
    trial: Type.Union([
      Type.Object({ id: Id, kind: Type.Union([Type.Literal("rough"), Type.Literal("fine")]) }, Closed),
      Type.Null(),
    ]),
    symbol: Symbol_,
    kind: ObservationKindSchema,
    text: Type.String({ minLength: 1, maxLength: 40 }),
    supersedes: Type.Union([Id, Type.Null()]),
    reason: Type.Union([Reason, Type.Null()]),
    /** Who read it, where that is not the run's bench. */
    person: Type.Optional(Short),
    /** Where it was not typed. */
    source: Type.Optional(Type.Union([Type.Literal("typed"), Type.Literal("instrument")])),
    heldSeconds: Held,
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
    stageKey: Key,
    source: Type.Union([Type.Literal("typed"), Type.Literal("instrument"), Type.Literal("imported")]),
    rows: Type.Array(
      Type.Object(
        {
          trial: Type.Union([Trial, Type.Null()]),
          readings: Type.Array(
            Type.Object(
              {
                id: Id,
                symbol: Symbol_,
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
    heldSeconds: Held,
  },
  Closed,
);
export type Enter = Static<typeof EnterSchema>;

/** A spectrum or a course, from an instrument or a file. */
export const AddTraceSchema = Type.Object(
  {
    intent: Type.Literal("trace"),
    id: Id,
    stageKey: Key,
    /** A new id begins a trial. */
    trialId: Type.Union([Id, Type.Null()]),
    /** What is typed for that trial with it. */
    readings: Type.Array(
      Type.Object(
        {
          id: Id,
          symbol: Symbol_,
          kind: ObservationKindSchema,
          text: Type.String({ minLength: 1, maxLength: 40 }),
        },
        Closed,
      ),
      { maxItems: 20 },
    ),
    name: Type.String({ minLength: 1, maxLength: 80 }),
    xUnit: Type.Union([Type.Literal("nm"), Type.Literal("s")]),
    x: Type.Array(Type.Number(), { minItems: 2, maxItems: mostPoints }),
    absorbance: Type.Array(Type.Number(), { minItems: 2, maxItems: mostPoints }),
    source: Type.Union([Type.Literal("instrument"), Type.Literal("imported")]),
    person: Short,
  },
  Closed,
);
export type AddTrace = Static<typeof AddTraceSchema>;

const Words = Type.String({ minLength: 1, maxLength: 160 });

/** Sets a timer: it begins now, or in so many seconds. */
export const StartTimerSchema = Type.Object(
  {
    intent: Type.Literal("start-timer"),
    id: Id,
    stageKey: Key,
    trialId: Type.Union([Id, Type.Null()]),
    what: Words,
    flask: Type.String({ maxLength: 60 }),
    counts: TimerRecordSchema.properties.counts,
    seconds: Type.Number({ minimum: 1, maximum: 7 * 86_400 }),
    strict: Type.Boolean(),
    /** Seconds until it should begin; null for at once. */
    inSeconds: Type.Union([Type.Number({ minimum: 0, maximum: 86_400 }), Type.Null()]),
    heldSeconds: Held,
  },
  Closed,
);
export type StartTimer = Static<typeof StartTimerSchema>;

const onTrial = { trialId: Id };

export const RunRequestSchema = Type.Union([
  ObserveSchema,
  EnterSchema,
  AddTraceSchema,
  StartTimerSchema,
  /** Begins a timer that was planned. */
  Type.Object({ intent: Type.Literal("begin-timer"), timerId: Id, heldSeconds: Held }, Closed),
  Type.Object(
    {
      intent: Type.Literal("end-timer"),
      timerId: Id,
      outcome: Type.Union([Type.Literal("done"), Type.Literal("kept"), Type.Literal("dropped")]),
      heldSeconds: Held,
    },
    Closed,
  ),
  /** The color of an end did not stay: its reading becomes a mark on the way, and the trial goes on. */
  Type.Object(
    {
      intent: Type.Literal("faded"),
      stageKey: Key,
      ...onTrial,
      /** Id of the mark that is made of it. */
      markId: Id,
      /** How long it stayed, s. */
      seconds: Type.Number({ minimum: 0, maximum: 86_400 }),
      /** The stopwatch, where one ran. */
      timerId: Type.Union([Id, Type.Null()]),
    },
    Closed,
  ),
  /** House rules for this run alone. */
  Type.Object({ intent: Type.Literal("rules"), rules: HouseRulesSchema, reason: Reason }, Closed),
  Type.Object({ intent: Type.Literal("put-away"), traceId: Id, reason: Reason }, Closed),
  Type.Object({ intent: Type.Literal("bring-back"), traceId: Id }, Closed),
  /** One reading of many, struck out by hand; nothing strikes one out by itself. */
  Type.Object({ intent: Type.Literal("strike-reading"), observationId: Id, reason: Reason }, Closed),
  Type.Object({ intent: Type.Literal("restore-reading"), observationId: Id }, Closed),
  /** What is taken in place of what the method takes: the line, its weights, the blank, the order. The stage says which there are. */
  Type.Object(
    {
      intent: Type.Literal("choose"),
      stageKey: Key,
      name: Type.String({ minLength: 1, maxLength: 20 }),
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
      stageKey: Key,
      symbol: Symbol_,
      assignmentId: Id,
      reason: Type.Union([Reason, Type.Null()]),
    },
    Closed,
  ),
  /** Puts what a stage found on the shelf: to a bottle there, or to a new one. */
  Type.Object(
    {
      intent: Type.Literal("shelve"),
      stageKey: Key,
      solutionId: Type.Union([Id, Type.Null()]),
      name: Type.String({ maxLength: 120 }),
      restandardizeBy: Type.String({ pattern: "^(\\d{4}-\\d{2}-\\d{2})?$", maxLength: 10 }),
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
