import { type Order, rateLaw, transformed } from "~/core/kinetics";
import type { CourseEvaluation } from "~/core/stages";
import { colors } from "../../../theme/theme";
import type { ChartOption } from "../../../ui/chart/echarts";
import { axis, inks, text, tooltip } from "../../../ui/chart/style";
import type { Localized } from "../../../words/text";

/** So many points are drawn quickly in one go. */
const large = (n: number) => (n > 2000 ? { large: true, largeThreshold: 2000 } : {});

type Point = readonly [x: number, y: number];

/** More than this many points of a course are not drawn one by one. */
const mostDrawn = 4000;

/** Of more points than can be told apart the lowest and the highest of neighbors, so that what lies off is seen. */
function drawn(points: readonly Point[]): readonly Point[] {
  const each = Math.ceil((2 * points.length) / mostDrawn);
  if (each <= 2) return points;
  const kept: Point[] = [];
  for (let i = 0; i < points.length; i += each) {
    const block = points.slice(i, i + each);
    const low = block.reduce((a, b) => (b[1] < a[1] ? b : a));
    const high = block.reduce((a, b) => (b[1] > a[1] ? b : a));
    kept.push(...(low === high ? [low] : low[0] < high[0] ? [low, high] : [high, low]));
  }
  return kept;
}

/** Absorbance against time with the fitted law; what lies outside the window is pale. */
export function courseOption(
  course: CourseEvaluation,
  order: Order,
  say: Localized,
  live: readonly Point[] = [],
): ChartOption {
  const { trace, window, comparison } = course;
  const points = trace ? drawn(trace.x.map((t, i) => [t, trace.absorbance[i] ?? 0] as const)) : live;
  const inside = ([t]: Point) =>
    (window[0] === null || t >= window[0]) && (window[1] === null || t <= window[1]);
  const fit = comparison?.fits[order];
  const used = points.filter(inside);
  const [from, to] = [used[0]?.[0] ?? 0, used.at(-1)?.[0] ?? 1];
  const law = fit
    ? Array.from({ length: 121 }, (_, i) => {
        const t = from + ((to - from) * i) / 120;
        return [t, rateLaw(order, fit.initial, fit.k, t - fit.origin, fit.end)];
      })
    : [];
  return {
    animation: false,
    textStyle: text,
    tooltip: { ...tooltip, trigger: "axis", valueFormatter: (v: number) => v.toFixed(3) },
    grid: { left: 60, right: 20, top: 14, bottom: 46, outerBoundsMode: "none" },
    xAxis: axis(say`Time, s`, { nameGap: 26, min: points[0]?.[0] ?? 0, max: points.at(-1)?.[0] ?? 200 }),
    yAxis: axis(say`Absorbance`, { nameGap: 42, scale: true }),
    dataZoom: [{ type: "inside", zoomOnMouseWheel: "ctrl" }],
    series: [
      {
        type: "scatter",
        name: say`read`,
        symbolSize: points.length > 1000 ? 2 : 6,
        ...large(points.length),
        itemStyle: { color: inks[0], opacity: 0.45 },
        data: used,
      },
      {
        type: "scatter",
        name: say`outside the window`,
        symbolSize: points.length > 1000 ? 2 : 5,
        ...large(points.length),
        itemStyle: { color: colors.line, borderColor: colors.lineStrong, borderWidth: 0.5 },
        data: points.filter((p) => !inside(p)),
      },
      {
        type: "line",
        name: say`fitted`,
        showSymbol: false,
        lineStyle: { color: colors.pinkDeep, width: 1.5 },
        itemStyle: { color: colors.pinkDeep },
        data: law,
      },
    ],
  };
}

const names = ["A", "ln A", "1/A"] as const;

/** The plot that a class draws for an order, straight where it is right; beneath, what the law itself leaves over of A. */
export function transformedOption(
  { comparison }: CourseEvaluation,
  order: Order,
  say: Localized,
): ChartOption {
  const fit = comparison?.fits[order];
  const { seconds = [], absorbance = [] } = comparison?.fitted ?? {};
  const points = seconds.flatMap((t, i): Point[] => {
    const y = transformed(order, absorbance[i] ?? 0, fit?.end);
    return y === null ? [] : [[t, y]];
  });
  const ends = [seconds[0] ?? 0, seconds.at(-1) ?? 1];
  const left = fit?.residuals.map((residual, i): Point => [seconds[i] ?? 0, residual]) ?? [];
  const spread = Math.max(1e-3, ...left.map(([, r]) => Math.abs(r)));
  const grid = { left: 68, right: 10, outerBoundsMode: "none" };
  const shared = { min: ends[0], max: ends[1], splitNumber: 3 };
  return {
    animation: false,
    textStyle: text,
    grid: [
      { ...grid, top: 10, bottom: 100 },
      { ...grid, height: 44, bottom: 36 },
    ],
    xAxis: [
      axis("", { ...shared, axisLabel: { show: false } }),
      axis("t, s", { ...shared, gridIndex: 1, nameGap: 20, splitLine: { show: false } }),
    ],
    yAxis: [
      axis(names[order], { nameGap: 50, scale: true, splitNumber: 3 }),
      axis(say`residual`, {
        gridIndex: 1,
        nameGap: 50,
        min: -spread,
        max: spread,
        interval: spread,
        axisLabel: { fontSize: 10, formatter: (v: number) => (v === 0 ? "0" : v.toFixed(3)) },
      }),
    ],
    series: [
      {
        type: "scatter",
        symbolSize: 3,
        ...large(points.length),
        itemStyle: { color: inks[0] },
        data: points,
      },
      {
        type: "line",
        showSymbol: false,
        lineStyle: { color: colors.pinkDeep, width: 2 },
        data: fit ? ends.map((t) => [t, fit.line.intercept + fit.line.slope * t]) : [],
      },
      {
        type: "scatter",
        xAxisIndex: 1,
        yAxisIndex: 1,
        symbolSize: 2.5,
        ...large(left.length),
        itemStyle: { color: inks[0] },
        data: left,
      },
    ],
  };
}
