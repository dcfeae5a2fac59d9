import { type Static, Type } from "@sinclair/typebox";
import { InputSchema } from "../inputs";
import { Closed, Decimal, Key, ShortText } from "../inputs/parts";

/** What a method is made of, as data. This schema is the one source of its type, of its check and of its published form. */

const RelationLine = Type.Object(
  {
    /** `symbol = expression`. */
    relation: ShortText,
    /** What the line computes, as a heading of the working. */
    title: ShortText,
    /** Unit in which its value is shown. */
    unit: ShortText,
  },
  Closed,
);

const FurtherResult = Type.Object(
  {
    symbol: ShortText,
    name: ShortText,
    unit: ShortText,
    /** True for a count, such as electrons: shown with the nearest whole number too. */
    nearestWhole: Type.Optional(Type.Boolean()),
    /** When it can be told at all: while the symbol has this value; else why it cannot, in words. */
    when: Type.Optional(Type.Object({ symbol: ShortText, is: Type.Number(), otherwise: ShortText }, Closed)),
  },
  Closed,
);
export type FurtherResultDefinition = Static<typeof FurtherResult>;

const MainResult = Type.Object(
  {
    ...FurtherResult.properties,
    /** Formula of the solution whose concentration this stage fixes: it goes to the shelf. */
    assigns: Type.Optional(ShortText),
    /** Equivalents in one mole of it in this reaction: its normality is that many times its concentration. */
    equivalents: Type.Optional(Type.Integer({ minimum: 1, maximum: 8 })),
  },
  Closed,
);

const Acceptance = Type.Union([
  Type.Object(
    {
      /** Against a known or a target value, by its symbol: the error in percent. */
      against: Type.Literal("value"),
      symbol: ShortText,
      /** How far off is allowed, in percent or in the unit of the result; nothing is allowed or refused where neither is said. */
      tolerancePercent: Type.Optional(Type.Number({ exclusiveMinimum: 0 })),
      toleranceAbsolute: Type.Optional(Type.Number({ exclusiveMinimum: 0 })),
      /** What to do when it is off: a dilution is titrated again, then made anew; else it is only told. */
      whenOff: Type.Union([Type.Literal("dilution"), Type.Literal("tell")]),
    },
    Closed,
  ),
  Type.Object(
    {
      /** Against a limit, by its symbol, with the result's own ± for a guard band. */
      against: Type.Literal("limit"),
      symbol: ShortText,
      bound: Type.Union([Type.Literal("at most"), Type.Literal("at least")]),
    },
    Closed,
  ),
]);
export type AcceptanceDefinition = Static<typeof Acceptance>;

/**
 * What a result can be, beside being computed. Held by more than its ±: what fails it cannot be, or lies outside what the method
 * is valid for.
 */
export const PlausibilitySchema = Type.Union([
  /** Between two values, in a unit; either may be open. */
  Type.Object(
    {
      rule: Type.Literal("between"),
      symbol: ShortText,
      from: Type.Optional(Type.Number()),
      to: Type.Optional(Type.Number()),
      unit: ShortText,
      /** "impossible" where nothing can lie outside, "invalid" where the method does not hold there; impossible where not said. */
      outside: Type.Optional(Type.Union([Type.Literal("impossible"), Type.Literal("invalid")])),
    },
    Closed,
  ),
  /** A content: at most all of it, or at most what the pure substance holds, as a relation without symbols. */
  Type.Object(
    {
      rule: Type.Literal("at most all"),
      symbol: ShortText,
      all: Type.Optional(ShortText),
      /** What "all" is, in words: "pure oxalic acid dihydrate". */
      of: Type.Optional(ShortText),
    },
    Closed,
  ),
  /** A part of another result, of this stage or of an earlier one, is not above it; a whole not below its part. */
  Type.Object(
    {
      rule: Type.Union([Type.Literal("not above"), Type.Literal("not below")]),
      symbol: ShortText,
      other: ShortText,
      stage: Type.Optional(ShortText),
    },
    Closed,
  ),
  /** A count: near a whole number. */
  Type.Object({ rule: Type.Literal("whole number"), symbol: ShortText }, Closed),
]);
export type Plausibility = Static<typeof PlausibilitySchema>;

