import { dropMl } from "../measure";
import type { AgreementRule, HouseRules } from "./schema";

// What a screen computes with stands apart from the schema, which only forms and files need.
export type { AgreementRule, HouseRules, Words } from "./schema";

/** What a house that has said nothing of the photometer allows. Common practice, no source. */
export const usualPhotometer = { readingsWithin: "0.010", flasksPercent: "5" } as const;

/** How far readings of one flask, and results of flasks, may lie apart. */
export const photometerRules = ({ photometer }: HouseRules): NonNullable<HouseRules["photometer"]> =>
  photometer ?? usualPhotometer;

/** What a house that has not counted the drops of its burette takes. Common practice, no source. */
export const usualDropsPerMl = String(1 / dropMl);

/** Drops of the burette in one mL, as the house says it. */
export const dropsPerMl = ({ burette }: Pick<HouseRules, "burette">): string =>
  burette.dropsPerMl ?? usualDropsPerMl;

/** Steps in which a burette may be read, mL. */
export const buretteSteps: readonly HouseRules["burette"]["resolutionMl"][] = [
  "0.001",
  "0.01",
  "0.02",
  "0.05",
  "0.1",
];

/** Replicates that the rule asks for. */
export const replicatesNeeded = (rule: AgreementRule): number =>
  rule.rule === "two-else-third" ? 2 : rule.replicates;

/** Decimals of a burette reading: 2 for a resolution of 0.05 mL. */
export const buretteDecimals = ({ burette }: HouseRules) => burette.resolutionMl.split(".")[1]?.length ?? 0;

/** A volume as one reads it off this burette: the nearest step, with its decimals. */
export function buretteText(ml: number, rules: HouseRules): string {
  const step = Number(rules.burette.resolutionMl);
  return (Math.round(ml / step) * step).toFixed(buretteDecimals(rules));
}

/** Where a burette stands after so many drops more (or fewer), as one reads it; never beyond its scale. */
export const buretteAfterDrops = (fromMl: number, drops: number, rules: HouseRules): string =>
  buretteText(
    Math.min(rules.burette.capacityMl, Math.max(0, fromMl + drops / Number(dropsPerMl(rules)))),
    rules,
  );

/** Decimals of a mass on this balance: 4 for a readability of 0.0001 g. */
export const massDecimals = (rules: HouseRules) => rules.balance.readabilityG.split(".")[1]?.length ?? 0;
