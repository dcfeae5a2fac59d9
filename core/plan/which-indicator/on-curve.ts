import { nernstSlope, type PHRange } from "../../equilibria";
import type { CurveStage } from "../../method";
import { type Indicator, type Known, seenAt } from "./known";

/** An indicator with its range on the axis of a curve that is taken. */
export interface IndicatorOnAxis extends PHRange {
  readonly indicator: Indicator;
  /** Where its end is taken. */
  readonly seen: number;
}

const placed = (indicator: Indicator, from: number, to: number): IndicatorOnAxis => ({
  ...{ indicator, from, to },
  seen: (from + to) / 2 + (seenAt(indicator) * (to - from)) / 2,
});

const milliVolts = 1000;

/** Indicators that could show an end of a curve of this stage, by what its meter reads: pH, or mV against the reference electrode. */
export function indicatorsOnAxis(
  { curve: { theory }, inputs }: Pick<CurveStage, "curve" | "inputs">,
  { acid, redox }: Known["indicators"],
  celsius: number,
): IndicatorOnAxis[] {
  const reads = inputs.find((input) => input.is === "curve")?.reads;
  if (reads === "pH") return acid.map((indicator) => placed(indicator, indicator.from, indicator.to));
  if (reads !== "mV" || theory.is !== "redox") return [];
  return redox.flatMap((indicator) => {
    if (!("volts" in indicator)) return [];
    const half = nernstSlope(celsius) / indicator.electrons;
    const place = indicator.volts - theory.referenceV;
    return [placed(indicator, milliVolts * (place - half), milliVolts * (place + half))];
  });
}