const RibbonStep = Type.Object(
  {
    color: Type.String({ pattern: "^#[0-9a-f]{6}$" }),
    looks: ShortText,
    do: ShortText,
    /** True for the one step at which to stop and read. */
    end: Type.Optional(Type.Boolean()),
  },
  Closed,
);

/** What is added during the titration, how much of it, whether that must be exact, and when. */
const Reagent = Type.Object(
  {
    name: ShortText,
    /** How much, in words. */
    amount: ShortText,
    /** The most of it that one flask takes, or all flasks of a series together; where the words tell a number. */
    quantity: Type.Optional(
      Type.Object(
        {
          most: Type.Number({ exclusiveMinimum: 0 }),
          unit: Type.Union([
            Type.Literal("mL"),
            Type.Literal("L"),
            Type.Literal("g"),
            Type.Literal("mg"),
            Type.Literal("drops"),
          ]),
          of: Type.Optional(Type.Literal("series")),
        },
        Closed,
      ),
    ),
    /** The input that it is the amount of: where that is measured in another way, so is this. */
    measured: Type.Optional(ShortText),
    exact: Type.Boolean(),
    when: ShortText,
    /** True for what is added only when all else is ready, since it does not keep. */
    last: Type.Optional(Type.Boolean()),
  },
  Closed,
);
export type Reagent = Static<typeof Reagent>;

/** What must hold while it is done: a temperature to keep, a time to wait. */
const Condition = Type.Object(
  {
    what: ShortText,
    /** What it is of, where that is not the flask that is titrated: a solid that is dried, the room. */
    of: Type.Optional(Type.Union([Type.Literal("flask"), Type.Literal("solid"), Type.Literal("room")])),
    /** From and to, °C. */
    celsius: Type.Optional(Type.Tuple([Type.Number(), Type.Number()])),
    minutes: Type.Optional(Type.Number({ exclusiveMinimum: 0 })),
    /** Whether it takes just that long, or must be over within that; just that long where nothing is said. */
    counts: Type.Optional(Type.Union([Type.Literal("for"), Type.Literal("within")])),
    /** True where earlier or later spoils the result. */
    strict: Type.Optional(Type.Boolean()),
  },
  Closed,
);
export type Condition = Static<typeof Condition>;

const computed = {
  key: Key,
  title: ShortText,
  /** Readings, in order. */
  inputs: Type.Array(InputSchema, { minItems: 1, maxItems: 60 }),
  relations: Type.Array(RelationLine, { minItems: 1, maxItems: 60 }),
  result: MainResult,
  /** The same result in other words and units, or others beside it. */
  also: Type.Optional(Type.Array(FurtherResult, { maxItems: 30 })),
  /** What its main result is held against. */
  accept: Type.Optional(Acceptance),
  /** What its results can be. */
  plausible: Type.Optional(Type.Array(PlausibilitySchema, { maxItems: 60 })),
  reagents: Type.Optional(Type.Array(Reagent, { maxItems: 40 })),
  conditions: Type.Optional(Type.Array(Condition, { maxItems: 40 })),
  steps: Type.Array(ShortText, { maxItems: 80 }),
  cautions: Type.Array(ShortText, { maxItems: 80 }),
};

/** A result that a person expects, in its unit, or a titer, mL. */
export const ExpectedSchema = () =>
  Type.Object(
    {
      value: Type.Number({ exclusiveMinimum: 0 }),
      in: Type.Union([Type.Literal("unit"), Type.Literal("mL")]),
      /** Symbol of the result that it is of, where that is not the method's own; it is no expectation of another one. */
      of: Type.Optional(ShortText),
      /** True where it is what the method presumes, and the person takes it. */
      presumed: Type.Optional(Type.Boolean()),
    },
    Closed,
  );
export type Expected = Static<ReturnType<typeof ExpectedSchema>>;

