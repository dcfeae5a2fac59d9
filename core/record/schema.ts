import { Type, type Static } from "@sinclair/typebox";
import { Id, ShortText, Instant, Closed } from "./parts";

/** Points of one spectrum or course that are kept. */
export const mostPoints = 100_000;

export const ObservationKindSchema = Type.Union([
  Type.Literal("burette.initial"),
  Type.Literal("burette.final"),
  /** A burette that was refilled midway: where it stood before, and where it goes on from. */
  Type.Literal("burette.before-refill"),
  Type.Literal("burette.after-refill"),
  /** A possible end point: it counts only once it is chosen. */
  Type.Literal("burette.maybe"),
  /** A second reading of the same meniscus, typed without sight of the first. */
  Type.Literal("burette.initial.again"),
  Type.Literal("burette.final.again"),
  /** After an overshot end: what was added back, mL, and what one mL of it takes of the titrant, mL. */
  Type.Literal("back.volume"),
  Type.Literal("back.worth"),
  /** 1 where the end of a rough trial was overshot: its titer is an upper bound. */
  Type.Literal("end.overshot"),
  /** Which piece of glass it was, where another of the same size is used beside: a number. */
  Type.Literal("glass.piece"),
  /** Of the flask, where the method asks for one. */
  Type.Literal("temperature.flask"),
  Type.Literal("mass.before"),
  Type.Literal("mass.after"),
  Type.Literal("mass.tared"),
  Type.Literal("volume.taken"),
  Type.Literal("drops"),
  Type.Literal("count"),
  Type.Literal("temperature"),
  Type.Literal("pH"),
  Type.Literal("absorbance"),
  /** In percent; turned into absorbance. */
  Type.Literal("transmittance"),
  /** Recheck of a standard at the end: it shows drift and is not part of the line. */
  Type.Literal("absorbance.again"),
  /** The window of a course of absorbance, s. */
  Type.Literal("window.from"),
  Type.Literal("window.to"),
  /** How the electrode of a meter answers: in percent of theory, and its potential at pH 7, mV. */
  Type.Literal("meter.slope"),
  Type.Literal("meter.offset"),
  /** A point of a titration curve: what the meter showed, with the reading of the burette beside it. */
  Type.Literal("point"),
  Type.Literal("given"),
  Type.Literal("given.plus-minus"),
  /** Instead of a half width: the standard uncertainty of a concentration that comes from the shelf. */
  Type.Literal("given.standard-uncertainty"),
  Type.Literal("purity"),
  Type.Literal("purity.plus-minus"),
]);

export type ObservationKind = Static<typeof ObservationKindSchema>;

/** What a point of a titration curve was read at. */
export const CurvePlaceSchema = Type.Object(
  {
    /** Reading of the burette, mL, as typed with a decimal point. */
    burette: Type.String({ pattern: "^\\d+(\\.\\d+)?$", maxLength: 20 }),
    /** True where it was taken before the meter had come to rest. */
    unsteady: Type.Optional(Type.Boolean()),
  },
  Closed,
);

export type CurvePlace = Static<typeof CurvePlaceSchema>;

/** One thing read or weighed, as typed. Never changed: a correction is a new observation that supersedes it. */
export const ObservationSchema = Type.Object(
  {
    id: Id,
    /** The input of the method that it belongs to. */
    symbol: Id,
    kind: ObservationKindSchema,
    /** As typed, trailing zeros and all; empty where an entry was taken back. */
    text: ShortText,
    /** The exact decimal that the text means; null where the entry was taken back. */
    value: Type.Union([
      Type.String({ pattern: "^[+-]?(\\d+\\.?\\d*|\\.\\d+)$", maxLength: 60 }),
      Type.Null(),
    ]),
    unit: ShortText,
    /** How it came in: typed at the bench, by an instrument, from a file, or later from paper with the time written there. */
    source: Type.Union([
      Type.Literal("typed"),
      Type.Literal("instrument"),
      Type.Literal("imported"),
      Type.Literal("paper"),
    ]),
    person: ShortText,
    at: Instant,
    supersedes: Type.Union([Id, Type.Null()]),
    reason: Type.Union([ShortText, Type.Null()]),
    /** Where the value was taken from a bottle on the shelf: the concentration that it had then. */
    assignment: Type.Optional(Type.Union([Id, Type.Null()])),
    /** Where it is a point of a titration curve. */
    point: Type.Optional(Type.Union([CurvePlaceSchema, Type.Null()])),
  },
  Closed,
);

