import { type CurvePoint, type CurveReading, firstDerivative, type ReadFit } from "~/core/curves";
import { colors } from "../../theme/theme";
import type { ChartOption } from "../../ui/chart/echarts";
import { axis, inks, text, tooltip } from "../../ui/chart/style";
import type { Localized } from "../../words/text";

/** The points with the curve that was fitted, and beneath them the first derivative. */
export function readingOption(
  points: readonly CurvePoint[],
  { ends }: CurveReading,
  best: ReadFit | undefined,
  say: Localized,
): ChartOption {
  const most = Math.ceil(points.at(-1)?.volume ?? 1);
  const ended = ends.map(({ jump }) => ({ xAxis: jump.volume }));
  const dashed = { silent: true, symbol: "none", label: { show: false }, data: ended };
  const line = { color: colors.pinkDeep, type: "dashed", width: 1.5 };
  return {
    animation: false,
    textStyle: text,
    tooltip: { ...tooltip, trigger: "axis", valueFormatter: (value: number) => value.toFixed(3) },
    grid: [
      { left: 56, right: 16, top: 12, height: 210, outerBoundsMode: "none" },
      { left: 56, right: 16, top: 250, height: 90, outerBoundsMode: "none" },
    ],
    xAxis: [
      { ...axis("", { min: 0, max: most }), gridIndex: 0, axisLabel: { show: false } },
      { ...axis(say`Titrant added, mL`, { nameGap: 26, min: 0, max: most }), gridIndex: 1 },
    ],
    yAxis: [
      { ...axis("pH", { nameGap: 34, scale: true }), gridIndex: 0 },
      { ...axis(say`per mL`, { nameGap: 34, splitNumber: 2 }), gridIndex: 1 },
    ],
    series: [
      {
        type: "scatter",
        name: say`read`,
        symbolSize: 6,
        itemStyle: { color: inks[0] },
        data: points.map(({ volume, value }) => [volume, value]),
        markLine: { ...dashed, lineStyle: line },
      },
      ...(best
        ? [
            {
              type: "line",
              name: say`fitted`,
              showSymbol: false,
              lineStyle: { color: colors.pinkDeep, width: 1.5 },
              itemStyle: { color: colors.pinkDeep },
              data: points.map(({ volume, value }, i) => [volume, value - (best.fit.residuals[i] ?? 0)]),
            },
          ]
        : []),
      {
        type: "line",
        name: say`change of pH per mL`,
        xAxisIndex: 1,
        yAxisIndex: 1,
        symbolSize: 4,
        lineStyle: { color: inks[2], width: 1.5 },
        itemStyle: { color: inks[2] },
        data: firstDerivative(points).map(({ volume, slope }) => [volume, slope]),
        markLine: { ...dashed, lineStyle: line },
      },
    ],
  };
}
