import {
  type CurvePoint,
  type CurveTheory,
  firstDerivative,
  shownBy,
  smoothedDerivative,
} from "~/core/curves";
import { meterOf } from "~/core/inputs";
import type { IndicatorOnAxis } from "~/core/plan";
import type { CurveEvaluation, CurveStageEvaluation } from "~/core/stages";
import { type Phrase, unitText } from "~/core/text";
import { colors } from "../../../theme/theme";
import type { ChartOption } from "../../../ui/chart/echarts";
import { axis, inks, text, tooltip } from "../../../ui/chart/style";
import type { Localized } from "../../../words/text";
import { curveInputOf } from "./use-curve-entry";

export interface CurveShown {
  /** True where the axis shows readings of the burette, false where it shows what was added. */
  readonly readings: boolean;
  /** What is laid over the points beside a fit; null where nothing is. */
  readonly theory: { readonly name: Phrase; readonly curve: CurveTheory } | null;
  /** What stands beneath: the first derivative, or what the points leave over of the line through them. */
  readonly beneath: "derivative" | "smoothed" | "residuals";
  /** An indicator whose range lies over the curve as a band. */
  readonly band: IndicatorOnAxis | null;
}

const pairs = (points: readonly CurvePoint[], shift: number) =>
  points.map(({ volume, value }) => [volume + shift, value]);

/** Points along a line, closer where something happens is not known: so many, evenly. */
const drawnOf = (most: number) => Array.from({ length: 241 }, (_, i) => (most * i) / 240);

/** Two charts, one above the other, over the same volumes. */
function frame(
  stage: CurveStageEvaluation,
  { readings, beneath }: CurveShown,
  say: Localized,
  x: { readonly min: number; readonly max: number },
) {
  const { label, unit } = meterOf(curveInputOf(stage));
  const named = unit === "" ? say(label) : say`${label}, ${unitText(unit)}`;
  const grid = { left: 68, right: 16, outerBoundsMode: "none" };
  return {
    grid: [
      { ...grid, top: 12, height: 230 },
      { ...grid, top: 268, height: 84 },
    ],
    xAxis: [
      { ...axis("", x), gridIndex: 0, axisLabel: { show: false } },
      {
        ...axis(
          readings ? say`Reading of the burette, ${unitText("mL")}` : say`Titrant added, ${unitText("mL")}`,
          { nameGap: 26, ...x },
        ),
        gridIndex: 1,
      },
    ],
    yAxis: [
      { ...axis(named, { nameGap: 48, scale: true }), gridIndex: 0 },
      {
        ...axis(beneath === "residuals" ? say`residual` : say`per mL`, { nameGap: 48, splitNumber: 2 }),
        gridIndex: 1,
      },
    ],
  };
}