export type Observation = Static<typeof ObservationSchema>;

export const TrialRecordSchema = Type.Object(
  {
    id: Id,
    /** What it is called by, counted among the trials that count; kept for good once given, null while it has none. */
    number: Type.Union([Type.Integer({ minimum: 1 }), Type.Null()]),
    /** What people call it, where the number will not do. */
    label: Type.Union([ShortText, Type.Null()]),
    kind: Type.Union([Type.Literal("rough"), Type.Literal("fine")]),
    struck: Type.Union([
      Type.Object({ at: Instant, person: ShortText, reason: ShortText }, Closed),
      Type.Null(),
    ]),
    observations: Type.Array(ObservationSchema),
  },
  Closed,
);

export type TrialRecord = Static<typeof TrialRecordSchema>;

const Place = Type.Integer({ minimum: 0, maximum: 15 });

/** Decimals of numbers as an instrument or a file gave them: the same for all, or those of each. */
export const DecimalsSchema = Type.Union([Place, Type.Array(Place, { minItems: 1, maxItems: mostPoints })]);
export type Decimals = Static<typeof DecimalsSchema>;

/** Decimals of the points of a trace and of what was read there; none where nothing was written down of them. */
export const TraceDecimalsSchema = Type.Object({ x: DecimalsSchema, absorbance: DecimalsSchema }, Closed);

/** A row of readings that an instrument or a file gave at once: a spectrum, or absorbance against time. */
export const TraceRecordSchema = Type.Object(
  {
    id: Id,
    /** The trial that it belongs to; null for a spectrum of the stage. */
    trialId: Type.Union([Id, Type.Null()]),
    name: Type.String({ minLength: 1, maxLength: 1000 }),
    xUnit: Type.Union([Type.Literal("nm"), Type.Literal("s")]),
    /** Rising; as many as there are absorbances. */
    x: Type.Array(Type.Number(), { minItems: 1, maxItems: mostPoints }),
    absorbance: Type.Array(Type.Number(), { minItems: 1, maxItems: mostPoints }),
    decimals: Type.Optional(TraceDecimalsSchema),
    source: Type.Union([Type.Literal("instrument"), Type.Literal("imported")]),
    person: ShortText,
    at: Instant,
    /** Put away: kept, but no longer used. */
    removed: Type.Union([
      Type.Object({ at: Instant, person: ShortText, reason: ShortText }, Closed),
      Type.Null(),
    ]),
  },
  Closed,
);

export type TraceRecord = Static<typeof TraceRecordSchema>;

/** Something that takes its time, by flask or for the whole stage: as planned, as begun, as ended, by the server's clock. */
export const TimerRecordSchema = Type.Object(
  {
    id: Id,
    trialId: Type.Union([Id, Type.Null()]),
    /** What it is for: "let it stand", or "the end must stay". */
    what: Type.String({ minLength: 1, maxLength: 1000 }),
    /** The flask in words, where the timer was set for one. */
    flask: ShortText,
    /** "for": just as long; "within": no longer; "persist": the color of the end must stay as long. */
    counts: Type.Union([Type.Literal("for"), Type.Literal("within"), Type.Literal("persist")]),
    seconds: Type.Number({ exclusiveMinimum: 0 }),
    /** True where earlier or later spoils the result. */
    strict: Type.Boolean(),
    /** When it should begin, where that was planned. */
    plannedAt: Type.Union([Instant, Type.Null()]),
    startedAt: Type.Union([Instant, Type.Null()]),
    endedAt: Type.Union([Instant, Type.Null()]),
    outcome: Type.Union([
      Type.Literal("done"),
      Type.Literal("kept"),
      Type.Literal("faded"),
      Type.Literal("dropped"),
      Type.Null(),
    ]),
    person: ShortText,
  },
  Closed,
);

export type TimerRecord = Static<typeof TimerRecordSchema>;

export const StageRecordSchema = Type.Object(
  {
    id: Id,
    /** Key of the stage in the method. */
    key: Id,
    /** What is read once for the whole stage. */
    observations: Type.Array(ObservationSchema),
    trials: Type.Array(TrialRecordSchema),
    traces: Type.Optional(Type.Array(TraceRecordSchema)),
    timers: Type.Optional(Type.Array(TimerRecordSchema)),
    /** What was chosen for the stage in place of what the method takes: the line, its weights, the order. */
    choices: Type.Optional(Type.Record(ShortText, ShortText, { maxProperties: 20 })),
  },
  Closed,
);

export type StageRecord = Static<typeof StageRecordSchema>;
