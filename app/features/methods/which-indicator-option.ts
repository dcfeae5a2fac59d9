import { prettyFormula } from "~/core/chemistry";
import { curvePoints, type PlannedCurve } from "~/core/plan";
import type { KnownIndicator } from "~/catalog/constants/indicators";
import { colors } from "../../theme/theme";
import type { ChartOption } from "../../ui/chart/echarts";
import { axis, inks, text, tooltip } from "../../ui/chart/style";
import type { Localized } from "../../words/text";

/** The curve of a planned titration with its equivalence point, and the pH range of one indicator as a band on it. */
export function indicatorOption(curve: PlannedCurve, indicator: KnownIndicator, say: Localized): ChartOption {
  const points = curvePoints(curve);
  const end = points.at(-1)?.[0] ?? 1;
  return {
    animation: false,
    textStyle: text,
    tooltip: {
      ...tooltip,
      trigger: "axis",
      valueFormatter: (pH: number) => `pH ${pH.toFixed(2)}`,
      axisPointer: { label: { show: false } },
    },
    grid: { left: 52, right: 16, top: 14, bottom: 46, outerBoundsMode: "none" },
    xAxis: axis(say`${prettyFormula(curve.titrant)} added, mL`, { nameGap: 26, min: 0, max: Math.ceil(end) }),
    yAxis: axis("pH", { nameGap: 30, min: 0, max: 14, interval: 2 }),
    series: [
      {
        type: "line",
        name: "pH",
        showSymbol: false,
        lineStyle: { color: inks[0], width: 2.5 },
        itemStyle: { color: inks[0] },
        data: points,
        markArea: {
          silent: true,
          label: { ...text, show: true, position: "insideTopLeft", color: colors.ink },
          data: [
            [
              {
                name: say(indicator.name),
                yAxis: indicator.to,
                itemStyle: { color: indicator.base.color, opacity: 0.28 },
              },
              { yAxis: indicator.from },
            ],
          ],
        },
        markLine: {
          silent: true,
          symbol: "none",
          lineStyle: { color: colors.pinkDeep, type: "dashed", width: 1.5 },
          label: {
            ...text,
            color: colors.pinkDeep,
            formatter: say`equivalence`,
            position: "insideEndBottom",
          },
          data: [{ xAxis: curve.equivalenceMl }],
        },
      },
    ],
  };
}
