import { type Static, Type } from "@sinclair/typebox";

const Decimal = Type.String({ pattern: "^\\d+(\\.\\d+)?$" });
const OptionalDecimal = Type.String({ pattern: "^(\\d+(\\.\\d+)?)?$" });
const ToleranceClassSchema = Type.Union([Type.Literal("A"), Type.Literal("B")]);
const Closed = { additionalProperties: false } as const;

/** The conventions of a lab. A run keeps the rules with which it began. Decimals are kept as typed. */
export const HouseRulesSchema = Type.Object(
  {
    agreement: Type.Object(
      {
        rule: Type.Literal("n-within"),
        /** Replicates that must agree. */
        replicates: Type.Integer({ minimum: 1, maximum: 12 }),
        /** Width in mL of the window they must lie in. */
        withinMl: Decimal,
      },
      Closed,
    ),
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
    balance: Type.Object({ readabilityG: Decimal, linearityG: Decimal }, Closed),
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
  },
  Closed,
);
export type HouseRules = Static<typeof HouseRulesSchema>;

/** Decimals of a mass on this balance: 4 for a readability of 0.0001 g. */
export const massDecimals = (rules: HouseRules) => rules.balance.readabilityG.split(".")[1]?.length ?? 0;
