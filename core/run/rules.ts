import { type Static, Type } from "@sinclair/typebox";

const Decimal = Type.String({ pattern: "^\\d+(\\.\\d+)?$" });
const OptionalDecimal = Type.String({ pattern: "^(\\d+(\\.\\d+)?)?$" });
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
        /** Decimals of a reading in mL. */
        decimals: Type.Integer({ minimum: 1, maximum: 3 }),
        /** A reading lies within ± this of the truth, mL. */
        readingHalfWidthMl: Decimal,
      },
      Closed,
    ),
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
        halfRangeC: Decimal,
        shape: Type.Union([Type.Literal("rectangular"), Type.Literal("normal95")]),
      },
      Closed,
    ),
    /** Relative repeatability of one trial known from earlier work, in percent; empty where it is not known. */
    priorRepeatabilityPercent: OptionalDecimal,
    plusMinus: Type.Union([Type.Literal("k2"), Type.Literal("u"), Type.Literal("i95")]),
    /** How many digits a result is shown with: by its ±, or by the rules for significant figures. */
    digits: Type.Union([Type.Literal("uncertainty"), Type.Literal("significant-figures")]),
    /** A percent error with its sign, or without. */
    percentError: Type.Union([Type.Literal("signed"), Type.Literal("absolute")]),
  },
  Closed,
);
export type HouseRules = Static<typeof HouseRulesSchema>;

/** Replicates that the rule asks for. */
export const replicatesNeeded = (rule: AgreementRule): number =>
  rule.rule === "two-else-third" ? 2 : rule.replicates;

/** Decimals of a mass on this balance: 4 for a readability of 0.0001 g. */
export const massDecimals = (rules: HouseRules) => rules.balance.readabilityG.split(".")[1]?.length ?? 0;
