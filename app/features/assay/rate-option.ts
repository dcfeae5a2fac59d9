import { type Order, rateLaw, transformed } from "~/core/kinetics";
import type { CourseEvaluation } from "~/core/run";
import { colors } from "../../theme/theme";
import type { ChartOption } from "../../ui/chart/echarts";
import { axis, inks, text, tooltip } from "../../ui/chart/style";

/** What is drawn of a course on its own axis: so many points that the eye sees them all. */
const large = (n: number) => (n > 2000 ? { large: true, largeThreshold: 2000, sampling: "lttb" } : {});

/** Absorbance against time with the fitted law; what lies outside the window is pale. */
export function courseOption(
  course: CourseEvaluation,
  order: Order,
  live: readonly (readonly [number, number])[] = [],
): ChartOption {
  const { trace, window, comparison } = course;
  const points = trace ? trace.x.map((t, i) => [t, trace.absorbance[i] ?? 0] as const) : live;
  const inside = ([t]: readonly [number, number]) =>
    (window[0] === null || t >= window[0]) && (window[1] === null || t <= window[1]);
  const fit = comparison?.fits[order];
  const used = points.filter(inside);
  const [from, to] = [used[0]?.[0] ?? 0, used.at(-1)?.[0] ?? 1];
  const law = fit
    ? Array.from({ length: 121 }, (_, i) => {
        const t = from + ((to - from) * i) / 120;
        return [t, rateLaw(order, fit.initial, fit.k, t)];
      })
    : [];
  return {
    animation: false,
    textStyle: text,
    tooltip: { ...tooltip, trigger: "axis", valueFormatter: (v: number) => v.toFixed(3) },
    grid: { left: 60, right: 20, top: 14, bottom: 46, outerBoundsMode: "none" },
    xAxis: axis("Time, s", { nameGap: 26, min: points[0]?.[0] ?? 0, max: points.at(-1)?.[0] ?? 200 }),
    yAxis: axis("Absorbance", { nameGap: 42, scale: true }),
    dataZoom: [{ type: "inside", zoomOnMouseWheel: "ctrl" }],
    series: [
      {
        type: "scatter",
        name: "read",
        symbolSize: points.length > 1000 ? 2 : 5,
        ...large(points.length),
        itemStyle: { color: inks[0] },
        data: used,
      },
      {
        type: "scatter",
        name: "outside the window",
        symbolSize: points.length > 1000 ? 2 : 5,
        ...large(points.length),
        itemStyle: { color: colors.line, borderColor: colors.lineStrong, borderWidth: 0.5 },
        data: points.filter((p) => !inside(p)),
      },
      {
        type: "line",
        name: "fitted",
        showSymbol: false,
        lineStyle: { color: colors.pinkDeep, width: 2 },
        itemStyle: { color: colors.pinkDeep },
        data: law,
      },
    ],
  };
}

const names = ["A", "ln A", "1/A"] as const;

/** The plot that a class draws for an order: straight where the order is right. */
export function transformedOption(
  { trace, window, comparison }: CourseEvaluation,
  order: Order,
): ChartOption {
  const fit = comparison?.fits[order];
  const points = (trace?.x ?? []).flatMap((t, i) => {
    if ((window[0] !== null && t < window[0]) || (window[1] !== null && t > window[1])) return [];
    const y = transformed(order, trace?.absorbance[i] ?? 0);
    return y === null ? [] : [[t, y] as const];
  });
  const ends = [points[0]?.[0] ?? 0, points.at(-1)?.[0] ?? 1];
  return {
    animation: false,
    textStyle: text,
    grid: { left: 48, right: 10, top: 10, bottom: 36, outerBoundsMode: "none" },
    xAxis: axis("t, s", { nameGap: 20, min: ends[0], max: ends[1], splitNumber: 3 }),
    yAxis: axis(names[order], { nameGap: 34, scale: true, splitNumber: 3 }),
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
    ],
  };
}
