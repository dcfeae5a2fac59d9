import { type Static, Type } from "@sinclair/typebox";
import { RunChangeSchema } from "~/core/change";
import { RoleSchema } from "~/core/run";

/** What the screens may ask of the server, as JSON. Everything posted is checked against these before it is looked at. */

const Closed = { additionalProperties: false } as const;
const Id = Type.String({ format: "uuid" });
const Key = Type.String({ minLength: 1, maxLength: 120 });
const Short = Type.String({ maxLength: 120 });

/** A stage that is not done in a run, since its result is known: from a bottle, by a concentration it was given, or stated. */
const KnownStageSchema = Type.Object(
  {
    stageKey: Key,
    /** Null where it is stated. */
    assignmentId: Type.Union([Id, Type.Null()]),
    /** As typed, in the unit of the result; empty where a bottle says it. */
    value: Type.String({ maxLength: 40 }),
    plusMinus: Type.String({ maxLength: 40 }),
    /** Where a stated value is from, in a person's words. */
    from: Short,
  },
  Closed,
);
export type KnownStage = Static<typeof KnownStageSchema>;

/** One of several runs that begin at once: the sample, who, and what it is in the series. */
const OneOfSeveralSchema = Type.Object(
  {
    sample: Type.String({ minLength: 1, maxLength: 120, pattern: "\\S" }),
    bench: Short,
    role: RoleSchema,
    /** What was added to a spiked sample, or what a check should be, in the unit of the result; empty where neither is said. */
    amount: Type.String({ maxLength: 40, pattern: "^(\\d+(\\.\\d+)?)?$" }),
  },
  Closed,
);
export type OneOfSeveral = Static<typeof OneOfSeveralSchema>;

export const StartRunSchema = Type.Object(
  {
    intent: Type.Literal("start"),
    methodId: Key,
    /** The alias of the method under which it was looked for: its choices are made from the start. */
    as: Type.Optional(Key),
    title: Type.String({ minLength: 1, maxLength: 120, pattern: "\\S" }),
    sample: Short,
    bench: Short,
    /** The run that this one is like: what was chosen in it of how things are measured holds here too. */
    like: Type.Optional(Type.Union([Id, Type.Literal("")])),
    /** Stages that are known; where nothing is said, those of the run that this one is like. */
    known: Type.Optional(Type.Array(KnownStageSchema, { maxItems: 20 })),
    /** Several runs at once, one for each: a series. Sample and bench are theirs then, and the title is what they have in common. */
    several: Type.Optional(Type.Array(OneOfSeveralSchema, { minItems: 1, maxItems: 60 })),
  },
  Closed,
);
export type StartRun = Static<typeof StartRunSchema>;

/** What is asked of a run: its changes, which browser and server make alike, and what the server alone can do. */
export const RunRequestSchema = Type.Union([
  ...RunChangeSchema.anyOf,
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
  Type.Object({ intent: Type.Literal("delete") }, Closed),
]);
export type RunRequest = Static<typeof RunRequestSchema>;
