import type { ComputedStage } from "./schema";

/** Unit of one over a quantity: L/mg for mg/L, 1/mL for mL. */
export function inverseUnit(unit: string): string {
  if (unit === "1" || (unit.startsWith("%") && unit !== "% w/v")) return "1";
  if (unit === "% w/v") return "L/g";
  const [over = "", under] = unit.split("/");
  return under === undefined ? `1/${over}` : `${under}/${over}`;
}

/** Unit of a symbol that a fit yields; undefined for any other. */
export function fittedUnit(stage: ComputedStage, symbol: string): string | undefined {
  if (stage.kind === "rate") return symbol === stage.rate.symbol ? "1/s" : undefined;
  if (stage.kind !== "calibration") return undefined;
  const { intercept, slope, cut } = stage.line;
  if (symbol === intercept) return "1";
  if (symbol === slope) return inverseUnit(stage.axis.unit);
  return symbol === cut ? stage.axis.unit : undefined;
}
