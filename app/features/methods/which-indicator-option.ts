import { prettyFormula } from "~/core/chemistry";
import { curvePoints, type RatedIndicator, type Scale, type EndTheory } from "~/core/plan";
import { colors } from "../../theme/theme";
import type { ChartOption } from "../../ui/chart/echarts";
import { axis, inks, text, tooltip } from "../../ui/chart/style";
import type { Localized } from "../../words/text";

/** The name of the axis, and its ends where they are always the same. */
function axisOf(scale: Scale, say: Localized): { readonly name: string; readonly range: object } {
  if (scale.is === "pH") return { name: "pH", range: { min: 0, max: 14, interval: 2 } };
  if (scale.is === "pM") return { name: `p${scale.metal}`, range: { min: 0 } };
  return { name: say`potential, V`, range: { scale: true } };
}

/** The curve of a planned titration with its equivalence point, and the range of one indicator as a band on it. */
export function indicatorOption(
  curve: EndTheory,
  { indicator, from, to }: RatedIndicator,
  say: Localized,
): ChartOption {
  const points = curvePoints(curve);
  const end = points.at(-1)?.[0] ?? 1;
  const { name, range } = axisOf(curve.scale, say);
  return {
    animation: false,
    textStyle: text,
    tooltip: {
      ...tooltip,
      trigger: "axis",
      valueFormatter: (value: number) => value.toFixed(2),
      axisPointer: { label: { show: false } },
    },
    grid: { left: 52, right: 16, top: 14, bottom: 46, outerBoundsMode: "none" },
    xAxis: axis(say`${prettyFormula(curve.titrant)} added, mL`, { nameGap: 26, min: 0, max: Math.ceil(end) }),
    yAxis: axis(name, { nameGap: 34, ...range }),
    series: [
      {
        type: "line",
        name,
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
                yAxis: to,
                itemStyle: { color: indicator.high.color, opacity: 0.28 },
              },
              { yAxis: from },
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
