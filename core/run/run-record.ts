import { Type, type Static } from "@sinclair/typebox";
import { StageRecordSchema } from "../record";
import { Closed, Id, Instant, ShortText } from "../record/parts";
import { InputSchema } from "../inputs";
import { MethodSchema } from "../method";
import { ExpectedSchema } from "../method/schema";
import { HouseRulesSchema } from "../rules";
import { HeldAgainstSchema } from "./held-against-schema";

export const RunStatusSchema = Type.Union([
  Type.Literal("open"),
  Type.Literal("finished"),
  Type.Literal("archived"),
]);

export type RunStatus = Static<typeof RunStatusSchema>;

/** A bottle from the shelf as a run used it: the concentration that it had then. */
export const UsedSolutionSchema = Type.Object(
  {
    assignmentId: Id,
    solutionId: Id,
    code: ShortText,
    name: ShortText,
    formula: ShortText,
    how: Type.Union([
      Type.Literal("weighed"),
      Type.Literal("diluted"),
      Type.Literal("standardized"),
      Type.Literal("certificate"),
      Type.Literal("nominal"),
    ]),
    value: ShortText,
    plusMinus: ShortText,
    /** Rectangular: ± is half a width; normal: a standard uncertainty. */
    shape: Type.Union([Type.Literal("rectangular"), Type.Literal("normal")]),
    unit: ShortText,
    at: Instant,
  },
  Closed,
);

export type UsedSolution = Static<typeof UsedSolutionSchema>;

/**
 * An input that is had in another way; a stage that is not done since its result is known, `from` says where that is from; one
 * that is not diluted, whose result is on dry basis, or that is left out with what rests on it; what the result of a stage is
 * held against, or what is expected of it before its first trial.
 */
const ChoiceSchema = Type.Union([
  Type.Object({ stageKey: Id, input: InputSchema }, Closed),
  Type.Object({ stageKey: Id, known: Type.Object({ from: ShortText }, Closed) }, Closed),
  Type.Object(
    {
      stageKey: Id,
      adapted: Type.Union([Type.Literal("undiluted"), Type.Literal("dry"), Type.Literal("left-out")]),
    },
    Closed,
  ),
  Type.Object({ stageKey: Id, heldAgainst: HeldAgainstSchema() }, Closed),
  Type.Object({ stageKey: Id, expected: ExpectedSchema() }, Closed),
]);

/** What a run is among others of its method that were begun with it or alike. */
export const RoleSchema = Type.Union([
  Type.Literal("sample"),
  /** A second portion of a sample of the same name. */
  Type.Literal("duplicate"),
  /** A portion of a sample of the same name, to which a known amount was added. */
  Type.Literal("spiked"),
  /** Something whose result is known. */
  Type.Literal("check"),
]);
export type Role = Static<typeof RoleSchema>;

const SeriesSchema = Type.Object(
  {
    id: Id,
    role: RoleSchema,
    /** Its place among those that were begun at once. */
    place: Type.Optional(Type.Integer({ minimum: 0 })),
    /** What was added to a spiked sample, in the unit of the result. */
    added: Type.Optional(Type.String({ pattern: "^\\d+(\\.\\d+)?$", maxLength: 40 })),
  },
  Closed,
);

const CountersignedSchema = Type.Object({ at: Instant, person: ShortText, note: ShortText }, Closed);

/** The plain whole of one run: the input of the core and the unit of export and import. */
export const RunRecordSchema = Type.Object(
  {
    format: Type.Literal("steady-bead/run"),
    formatVersion: Type.Literal(1),
    id: Id,
    title: Type.String({ minLength: 1, maxLength: 1000 }),
    sample: ShortText,
    bench: ShortText,
    status: RunStatusSchema,
    startedAt: Instant,
    finishedAt: Type.Union([Instant, Type.Null()]),
    /** Who stands for it beside whoever carried it out: from then on it is locked. */
    countersigned: Type.Optional(CountersignedSchema),
    method: MethodSchema,
    /** What is different from the method in this run alone, see `methodOf`: inputs, stages that are known, what results are held against. */
    choices: Type.Optional(Type.Array(ChoiceSchema, { maxItems: 100 })),
    /** The series that it belongs to. */
    series: Type.Optional(SeriesSchema),
    houseRules: HouseRulesSchema,
    /** The bottles from the shelf that its observations name. */
    solutions: Type.Optional(Type.Array(UsedSolutionSchema)),
    stages: Type.Array(StageRecordSchema),
  },
  { ...Closed, $id: "run-record", title: "One run of Steady Bead" },
);

export type RunRecord = Static<typeof RunRecordSchema>;
