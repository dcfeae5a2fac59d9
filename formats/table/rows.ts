import type { RowKind } from "./columns";
import type { Mapping } from "./mapping";
import type { Sheet } from "./sheet";

/* The rows of a table by what they stand for. */

export interface Cell {
  readonly text: string;
  /** From 0; null where it is the same for all rows. */
  readonly column: number | null;
}

/** A row of the body. */
export class Row {
  constructor(
    /** As the spreadsheet counts. */
    readonly row: number,
    private readonly texts: readonly string[],
    private readonly places: ReadonlyMap<string, readonly number[]>,
    private readonly fixed: Mapping["fixed"],
  ) {}

  /** What it says of something, in the first column that stands for it. */
  at(key: string): Cell {
    const column = this.places.get(key)?.[0];
    return column === undefined ? { text: (this.fixed[key] ?? "").trim(), column: null } : this.cell(column);
  }

  /** The same of all columns that stand for it. */
  all(key: string): readonly Cell[] {
    const columns = this.places.get(key);
    return columns ? columns.map((column) => this.cell(column)) : [this.at(key)];
  }

  private cell(column: number): Cell {
    return { text: this.texts[column] ?? "", column };
  }
}

export function rowsOf({ cells, lines }: Sheet, { columns, fixed, headings }: Mapping): readonly Row[] {
  const places = new Map<string, number[]>();
  columns.forEach((use, i) => use && places.set(use.target, [...(places.get(use.target) ?? []), i]));
  const first = headings ? 1 : 0;
  return cells.slice(first).map((texts, i) => new Row(lines[i + first] ?? 0, texts, places, fixed));
}

/** Words by which tables tell rows apart. From memory. */
const blankWords = /^(reagent )?(blanks?|bl|zero)[ .:_-]*\d*$/i;
const standardWords = /^(standards?|std|st|cal|calibration)[ .:_-]*[\p{L}\d]?[\d.,]*$/iu;
const roughWords = /^(r|rough|x|y|yes|true)$/i;

/** Whether a trial is a rough one. */
export const isRough = (row: Row): boolean => roughWords.test(row.at("rough").text);

/**
 * What a row is, in a table with standards: by what it says it is, or by the name of the sample where it says nothing. A row with an amount
 * of the series (`amounts`: keys of these) is a standard, whatever its name.
 */
export function kindOf(row: Row, amounts: readonly string[]): RowKind {
  const name = row.at("what").text || row.at("sample").text;
  if (blankWords.test(name)) return "blank";
  return standardWords.test(name) || amounts.some((key) => row.at(key).text !== "") ? "standard" : "sample";
}
