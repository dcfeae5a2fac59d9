import type { RowKind, Target } from "./columns";
import type { Mapping } from "./mapping";
import type { Sheet } from "./sheet";

/* The rows of a table by what they stand for. */

export interface Cell {
  readonly text: string;
  /** From 0; null where it is the same for all rows. */
  readonly column: number | null;
}

export interface Row {
  /** As the spreadsheet counts. */
  readonly row: number;
  readonly at: (key: string) => Cell;
  /** The same of all columns that stand for it. */
  readonly all: (key: string) => readonly [Cell, ...Cell[]];
}

export function rowsOf({ cells, lines }: Sheet, { columns, fixed, headings }: Mapping): readonly Row[] {
  const places = new Map<string, number[]>();
  columns.forEach((use, i) => use && places.set(use.target, [...(places.get(use.target) ?? []), i]));
  const first = headings ? 1 : 0;
  return cells.slice(first).map((texts, i) => {
    const all = (key: string): readonly [Cell, ...Cell[]] => {
      const [column, ...more] = places.get(key) ?? [];
      const cell = (at: number): Cell => ({ text: texts[at] ?? "", column: at });
      if (column === undefined) return [{ text: (fixed[key] ?? "").trim(), column: null }];
      return [cell(column), ...more.map(cell)];
    };
    return { row: lines[i + first] ?? 0, all, at: (key) => all(key)[0] };
  });
}

/** Words by which tables tell rows apart. From memory. */
const blankWords = /^(reagent )?(blanks?|bl|zero)[ .:_-]*\d*$/i;
const standardWords = /^(standards?|std|st|cal|calibration)[ .:_-]*[\p{L}\d]?[\d.,]*$/iu;
const roughWords = /^(r|rough|x|y|yes|true)$/i;

/** Whether a trial is a rough one. */
export const isRough = (row: Row): boolean => roughWords.test(row.at("rough").text);

/**
 * What a row is, in a table with standards: by what it says it is, or by the name of the sample where it says nothing. What has an amount of
 * the series is a standard, whatever it is called.
 */
export function kindOf(row: Row, targets: readonly Target[]): RowKind {
  const said = row.at("what").text || row.at("sample").text;
  if (blankWords.test(said)) return "blank";
  const amounts = targets.filter(({ per, fills, standard }) => per === "row" && standard && !fills);
  return standardWords.test(said) || amounts.some(({ key }) => row.at(key).text !== "")
    ? "standard"
    : "sample";
}
