import { visibleParts } from "~/core/spectra";
import type { TraceRecord } from "~/core/record";
import { colors } from "../../../theme/theme";
import type { ChartOption } from "../../../ui/chart/echarts";
import { axis, inks, text, tooltip } from "../../../ui/chart/style";
import type { Localized } from "../../../words/text";

/** Light of each part of the visible band, about as it looks. */
const light = [
  "#6a3d9a",
  "#2f5fd0",
  "#2a9fb0",
  "#2fae8a",
  "#3faa3f",
  "#a8c22e",
  "#e0c22a",
  "#e58a2a",
  "#c23a2e",
];

export interface ShownSpectrum {
  readonly name: string;
  readonly x: readonly number[];
  readonly absorbance: readonly number[];
}

/** Room above a chart for the names of several spectra, or for the wavelength that was chosen. */
const topFor = (spectra: number, chosenNm: number | null): number =>
  spectra > 1 ? 34 : chosenNm === null ? 14 : 26;

/** Spectra laid over one another, the visible band beneath the axis, the wavelength chosen as a line. */
export function spectrumOption(
  spectra: readonly ShownSpectrum[],
  chosenNm: number | null,
  say: Localized,
): ChartOption {
  const xs = spectra.flatMap(({ x }) => [x[0] ?? 400, x.at(-1) ?? 700]);
  const [from, to] = xs.length > 0 ? [Math.min(...xs), Math.max(...xs)] : [380, 780];
  const low = Math.min(0, ...spectra.map(({ absorbance }) => Math.min(...absorbance)));
  const many = spectra.some(({ x }) => x.length > 2000);
  return {
    animation: false,
    textStyle: text,
    tooltip: { ...tooltip, trigger: "axis", valueFormatter: (v: number) => v.toFixed(3) },
    legend: { show: spectra.length > 1, top: 0, textStyle: text, data: spectra.map((s) => s.name) },
    grid: [
      { left: 60, right: 20, top: topFor(spectra.length, chosenNm), bottom: 84, outerBoundsMode: "none" },
      { left: 60, right: 20, bottom: 60, height: 14, outerBoundsMode: "none" },
    ],
    xAxis: [
      axis(say`Wavelength, nm`, {
        min: from,
        max: to,
        nameGap: 44,
        axisLabel: { margin: 30 },
      }),
      axis("", { gridIndex: 1, min: from, max: to, show: false }),
    ],
    yAxis: [
      axis(say`Absorbance`, { nameGap: 42, ...(low > -0.02 ? { min: 0 } : {}) }),
      axis("", { gridIndex: 1, min: 0, max: 1, show: false }),
    ],
    dataZoom: [{ type: "inside", xAxisIndex: [0, 1], zoomOnMouseWheel: "ctrl" }],
    series: [
      ...spectra.map(({ name, x, absorbance }, i) => ({
        type: "line",
        name,
        showSymbol: false,
        ...(many ? { sampling: "lttb" } : {}),
        lineStyle: {
          color: inks[i % inks.length],
          width: 2,
          type: (["solid", "dashed", "dotted"] as const)[i % 3],
        },
        itemStyle: { color: inks[i % inks.length] },
        data: x.map((nm, j) => [nm, absorbance[j]]),
        ...(i === 0 && chosenNm !== null
          ? {
              markLine: {
                symbol: "none",
                silent: true,
                lineStyle: { color: colors.pinkDeep, width: 2, type: "solid" },
                label: { formatter: `${chosenNm} nm`, ...text, color: colors.pinkDeep, fontWeight: 600 },
                data: [{ xAxis: chosenNm }],
              },
            }
          : {}),
      })),
      visibleStrip(from, to),
    ],
  };
}

/** The colors of the light beneath the wavelengths, as far as they are shown. */
function visibleStrip(from: number, to: number) {
  return {
    type: "line",
    xAxisIndex: 1,
    yAxisIndex: 1,
    silent: true,
    data: [],
    markArea: {
      silent: true,
      data: visibleParts
        .map((part, i) => [part, light[i]] as const)
        .filter(([part]) => part.to > from && part.from < to)
        .map(([part, color]) => [
          { xAxis: Math.max(from, part.from), itemStyle: { color } },
          { xAxis: Math.min(to, part.to) },
        ]),
    },
  };
}

export const shownSpectrum = ({ name, x, absorbance }: TraceRecord): ShownSpectrum => ({
  name,
  x,
  absorbance,
});