export const TitrationStageSchema = Type.Object(
  {
    kind: Type.Literal("titration"),
    ...computed,
    agree: Type.Object(
      {
        /**
         * What must agree: the titer alone, the titer per amount where flasks are unlike ("V / m"), or the result by its
         * symbol where titers tell nothing, as in a back-titration of unlike samples.
         */
        on: ShortText,
        /** The amount a titer is taken per, where there is one. */
        per: Type.Optional(ShortText),
      },
      Closed,
    ),
    /** What the result is presumed to be before the first trial, in the result's unit: for plans; nobody relies on it at the burette. */
    presumed: Type.Optional(Type.Number()),
    /** An earlier stage whose result is expected to be found here, as where what was made is checked. */
    expectedFrom: Type.Optional(Type.Object({ stage: Key, result: Type.Optional(ShortText) }, Closed)),
    /** What a person expects before the first trial, in one run. */
    expected: Type.Optional(ExpectedSchema()),
    /** Titers that this method is laid out for, mL. */
    expectMl: Type.Optional(Type.Tuple([Type.Number(), Type.Number()])),
    indicator: ShortText,
    /** What surrounds the reaction in the flask, where that decides which indicator shows its end. */
    medium: Type.Optional(
      Type.Object(
        {
          pH: Type.Number({ minimum: -1, maximum: 15 }),
          /** Free ammonia, mol/L. */
          ammonia: Type.Optional(Type.Number({ minimum: 0 })),
          /** Magnesium that is put in bound to its ligand, mol/L. */
          magnesium: Type.Optional(Type.Number({ minimum: 0 })),
        },
        Closed,
      ),
    ),
    persistence: ShortText,
    /** How long the color of the end must stay, s. */
    persistSeconds: Type.Optional(Type.Number({ exclusiveMinimum: 0 })),
    meniscus: Type.Union([Type.Literal("bottom"), Type.Literal("top")]),
    ribbon: Type.Array(RibbonStep, { maxItems: 20 }),
  },
  Closed,
);
export type TitrationStage = Static<typeof TitrationStageSchema>;

/** Something made once, not titrated: a standard solution, a dilution, a sample made up to the mark. */
export const PreparationStageSchema = Type.Object(
  {
    kind: Type.Literal("preparation"),
    ...computed,
    /** Where something is made to a target: what of it is taken, so that which result comes to the target; `within` is what it goes into. */
    aim: Type.Optional(
      Type.Object(
        { symbol: ShortText, at: ShortText, by: ShortText, within: Type.Optional(ShortText) },
        Closed,
      ),
    ),
    /** Where spectra are looked at to choose the wavelength that is typed here: what is usual, nm. */
    spectra: Type.Optional(Type.Object({ usualNm: Type.Number({ exclusiveMinimum: 0 }) }, Closed)),
  },
  Closed,
);
export type PreparationStage = Static<typeof PreparationStageSchema>;

const LineModelSchema = Type.Union([Type.Literal("line"), Type.Literal("origin"), Type.Literal("quadratic")]);
const WeightingSchema = Type.Union([
  Type.Literal("none"),
  Type.Literal("1/s²"),
  Type.Literal("1/x"),
  Type.Literal("1/x²"),
]);

/** Standards read on a photometer, and the line through them. Each trial is one flask, with all its readings. */
export const CalibrationStageSchema = Type.Object(
  {
    kind: Type.Literal("calibration"),
    ...computed,
    /** The amount in each flask: a symbol, read or computed by these lines. */
    axis: Type.Object(
      {
        symbol: ShortText,
        name: ShortText,
        unit: ShortText,
        relations: Type.Array(RelationLine, { maxItems: 20 }),
      },
      Closed,
    ),
    /** Symbols by which the relations use the line; `cut` is where it meets the axis, as a positive amount. */
    line: Type.Object(
      {
        intercept: ShortText,
        slope: ShortText,
        cut: Type.Optional(ShortText),
        model: LineModelSchema,
        weighting: WeightingSchema,
      },
      Closed,
    ),
    /** What is usually taken for each flask, from dilute to strong, as it would be typed. */
    series: Type.Object(
      { symbol: ShortText, values: Type.Array(Decimal, { minItems: 2, maxItems: 60 }) },
      Closed,
    ),
    /** About what the strongest of them reads. */
    strongest: Type.Number({ exclusiveMinimum: 0 }),
    /** The color of the strongest standard. */
    color: Type.String({ pattern: "^#[0-9a-f]{6}$" }),
  },
  Closed,
);
export type CalibrationStage = Static<typeof CalibrationStageSchema>;

