import { type ControlChart, controlRuleWords } from "~/core/judgement";
import { toDecimals } from "~/core/quantity";
import { msg, type Phrase, unitText } from "~/core/text";
import type { ResultName, TimedResult } from "~/protocol/history";
import { colors, fonts } from "../../theme/theme";
import type { ChartOption } from "../../ui/chart/echarts";
import { text, tooltip } from "../../ui/chart/style";

/** Decimals with which values stand beside a standard deviation: two digits of it. */
export const decimalsFor = (s: number): number => Math.max(0, Math.min(12, 1 - Math.floor(Math.log10(s))));

/** Lines at so many s from the mean. */
const limits = [
  [0, colors.ink, "solid"],
  ...[1, -1].map((at) => [at, colors.lineStrong, "dotted"] as const),
  ...[2, -2].map((at) => [at, colors.amber, "dashed"] as const),
  ...[3, -3].map((at) => [at, colors.brick, "solid"] as const),
] as const;

/** A value; one at which a rule fires is larger, and filled. */
const bead = ({ value, fired }: ControlChart["points"][number]) => {
  const calm = fired.length === 0;
  const borderColor = calm ? colors.teal : colors.brick;
  return {
    value,
    itemStyle: { color: calm ? colors.sheet : colors.brick, borderColor, borderWidth: 2 },
    symbolSize: calm ? 10 : 13,
  };
};

/** The axis of the values, as far as what is shown reaches. */
const valueAxis = (name: string, shown: readonly number[], s: number) => ({
  type: "value",
  scale: true,
  min: Math.min(...shown),
  max: Math.max(...shown),
  name,
  nameLocation: "middle",
  nameGap: 62,
  nameTextStyle: { ...text, fontWeight: 600 },
  axisLabel: {
    ...text,
    color: colors.inkSoft,
    fontFamily: fonts.reading,
    formatter: (value: number) => toDecimals(value, decimalsFor(s)),
    showMinLabel: false,
    showMaxLabel: false,
  },
  splitLine: { show: false },
});

/** Values as beads on a line, the mean, and limits at 1, 2 and 3 s; a bead at which a rule fires is filled brick. */
export function controlOption(
  { mean, s, points }: ControlChart,
  values: readonly TimedResult[],
  { name, unit }: ResultName,
  say: (phrase: Phrase) => string,
): ChartOption {
  const tooltipText = (at: number) => {
    const [run, point] = [values[at], points[at]];
    if (!run || !point) return "";
    const rules = point.fired.map((rule) => say(controlRuleWords[rule]));
    return [run.title, `${toDecimals(run.value, decimalsFor(s))} ${say(unitText(unit))}`, ...rules].join(
      "\n",
    );
  };
  const all = [...points.map(({ value }) => value), mean + 3.2 * s, mean - 3.2 * s];
  return {
    animation: false,
    tooltip: {
      ...tooltip,
      trigger: "item",
      formatter: ({ dataIndex: at }: { dataIndex: number }) => tooltipText(at),
    },
    grid: { left: 78, right: 56, top: 16, bottom: 40 },
    xAxis: {
      type: "category",
      data: values.map(({ at }, i) => (at ? new Date(at).toISOString().slice(0, 10) : String(i + 1))),
      axisLabel: { ...text, color: colors.inkSoft },
      axisTick: { alignWithLabel: true },
    },
    yAxis: valueAxis(`${name}, ${say(unitText(unit))}`, all, s),
    series: [
      {
        ...{ type: "line", showAllSymbol: true, lineStyle: { color: colors.teal, width: 1 } },
        data: points.map(bead),
        symbol: "circle",
        markLine: {
          // Without this lines stand where their values are rounded to two decimals.
          ...{ symbol: "none", silent: true, precision: 15 },
          data: limits.map(([at, color, type]) => ({
            yAxis: mean + at * s,
            lineStyle: { color, type, width: at === 0 || Math.abs(at) === 3 ? 1.5 : 1 },
            label: {
              formatter: at === 0 ? say(msg`mean`) : `${at > 0 ? "+" : "−"}${Math.abs(at)} s`,
              ...{ color: colors.inkSoft, position: "end", fontSize: 12 },
            },
          })),
        },
      },
    ],
  };
}
