/** What a cell is there for, which decides its look. */
export type Look = "title" | "note" | "head" | "label" | "read" | "computed" | "result" | "chosen";

export interface SheetCell {
  /** What stands in it, or what its formula came to when it was written. */
  readonly value: number | string;
  /** Without the equals sign; nothing where the value was read or typed. */
  readonly formula?: string;
  readonly look: Look;
  /** Decimals that it is shown with; as many as it has where nothing is said. */
  readonly decimals?: number;
}

/** A column as spreadsheets call it: A for 1, AA for 27. */
export function columnName(column: number): string {
  let [name, left] = ["", column];
  while (left > 0) {
    name = String.fromCharCode(65 + ((left - 1) % 26)) + name;
    left = Math.floor((left - 1) / 26);
  }
  return name;
}

/** The address of a cell, both counted from 1. */
export const addressOf = (row: number, column: number): string => `${columnName(column)}${row}`;

/** One sheet that is being filled, from top to bottom. */
export class Sheet {
  readonly cells = new Map<string, SheetCell & { readonly row: number; readonly column: number }>();
  /** The next free row. */
  row = 1;

  constructor(readonly name: string) {}

  put(row: number, column: number, cell: SheetCell): string {
    const address = addressOf(row, column);
    this.cells.set(address, { ...cell, row, column });
    return address;
  }

  /** Text cells from a column on, in the next free row. */
  line(look: Look, texts: readonly string[], column = 1): void {
    texts.forEach((value, i) => value !== "" && this.put(this.row, column + i, { value, look }));
    this.row++;
  }

  /** An address of this sheet as formulas of others write it. */
  reference(address: string): string {
    return `'${this.name.replaceAll("'", "''")}'!${address}`;
  }
}

/** A name for a cell: the letter of the textbook, with its stage before it. */
export interface CellName {
  readonly name: string;
  readonly sheet: Sheet;
  readonly address: string;
}

export interface Book {
  readonly sheets: readonly Sheet[];
  readonly names: readonly CellName[];
}

/** Names of sheets are at most 31 characters without these, and none is there twice in any case; `taken` holds small letters. */
export function sheetName(title: string, taken: ReadonlySet<string>): string {
  const plain =
    title
      .replace(/[[\]:*?/\\']/g, " ")
      .replace(/\s+/g, " ")
      .trim()
      .slice(0, 31) || "Stage";
  if (!taken.has(plain.toLowerCase())) return plain;
  for (let n = 2; ; n++) {
    const numbered = `${plain.slice(0, 28)} ${n}`;
    if (!taken.has(numbered.toLowerCase())) return numbered;
  }
}