/** An unknown read off a line: each trial is one flask of it, with all its readings. */
export const UnknownStageSchema = Type.Object({ kind: Type.Literal("unknown"), ...computed }, Closed);
export type UnknownStage = Static<typeof UnknownStageSchema>;

/** Absorbance against time: each trial is one cuvette, with its course. */
export const RateStageSchema = Type.Object(
  {
    kind: Type.Literal("rate"),
    ...computed,
    /** What the result is about, in its unit. */
    presumed: Type.Number(),
    rate: Type.Object(
      {
        /** Symbol by which the relations use the rate constant of one course, 1/s. */
        symbol: ShortText,
        /** Symbol of what is in large excess, where its order is asked for. */
        excess: Type.Optional(ShortText),
        /** Symbols of the molar absorptivity and of the path, by which absorbance is turned into concentration. */
        absorptivity: Type.Optional(ShortText),
        path: Type.Optional(ShortText),
      },
      Closed,
    ),
  },
  Closed,
);
export type RateStage = Static<typeof RateStageSchema>;

const Constants = Type.Array(Type.Number({ minimum: -5, maximum: 20 }), { maxItems: 6 });
const CoupleSchema = Type.Object(
  {
    volts: Type.Number(),
    electrons: Type.Integer({ minimum: 1, maximum: 10 }),
    protons: Type.Integer({ minimum: 0, maximum: 20 }),
    reduced: Type.Union([Type.Literal(1), Type.Literal(2)]),
  },
  Closed,
);

/** What happens in the beaker, for a simulated meter and as theory laid over the points; see `core/curves/theory.ts`. */
const CurveTheorySchema = Type.Union([
  Type.Object({ is: Type.Literal("acid"), pKas: Constants }, Closed),
  Type.Object({ is: Type.Literal("base"), pKas: Constants }, Closed),
  Type.Object({ is: Type.Literal("carbonates") }, Closed),
  Type.Object({ is: Type.Literal("carbonated base") }, Closed),
  Type.Object({ is: Type.Literal("silver"), pKs: Type.Number(), referenceV: Type.Number() }, Closed),
  Type.Object(
    {
      is: Type.Literal("redox"),
      reductant: CoupleSchema,
      oxidant: CoupleSchema,
      pH: Type.Number(),
      referenceV: Type.Number(),
    },
    Closed,
  ),
  Type.Object(
    { is: Type.Literal("branches"), start: Type.Number(), end: Type.Number(), twice: Type.Number() },
    Closed,
  ),
]);

