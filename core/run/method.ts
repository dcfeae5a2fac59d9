import { type Static, Type } from "@sinclair/typebox";

/** What a method is made of, as data. This schema is the one source of its type, of its check and of its published form. */

const Text = Type.String({ minLength: 1 });
const Closed = { additionalProperties: false } as const;

const Mass = Type.Object(
  {
    is: Type.Literal("mass"),
    symbol: Text,
    label: Text,
    /** Formula of what is weighed. */
    of: Text,
    per: Type.Literal("trial"),
    /** Names of the two weighings of a mass by difference. */
    before: Text,
    after: Text,
    /** The window, in g, that the mass should fall in; outside it is a caution. */
    expect: Type.Optional(Type.Tuple([Type.Number(), Type.Number()])),
  },
  Closed,
);

const Purity = Type.Object(
  {
    is: Type.Literal("purity"),
    symbol: Text,
    label: Text,
    of: Text,
    per: Type.Literal("run"),
    /** Taken until something else is typed: percent and its ±. */
    presumed: Type.Object({ percent: Text, plusMinus: Text }, Closed),
  },
  Closed,
);

const Titer = Type.Object(
  { is: Type.Literal("titer"), symbol: Text, label: Text, titrant: Text, per: Type.Literal("trial") },
  Closed,
);

const Pipette = Type.Object(
  {
    is: Type.Literal("pipette"),
    symbol: Text,
    label: Text,
    of: Text,
    per: Type.Literal("trial"),
    /** The usual volume in mL, as it would be typed. */
    presumed: Text,
  },
  Closed,
);

const FromStage = Type.Object(
  {
    is: Type.Literal("result"),
    symbol: Text,
    label: Text,
    of: Text,
    per: Type.Literal("run"),
    /** Key of the earlier stage whose result this is. */
    stage: Text,
  },
  Closed,
);

export const InputSchema = Type.Union([Mass, Purity, Titer, Pipette, FromStage]);
export type Input = Static<typeof InputSchema>;

const RelationLine = Type.Object(
  {
    /** `symbol = expression`. */
    relation: Text,
    /** What the line computes, as a heading of the working. */
    title: Text,
    /** Unit in which its value is shown. */
    unit: Text,
  },
  Closed,
);

const RibbonStep = Type.Object(
  {
    color: Type.String({ pattern: "^#[0-9a-f]{6}$" }),
    looks: Text,
    do: Text,
    /** True for the one step at which to stop and read. */
    end: Type.Optional(Type.Boolean()),
  },
  Closed,
);

export const TitrationStageSchema = Type.Object(
  {
    kind: Type.Literal("titration"),
    key: Text,
    title: Text,
    /** What is read, in the order of the work. */
    inputs: Type.Array(InputSchema, { minItems: 1 }),
    relations: Type.Array(RelationLine, { minItems: 1 }),
    result: Type.Object(
      {
        symbol: Text,
        name: Text,
        unit: Text,
        /** Formula of the titrant whose concentration this stage fixes. */
        assigns: Type.Optional(Text),
      },
      Closed,
    ),
    agree: Type.Object(
      {
        /** What must agree: the titer alone, or the titer per amount where flasks are unlike ("V / m"). */
        on: Text,
        /** The amount it is taken per, where there is one. */
        per: Type.Optional(Text),
      },
      Closed,
    ),
    /** What the result is presumed to be before the first trial, in the result's unit. */
    presumed: Type.Optional(Type.Number()),
    indicator: Text,
    persistence: Text,
    meniscus: Type.Union([Type.Literal("bottom"), Type.Literal("top")]),
    ribbon: Type.Array(RibbonStep),
    steps: Type.Array(Text),
    cautions: Type.Array(Text),
  },
  Closed,
);
export type TitrationStage = Static<typeof TitrationStageSchema>;

export const ConcludeStageSchema = Type.Object(
  { kind: Type.Literal("conclude"), key: Text, title: Text, of: Text },
  Closed,
);

export const StageDefinitionSchema = Type.Union([TitrationStageSchema, ConcludeStageSchema]);
export type StageDefinition = Static<typeof StageDefinitionSchema>;

export const MethodSchema = Type.Object(
  {
    id: Text,
    version: Type.Integer({ minimum: 1 }),
    family: Type.Union([Type.Literal("acid-base"), Type.Literal("redox"), Type.Literal("complexometric")]),
    title: Text,
    purpose: Text,
    equations: Type.Record(Type.String(), Text),
    /** Formula to name. */
    substances: Type.Record(Type.String(), Text),
    stages: Type.Array(StageDefinitionSchema, { minItems: 1 }),
    protection: Type.Array(Text),
    hazards: Type.Array(Text),
    waste: Type.Array(Text),
    glassware: Type.Array(Text),
  },
  Closed,
);
export type Method = Static<typeof MethodSchema>;

/** The input of a stage with this symbol, where there is one. */
export const inputOf = (stage: TitrationStage, symbol: string): Input | undefined =>
  stage.inputs.find((input) => input.symbol === symbol);

/** For methods written in TypeScript: checks the shape at compile time and returns the data as it is. */
export const defineMethod = (method: Method): Method => method;
