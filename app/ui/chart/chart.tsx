import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { type RefObject, useEffect, useRef, useState } from "react";
import { colors } from "../../theme/theme";
import type * as ECharts from "./echarts";
import { useSay } from "../../words/text";

interface ChartProps {
  /** What the picture shows, in a sentence: for those who do not see it. */
  label: string;
  option: ECharts.ChartOption;
  height: number;
  /** Name of the file that it is saved as. */
  fileName: string;
  /** Many points are drawn on a canvas, few as lines that stay sharp. */
  many?: boolean;
  /** Called with the place of a point that is pressed. */
  onPoint?: (at: number) => void;
}

type Library = typeof ECharts;

/** The drawing library comes only where a chart is shown. */
function useLibrary(): Library | null {
  const [library, setLibrary] = useState<Library | null>(null);
  useEffect(() => {
    let here = true;
    void import("./echarts").then((loaded) => {
      if (here) setLibrary(loaded);
    });
    return () => {
      here = false;
    };
  }, []);
  return library;
}

function save(url: string, name: string) {
  const link = document.createElement("a");
  link.href = url;
  link.download = name;
  link.click();
}

/** Tells which point was pressed, of a chart that is drawn anew where the library or its renderer is another one. */
function usePress(
  chart: RefObject<ReturnType<Library["init"]> | null>,
  onPoint: ((at: number) => void) | undefined,
  library: Library | null,
  many: boolean,
) {
  useEffect(() => {
    const made = chart.current;
    if (!made || !onPoint) return;
    const press = ({ dataIndex }: { dataIndex?: number }) => {
      if (dataIndex !== undefined) onPoint(dataIndex);
    };
    made.on("click", press);
    return () => {
      made.off("click", press);
    };
  }, [chart, onPoint, library, many]);
}

/** A chart that follows its box and its data, and can be saved as SVG or PNG. */
export function Chart({ label, option, height, fileName, many = false, onPoint }: ChartProps) {
  const say = useSay();
  const library = useLibrary();
  const box = useRef<HTMLDivElement>(null);
  const chart = useRef<ReturnType<Library["init"]> | null>(null);
  useEffect(() => {
    if (!library || !box.current) return;
    const made = library.init(box.current, null, { renderer: many ? "canvas" : "svg" });
    chart.current = made;
    const watch = new ResizeObserver(() => made.resize());
    watch.observe(box.current);
    return () => {
      watch.disconnect();
      made.dispose();
      chart.current = null;
    };
  }, [library, many]);
  useEffect(() => {
    chart.current?.setOption(option, { replaceMerge: ["series", "xAxis", "yAxis", "grid"] });
  }, [option, library, many]);
  usePress(chart, onPoint, library, many);
  const file = (kind: "svg" | "png") => {
    if (!library || !box.current) return;
    save(library.chartFile(option, kind, box.current.clientWidth, height), `${fileName}.${kind}`);
  };
  return (
    <Box component="figure" sx={{ m: 0, minWidth: 0 }}>
      <Box role="img" aria-label={label} data-ready={library !== null} sx={{ height, width: 1 }}>
        <Box ref={box} sx={{ height, width: 1 }} />
      </Box>
      <Box
        sx={{
          display: "flex",
          justifyContent: "flex-end",
          alignItems: "center",
          gap: 0.5,
          color: colors.inkSoft,
        }}
      >
        {"dataZoom" in option && (
          <Box
            component="span"
            sx={{ flexGrow: 1, fontSize: "0.85rem", display: { xs: "none", sm: "block" } }}
          >
            {say`Ctrl and the wheel zoom, dragging moves`}
          </Box>
        )}
        <Button size="small" onClick={() => file("svg")}>
          {say`Save as SVG`}
        </Button>
        <Button size="small" onClick={() => file("png")}>
          {say`as PNG`}
        </Button>
      </Box>
    </Box>
  );
}
