import { csvText } from "../csv";
import type { Axis, PointLine } from "./line";

const head = ({ name, unit }: Axis): string =>
  unit === "" ? name.replaceAll(" ", "_") : `${name.replaceAll(" ", "_")}_${unit}`;

/** One line of points as two columns that any program reads. */
export const lineCsv = ({ x, y }: PointLine): string =>
  csvText(
    [head(x), head(y)],
    x.texts.map((text, i) => [text, y.texts[i] ?? ""]),
  );

const columns = ["line", "what", "x_name", "x_unit", "x", "y_name", "y_unit", "y", "at", "person"];

/** All lines of a run in one table: a row for each point, which says what it belongs to. */
export const linesCsv = (lines: readonly PointLine[]): string =>
  csvText(
    columns,
    lines.flatMap(({ name, is, x, y, at, person }) =>
      x.texts.map((text, i) => [
        name,
        is,
        x.name,
        x.unit,
        text,
        y.name,
        y.unit,
        y.texts[i] ?? "",
        at,
        person,
      ]),
    ),
  );