/** A whole titration curve: each trial is one beaker, with its points. */
export const CurveStageSchema = Type.Object(
  {
    kind: Type.Literal("curve"),
    ...computed,
    /** What the result is about, in its unit. */
    presumed: Type.Number(),
    curve: Type.Object(
      {
        /** Symbol of the concentration of the titrant, where it is read or taken over; and about what it is, mol/L. */
        titrant: Type.Object(
          { symbol: Type.Optional(ShortText), usual: Type.Number({ exclusiveMinimum: 0 }) },
          Closed,
        ),
        /** What is in the beaker at the start, mL. */
        flaskMl: Type.Number({ exclusiveMinimum: 0 }),
        /** Equivalence points, by the symbols with which relations use their volumes, in the order in which they come. */
        ends: Type.Array(
          Type.Object(
            {
              symbol: ShortText,
              name: ShortText,
              at: Type.Union([Type.Literal("first"), Type.Literal("second"), Type.Literal("last")]),
              /** The one way to have it, where another would find something else. */
              way: Type.Optional(Type.Union([Type.Literal("gran before"), Type.Literal("gran beyond")])),
              /** About what part of the last one it is. */
              part: Type.Number({ exclusiveMinimum: 0, maximum: 1 }),
            },
            Closed,
          ),
          { minItems: 1, maxItems: 3 },
        ),
        /** True where what is titrated is a strong acid or base, whatever jumps carbonate adds. */
        strong: Type.Optional(Type.Boolean()),
        /** Symbols of the constants that the curve tells, the strongest acid's first. */
        constants: Type.Optional(Type.Array(ShortText, { maxItems: 3 })),
        /** Symbol of the number of protons that the last end stands for. */
        protons: Type.Optional(ShortText),
        /** Where the curve has gone far enough, in what the meter shows; not asked where branches cross. */
        until: Type.Optional(Type.Number()),
        /** The largest addition, mL. */
        largestMl: Type.Number({ exclusiveMinimum: 0 }),
        theory: CurveTheorySchema,
      },
      Closed,
    ),
  },
  Closed,
);
export type CurveStage = Static<typeof CurveStageSchema>;

/** How much is taken up at each concentration, from stages before: nothing is read here. */
export const IsothermStageSchema = Type.Object(
  {
    kind: Type.Literal("isotherm"),
    ...computed,
    /** What the result is about, in its unit. */
    presumed: Type.Number(),
    isotherm: Type.Object(
      {
        /** Each bottle, by the symbols of its concentration at equilibrium and of what a gram took up there. */
        bottles: Type.Array(
          Type.Object({ name: ShortText, concentration: ShortText, uptake: ShortText }, Closed),
          { minItems: 3, maxItems: 20 },
        ),
        /** Symbols of K and 1/n, and of the capacity and b. */
        freundlich: Type.Tuple([ShortText, ShortText]),
        langmuir: Type.Tuple([ShortText, ShortText]),
        /** Symbol of a concentration, and of what the better law says is taken up there. */
        at: ShortText,
        predicted: ShortText,
      },
      Closed,
    ),
  },
  Closed,
);
export type IsothermStage = Static<typeof IsothermStageSchema>;

/** Stages that are read on a photometer. */
export type AssayStage = CalibrationStage | UnknownStage | RateStage;

export const StageDefinitionSchema = Type.Union([
  TitrationStageSchema,
  PreparationStageSchema,
  CalibrationStageSchema,
  UnknownStageSchema,
  RateStageSchema,
  CurveStageSchema,
  IsothermStageSchema,
]);
export type ComputedStage = Static<typeof StageDefinitionSchema>;

export const MethodSchema = Type.Object(
  {
    id: Key,
    version: Type.Integer({ minimum: 1, maximum: 1_000_000 }),
    family: Type.Union([
      Type.Literal("acid-base"),
      Type.Literal("redox"),
      Type.Literal("complexometric"),
      Type.Literal("precipitation"),
      Type.Literal("colorimetric"),
      /** What a bottle on the shelf was made by; not in the library. */
      Type.Literal("solutions"),
    ]),
    title: ShortText,
    purpose: ShortText,
    /** Where schools differ: the method that this is another way of, and what is different. */
    variant: Type.Optional(Type.Object({ of: ShortText, differs: ShortText }, Closed)),
    /** In the order in which they happen: what one makes, a later one may use up. */
    equations: Type.Array(Type.Object({ name: ShortText, equation: ShortText }, Closed), { maxItems: 40 }),
    /** Formula to name. */
    substances: Type.Record(Type.String({ maxLength: 120 }), ShortText, { maxProperties: 80 }),
    stages: Type.Array(StageDefinitionSchema, { minItems: 1, maxItems: 20 }),
    protection: Type.Array(ShortText, { maxItems: 60 }),
    hazards: Type.Array(ShortText, { maxItems: 60 }),
    waste: Type.Array(ShortText, { maxItems: 60 }),
    glassware: Type.Array(ShortText, { maxItems: 60 }),
  },
  Closed,
);
export type Method = Static<typeof MethodSchema>;
