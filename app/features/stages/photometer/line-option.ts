import { bandsAt } from "~/core/calibration";
import { toSignificant } from "~/core/quantity";
import type { CalibrationEvaluation, UnknownEvaluation } from "~/core/stages";
import { colors } from "../../../theme/theme";
import type { ChartOption } from "../../../ui/chart/echarts";
import { axis, inks, marks, text, tooltip } from "../../../ui/chart/style";
import { type Phrase, unitText } from "~/core/text";
import type { Localized } from "../../../words/text";

/** People in the order in which they first read. */
export const readersOf = ({ levels }: CalibrationEvaluation): string[] => [
  ...new Set(levels.flatMap((l) => l.readings.map((r) => r.person))),
];

interface Off {
  readonly name: Phrase;
  readonly x: number;
  readonly y: number;
}

/** The unknown flasks that were read off the line. */
export const readOffPoints = (unknown: UnknownEvaluation | null): Off[] =>
  (unknown?.trials ?? []).flatMap(({ name, off, record }) =>
    off && !record.struck ? [{ name, x: off.x, y: off.y }] : [],
  );

const steps = 60;

/** A band between two curves, as the two series that a chart stacks. */
function band(
  name: string,
  xs: readonly number[],
  low: readonly number[],
  high: readonly number[],
  color: string,
) {
  const shared = {
    type: "line",
    symbol: "none",
    silent: true,
    lineStyle: { opacity: 0 },
    stackStrategy: "all",
  };
  return [
    { ...shared, name, stack: name, data: xs.map((x, i) => [x, low[i]]) },
    {
      ...shared,
      name,
      stack: name,
      areaStyle: { color, opacity: 1 },
      data: xs.map((x, i) => [x, (high[i] ?? 0) - (low[i] ?? 0)]),
    },
  ];
}

