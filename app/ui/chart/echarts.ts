import { CustomChart, LineChart, ScatterChart } from "echarts/charts";
import {
  AriaComponent,
  DataZoomComponent,
  GridComponent,
  LegendComponent,
  MarkAreaComponent,
  MarkLineComponent,
  TooltipComponent,
} from "echarts/components";
import { type EChartsCoreOption, init, use as register } from "echarts/core";
import { CanvasRenderer, SVGRenderer } from "echarts/renderers";

register([
  LineChart,
  ScatterChart,
  CustomChart,
  GridComponent,
  TooltipComponent,
  LegendComponent,
  DataZoomComponent,
  MarkLineComponent,
  MarkAreaComponent,
  AriaComponent,
  CanvasRenderer,
  SVGRenderer,
]);

export type ChartOption = EChartsCoreOption;
export { init };

/** A chart that does not move, as SVG; needs no browser. */
export function chartSvg(option: ChartOption, width: number, height: number): string {
  const chart = init(null, null, { renderer: "svg", ssr: true, width, height });
  chart.setOption({ ...option, animation: false, dataZoom: [] });
  const svg = chart.renderToSVGString();
  chart.dispose();
  return svg;
}

/** The same chart as a file, twice as sharp as the screen for a bitmap. */
export function chartFile(option: ChartOption, kind: "svg" | "png", width: number, height: number): string {
  if (kind === "svg")
    return `data:image/svg+xml;charset=utf-8,${encodeURIComponent(chartSvg(option, width, height))}`;
  const box = document.createElement("div");
  const chart = init(box, null, { renderer: "canvas", width, height });
  chart.setOption({ ...option, animation: false, dataZoom: [] });
  const url = chart.getDataURL({ type: "png", pixelRatio: 2, backgroundColor: "#ffffff" });
  chart.dispose();
  return url;
}