/** The curve as it stands with its first derivative beneath; points that were struck out are pale, those taken too soon are hollow. */
export function curveOption(
  stage: CurveStageEvaluation,
  trial: CurveEvaluation,
  shown: CurveShown,
  say: Localized,
): ChartOption {
  const { readings, theory, beneath } = shown;
  const { points, taken, startMl } = trial;
  const start = startMl ?? 0;
  const shift = readings ? start : 0;
  const most = Math.max(5, Math.ceil(((points.at(-1)?.volume ?? 0) + 1) / 5) * 5);
  const placed = (those: typeof taken) => those.map((p) => [p.buretteMl - start + shift, p.value]);
  const struck = placed(taken.filter((p) => p.struck));
  const hasty = placed(taken.filter((p) => !p.struck && p.place.unsteady));
  const ends = [...new Set(trial.ends.flatMap((end) => (end.taken ? [end.taken.volume] : [])))];
  const best = trial.reading?.fits[0];
  const laid = theory && ends.length > 0 ? theoryOf(stage, trial, theory.curve) : null;
  const markLine = {
    ...{ silent: true, symbol: "none", label: { show: false } },
    lineStyle: { color: colors.pinkDeep, type: "dashed", width: 1.5 },
    data: ends.map((volume) => ({ xAxis: volume + shift })),
  };
  return {
    ...{ animation: false, textStyle: text },
    tooltip: { ...tooltip, trigger: "axis", valueFormatter: (value: number) => Number(value).toFixed(3) },
    ...frame(stage, shown, say, { min: shift, max: most + shift }),
    series: [
      {
        ...{ type: "line", name: say`read`, symbolSize: 6, showAllSymbol: true },
        ...{ lineStyle: { color: colors.line, width: 1 }, itemStyle: { color: inks[0] } },
        data: pairs(points, shift),
        markLine,
        ...(shown.band ? { markArea: bandOf(shown.band, say) } : {}),
      },
      ...scatter(say`taken before it was steady`, hasty, {
        ...{ color: colors.sheet, borderColor: inks[0], borderWidth: 1.5 },
      }),
      ...scatter(say`struck out`, struck, {
        ...{ color: colors.line, borderColor: colors.lineStrong, borderWidth: 1 },
      }),
      ...(best ? [smooth(say`fitted`, fitted(points, best.fit.residuals, shift), colors.pinkDeep)] : []),
      ...(laid && theory
        ? [
            smooth(
              say(theory.name),
              drawnOf(most).map((ml) => [ml + shift, laid(ml)]),
              inks[3],
            ),
          ]
        : []),
      {
        type: beneath === "residuals" ? "scatter" : "line",
        name: beneath === "residuals" ? say`residual` : say`change per mL`,
        ...{ xAxisIndex: 1, yAxisIndex: 1, symbolSize: 3 },
        lineStyle: { color: inks[2], width: 1.5 },
        itemStyle: { color: inks[2] },
        data:
          beneath === "residuals"
            ? residualsOf(points, laid, best?.fit.residuals, shift)
            : slopesOf(points, beneath).map(({ volume, slope }) => [volume + shift, slope]),
        markLine,
      },
    ],
  };
}

/** The range of an indicator on the axis. */
const bandOf = ({ indicator, from, to }: IndicatorOnAxis, say: Localized) => ({
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
});

/** The first derivative as the points have it, or through their noise. */
const slopesOf = (points: readonly CurvePoint[], beneath: CurveShown["beneath"]) =>
  beneath === "smoothed" ? smoothedDerivative(points) : firstDerivative(points);

const fitted = (points: readonly CurvePoint[], residuals: readonly number[], shift: number) =>
  points.map(({ volume, value }, i) => [volume + shift, value - (residuals[i] ?? 0)]);

const scatter = (name: string, data: readonly (readonly number[])[], itemStyle: object) =>
  data.length === 0 ? [] : [{ type: "scatter", name, symbolSize: 7, itemStyle, data, z: 4 }];

const smooth = (name: string, data: readonly (readonly number[])[], color: string | undefined) => ({
  ...{ type: "line", name, showSymbol: false, data },
  lineStyle: { color, width: 1.5 },
  itemStyle: { color },
});

/** What theory says of the beaker with the ends that were found. */
function theoryOf(
  { definition: { curve } }: CurveStageEvaluation,
  trial: CurveEvaluation,
  theory: CurveTheory,
): (ml: number) => number {
  const ends = trial.ends.map(({ taken }) => taken?.volume ?? NaN);
  // What has one end alone is laid over the last one.
  const own = theory.is === curve.theory.is ? ends : ends.slice(-1);
  return shownBy(theory, { flaskMl: curve.flaskMl, titrant: trial.setting.titrant, celsius: 25, ends: own });
}

/** What was read less what lies over it: the theory that was chosen, else the fit. */
function residualsOf(
  points: readonly CurvePoint[],
  laid: ((ml: number) => number) | null,
  fitted: readonly number[] | undefined,
  shift: number,
): (readonly [number, number])[] {
  return points.flatMap(({ volume, value }, i) => {
    const residual = laid ? value - laid(volume) : fitted?.[i];
    return residual === undefined ? [] : [[volume + shift, residual] as const];
  });
}
