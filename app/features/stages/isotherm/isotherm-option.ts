import { type Bottle, type IsothermFit, isotherms, type Law } from "~/core/adsorption";
import { type IsothermEvaluation, lawWords } from "~/core/stages";
import { colors } from "../../../theme/theme";
import type { ChartOption } from "../../../ui/chart/echarts";
import { axis, inks, text, tooltip } from "../../../ui/chart/style";
import type { Localized } from "../../../words/text";

/** How the isotherm is drawn: as it is, or as each law is made straight. */
export type Drawn = "uptake" | Law;

/** What stands on both axes, by how it is drawn. */
const axes: Readonly<Record<Drawn, (c: number, q: number) => [number, number]>> = {
  uptake: (c, q) => [c, q],
  freundlich: (c, q) => [Math.log10(c), Math.log10(q)],
  langmuir: (c, q) => [c, c / q],
};

export const lawColors: Readonly<Record<Law, string>> = { freundlich: colors.pinkDeep, langmuir: "#3b4f9b" };

/** Concentrations between the least and the most of the bottles, and a little beyond. */
function between(bottles: readonly Bottle[]): number[] {
  const all = bottles.map(({ concentration }) => concentration);
  const [least, most] = [Math.min(...all) * 0.8, Math.max(...all) * 1.08];
  return Array.from({ length: 81 }, (_, i) => least + ((most - least) * i) / 80);
}

/** ± two standard deviations of the uptake, along the line on which an error of the titer moves the bottle. */
function whisker(
  { concentration: c, uptake: q, causes }: Bottle,
  place: (c: number, q: number) => [number, number],
) {
  const all = [...causes.values()];
  const u = Math.hypot(...all.map((m) => m.uptake));
  return [-2, 2].map((k) => place(c, Math.max(1e-6, q + k * u)));
}

/** The bottles with both laws, each by its fit to the titers, and the line that the class draws where it is straight. */
export function isothermOption(stage: IsothermEvaluation, drawn: Drawn, say: Localized): ChartOption {
  const place = axes[drawn];
  const used = stage.bottles.filter(({ leftOut }) => leftOut === null).map(({ bottle }) => bottle);
  const range = between(used);
  const curveOf = (fit: IsothermFit) => ({
    ...{ type: "line", name: say`${lawWords[fit.law]}, fitted to the titers`, showSymbol: false },
    lineStyle: { color: lawColors[fit.law], width: 2 },
    itemStyle: { color: lawColors[fit.law] },
    data: range.map((c) => place(c, isotherms[fit.law].uptake(c, fit.logarithms))),
  });
  const line = drawn === "uptake" ? null : stage.lines[drawn];
  const names = {
    uptake: [say`At equilibrium, mol/L`, say`Taken up, mmol/g`],
    freundlich: [say`log c`, say`log q`],
    langmuir: [say`At equilibrium, mol/L`, say`c / q, kg/L`],
  }[drawn];
  return {
    ...{ animation: false, textStyle: text },
    tooltip: { ...tooltip, trigger: "item" },
    legend: { bottom: 0, textStyle: text },
    grid: { left: 64, right: 18, top: 14, bottom: 76, outerBoundsMode: "none" },
    xAxis: axis(names[0] ?? "", { nameGap: 26, scale: true }),
    yAxis: axis(names[1] ?? "", {
      nameGap: 44,
      scale: drawn !== "uptake",
      ...(drawn === "uptake" ? { min: 0 } : {}),
    }),
    series: [
      ...used.map((bottle) => ({
        ...{ type: "line", silent: true, showSymbol: false, tooltip: { show: false } },
        lineStyle: { color: inks[0], width: 1.2 },
        data: whisker(bottle, place),
      })),
      ...stage.fits.map(curveOf),
      ...(line
        ? [
            {
              ...{ type: "line", name: say`the class’s straight line`, showSymbol: false },
              lineStyle: { color: inks[3], width: 1.5, type: "dashed" },
              itemStyle: { color: inks[3] },
              data: range.map((c) => {
                const x = place(c, 1)[0];
                return [x, line.intercept + line.slope * x];
              }),
            },
          ]
        : []),
      {
        ...{ type: "scatter", name: say`bottles`, symbolSize: 10, itemStyle: { color: inks[0] } },
        data: used.map(({ concentration, uptake }) => place(concentration, uptake)),
      },
    ],
  };
}
