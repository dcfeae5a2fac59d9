import { type Static, Type } from "@sinclair/typebox";

const Decimal = Type.String({ pattern: "^\\d+(\\.\\d+)?$", maxLength: 20 });
const OptionalDecimal = Type.String({ pattern: "^(\\d+(\\.\\d+)?)?$", maxLength: 20 });
const ToleranceClassSchema = Type.Union([Type.Literal("A"), Type.Literal("B")]);
const Closed = { additionalProperties: false } as const;

const Replicates = Type.Integer({ minimum: 1, maximum: 12 });

/** When replicates agree. Widths as typed: mL, or parts per thousand of the mean. */
export const AgreementRuleSchema = Type.Union([
  /** So many within this of each other. */
  Type.Object({ rule: Type.Literal("n-within"), replicates: Replicates, withinMl: Decimal }, Closed),
  /** So many, none further than this from their mean. */
  Type.Object({ rule: Type.Literal("within-of-mean"), replicates: Replicates, withinMl: Decimal }, Closed),
  /** So many that read the same. */
  Type.Object({ rule: Type.Literal("identical"), replicates: Replicates }, Closed),
  /** So many whose range is at most this part of their mean. */
  Type.Object(
    { rule: Type.Literal("relative-spread"), replicates: Replicates, partsPerThousand: Decimal },
    Closed,
  ),
  /** The first two, if they lie within this; else a third, and the two that do. */
  Type.Object({ rule: Type.Literal("two-else-third"), withinMl: Decimal }, Closed),
]);
export type AgreementRule = Static<typeof AgreementRuleSchema>;

/** How the lab says and writes what it measures. */
export const WordsSchema = Type.Object(
  {
    titer: Type.Union([Type.Literal("titer"), Type.Literal("titre")]),
    /** With cm³ goes dm³: mol/dm³ for mol/L. */
    volume: Type.Union([Type.Literal("mL"), Type.Literal("cm³")]),
    /** Whether the normality of a titrant is given beside its concentration. */
    normality: Type.Boolean(),
  },
  Closed,
);
export type Words = Static<typeof WordsSchema>;

/** The conventions of a lab. A run keeps the rules with which it began. Decimals are kept as typed. */
export const HouseRulesSchema = Type.Object(
  {
    agreement: AgreementRuleSchema,
    /** What the rule is held against: titers (per amount, where flasks are unlike), or results. */
    agreementOf: Type.Union([Type.Literal("titers"), Type.Literal("results")]),
    /** A test for outliers, which only ever advises. */
    outliers: Type.Union([
      Type.Literal("none"),
      Type.Literal("dixon-90"),
      Type.Literal("dixon-95"),
      Type.Literal("dixon-99"),
      Type.Literal("grubbs"),
    ]),
    burette: Type.Object(
      {
        capacityMl: Type.Union([Type.Literal(10), Type.Literal(25), Type.Literal(50), Type.Literal(100)]),
        /** The step to which a reading is taken, mL: a mark, half of one, or estimated between marks. */
        resolutionMl: Type.Union([
          Type.Literal("0.001"),
          Type.Literal("0.01"),
          Type.Literal("0.02"),
          Type.Literal("0.05"),
          Type.Literal("0.1"),
        ]),
        /** A reading lies within ± this of the truth, mL. */
        readingHalfWidthMl: Decimal,
        /** Whether each titration starts at the zero mark, or wherever the meniscus stands. */
        start: Type.Union([Type.Literal("anywhere"), Type.Literal("zero")]),
        /** Where the meniscus is read: by the color of the liquid, as the method says, or always at one place. */
        meniscus: Type.Union([Type.Literal("by-color"), Type.Literal("bottom"), Type.Literal("top")]),
        /** Whether a reading is typed a second time without sight of the first, and how far the two may differ, mL. */
        readTwice: Type.Boolean(),
        readTwiceWithinMl: Decimal,
        /** Drops of its tip in one mL; the usual ones where nobody counted. */
        dropsPerMl: Type.Optional(Decimal),
      },
      Closed,
    ),
    /** What is averaged: the results of the trials, or their titers, from whose mean one result follows. */
    average: Type.Union([Type.Literal("results"), Type.Literal("titers")]),
    glassware: Type.Object(
      {
        toleranceClass: ToleranceClassSchema,
        toleranceShape: Type.Union([Type.Literal("triangular"), Type.Literal("rectangular")]),
      },
      Closed,
    ),
    balance: Type.Object(
      {
        readabilityG: Decimal,
        linearityG: Decimal,
        /** Whether masses are corrected for the buoyancy of air, where the method tells the density. */
        correctBuoyancy: Type.Boolean(),
      },
      Closed,
    ),
    temperature: Type.Object(
      {
        /** What the room is kept at, °C. Glass is right at 20: what differs from that is counted in the ±. */
        labC: Decimal,
        halfRangeC: Decimal,
        shape: Type.Union([Type.Literal("rectangular"), Type.Literal("normal95")]),
      },
      Closed,
    ),
    /** Relative repeatability of one trial known from earlier work, in percent; empty where it is not known. */
    priorRepeatabilityPercent: OptionalDecimal,
    plusMinus: Type.Union([Type.Literal("k2"), Type.Literal("u"), Type.Literal("i95")]),
    /** How many digits a result is shown with: to the uncertainty, or by the rules for significant figures. */
    digits: Type.Union([Type.Literal("uncertainty"), Type.Literal("significant-figures")]),
    /** A percent error with its sign, or without. */
    percentError: Type.Union([Type.Literal("signed"), Type.Literal("absolute")]),
    words: WordsSchema,
    /** On the photometer; the usual figures where a house has not said them. */
    photometer: Type.Optional(
      Type.Object(
        {
          /** The window within which the readings of one flask agree, absorbance. */
          readingsWithin: Decimal,
          /** The window within which the results of flasks agree, percent of their mean. */
          flasksPercent: Decimal,
        },
        Closed,
      ),
    ),
  },
  Closed,
);
export type HouseRules = Static<typeof HouseRulesSchema>;