/** The calibration as a picture: points by person, line with bands, unknowns read off, residuals beneath. */
export function lineOption(
  stage: CalibrationEvaluation,
  unknown: UnknownEvaluation | null,
  say: Localized,
): ChartOption {
  const { levels, line, definition } = stage;
  const { name, unit } = definition.axis;
  const axisName = unit === "1" ? name : `${name}, ${say(unitText(unit))}`;
  const readers = readersOf(stage);
  const offs = readOffPoints(unknown);
  const xsRead = levels.flatMap((l) => (l.x === null ? [] : [l.x]));
  const cut =
    definition.line.cut !== undefined && line ? -line.fit.coefficients[0] / line.fit.coefficients[1] : 0;
  const least = Math.min(0, ...xsRead, ...offs.map((o) => o.x), cut);
  const most = Math.max(1e-9, ...xsRead, ...offs.map((o) => o.x));
  const room = 0.06 * (most - least);
  const [from, to] = [least < 0 ? least - room : 0, most + room];
  const xs = Array.from({ length: steps + 1 }, (_, i) => from + ((to - from) * i) / steps);
  const struck = levels.flatMap((l) =>
    l.x === null
      ? []
      : l.readings.filter((r) => r.struck || l.leftOut !== null).map((r) => [l.x, r.absorbance]),
  );
  const points = readers.map((person, i) => ({
    type: "scatter",
    name: person || say`reading`,
    z: 4,
    symbol: marks[i % marks.length],
    symbolSize: 10,
    itemStyle: { color: inks[i % inks.length], borderColor: "#ffffff", borderWidth: 1 },
    clip: false,
    symbolOffset: [(i - (readers.length - 1) / 2) * 6, 0],
    data: levels.flatMap((l) =>
      l.x === null || l.leftOut !== null
        ? []
        : l.readings.filter((r) => r.person === person && !r.struck).map((r) => [l.x, r.absorbance]),
    ),
  }));
  // Benches that read the same stand side by side.
  const aside = (person: string) => [(readers.indexOf(person) - (readers.length - 1) / 2) * 6, 0];
  const outliers =
    line?.points.filter((p) => p.off).map((p) => ({ value: [p.x, p.y], symbolOffset: aside(p.person) })) ??
    [];
  const fitted = line
    ? (() => {
        const bands = xs.map((x) => bandsAt(line.fit, x));
        const ys = xs.map((x) => line.fit.valueAt(x));
        const edge = (side: 1 | -1, which: "confidence" | "prediction") =>
          ys.map((y, i) => y + side * (bands[i]?.[which] ?? 0));
        return [
          ...band(
            say`95 % prediction interval`,
            xs,
            edge(-1, "prediction"),
            edge(1, "prediction"),
            "#edf3f2",
          ),
          ...band(say`95 % confidence band`, xs, edge(-1, "confidence"), edge(1, "confidence"), "#cfe2e0"),
          {
            type: "line",
            name: say`line`,
            symbol: "none",
            silent: true,
            z: 3,
            lineStyle: { color: colors.tealDeep, width: 2 },
            data: xs.map((x, i) => [x, ys[i]]),
          },
        ];
      })()
    : [];
  const drops = offs.map(({ name: flask, x, y }, i) => ({
    type: "line",
    name: say`unknown`,
    z: 5,
    symbol: "none",
    lineStyle: { color: colors.pinkDeep, width: 2, type: "dashed" },
    data: [
      [from, y],
      [x, y],
      [x, Math.min(0, y)],
    ],
    endLabel: {
      show: true,
      formatter: `${/^\d+$/.test(say(flask)) ? say`unknown ${flask}` : say(flask)}: ${toSignificant(x, 4)}`,
      ...text,
      color: colors.pinkDeep,
      fontWeight: 600,
      offset: [4, -12 - 17 * i],
    },
  }));
  const residuals = readers.map((person, i) => ({
    type: "scatter",
    name: person || say`reading`,
    xAxisIndex: 1,
    yAxisIndex: 1,
    symbol: marks[i % marks.length],
    symbolSize: 8,
    symbolOffset: [(i - (readers.length - 1) / 2) * 6, 0],
    itemStyle: { color: inks[i % inks.length] },
    data: line?.points.filter((p) => p.person === person).map((p) => [p.x, p.residual]) ?? [],
  }));
  const low = Math.min(0, ...levels.flatMap((l) => l.readings.map((r) => r.absorbance)));
  const spread = Math.max(0.002, ...(line?.points.map((p) => Math.abs(p.residual)) ?? []));
  return {
    animationDuration: 250,
    textStyle: text,
    tooltip: {
      ...tooltip,
      trigger: "item",
      formatter: ({ seriesName, value }: { seriesName: string; value: number[] }) =>
        `${seriesName}\n${toSignificant(value[0] ?? 0, 4)}${unit === "1" ? "" : ` ${say(unitText(unit))}`}: ${(value[1] ?? 0).toFixed(3)}`,
    },
    legend: {
      show: readers.length > 1,
      type: "scroll",
      top: 0,
      left: 40,
      data: readers.map((r) => r || say`reading`),
      textStyle: { ...text, color: colors.inkSoft },
      itemHeight: 11,
      itemWidth: 11,
    },
    grid: [
      { left: 70, right: 24, top: readers.length > 1 ? 36 : 14, height: "58%", outerBoundsMode: "none" },
      { left: 70, right: 24, bottom: 46, height: "17%", outerBoundsMode: "none" },
    ],
    xAxis: [
      axis("", { gridIndex: 0, min: from, max: to, axisLabel: { show: false }, splitLine: { show: false } }),
      axis(axisName, {
        gridIndex: 1,
        min: from,
        max: to,
        nameGap: 26,
        splitLine: { show: false },
        // Where the line is carried back to its axis, the end of the scale is no round number.
        axisLabel: { showMinLabel: from === 0, showMaxLabel: false },
      }),
    ],
    yAxis: [
      axis(say`Absorbance`, { gridIndex: 0, nameGap: 50, ...(low > -0.02 ? { min: 0 } : {}) }),
      axis(say`residual`, {
        gridIndex: 1,
        nameGap: 50,
        min: -1.15 * spread,
        max: 1.15 * spread,
        interval: 1.15 * spread,
        axisLabel: {
          formatter: (v: number) => (v === 0 ? "0" : v.toFixed(3)),
          fontSize: 11,
          color: colors.inkSoft,
        },
      }),
    ],
    series: [
      ...fitted,
      ...points,
      {
        type: "scatter",
        name: say`off the line`,
        symbol: "circle",
        symbolSize: 22,
        silent: true,
        z: 5,
        itemStyle: { color: "transparent", borderColor: colors.brick, borderWidth: 2 },
        data: outliers,
      },
      {
        type: "scatter",
        name: say`left out`,
        symbol: "path://M2 2 L8 8 M8 2 L2 8",
        symbolSize: 11,
        itemStyle: { color: "transparent", borderColor: colors.inkSoft, borderWidth: 2 },
        data: struck,
      },
      ...drops,
      ...residuals,
    ],
  };
}
