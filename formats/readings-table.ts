import Papa from "papaparse";

/** Something in a table that cannot be used, and where; rows and columns count from 1 as people count them. */
export interface CellProblem {
  readonly row: number;
  readonly column: number;
  readonly message: string;
}

export interface TableReading {
  readonly person: string;
  /** As it stands in the cell, with a point for a comma. */
  readonly text: string;
  readonly kind: "absorbance" | "transmittance";
}

export interface TableRow {
  /** The amount as it stands in the first cell; "blank" for the blank. */
  readonly amount: string;
  readonly readings: readonly TableReading[];
}

export interface ReadingsTable {
  readonly rows: readonly TableRow[];
  /** Cells left empty; they are no fault. */
  readonly empty: number;
  readonly problems: readonly CellProblem[];
}

/** What is taken at once: flasks, and readings of each. */
const mostRows = 100;
const mostReadings = 200;

const numberPattern = /^[+-]?(\d+\.?\d*|\.\d+)$/;

/** Commas are decimal points unless they part the columns. */
const withPoint = (cell: string, delimiter: string) => (delimiter === "," ? cell : cell.replace(",", "."));

/** Splits pasted text into cells, those of the first rows where a number of them is given: at tabs where there are any, then at semicolons, then at commas, then at spaces. */
export function cellsOf(
  text: string,
  mostRows = 0,
  { keepEmpty = false } = {},
): { readonly cells: string[][]; readonly delimiter: string } {
  const delimiter = ["\t", ";", ","].find((d) => text.includes(d)) ?? " ";
  const lines = text.replace(/\r\n?/g, "\n");
  // "0,312 0,318": commas between digits, columns parted by blanks.
  const spaced = delimiter === "," && /\d,\d+[ ]+\d/.test(lines) && !/,\s/.test(lines);
  const used = spaced ? " " : delimiter;
  const parsed = Papa.parse<string[]>(used === " " ? lines.replace(/[ ]+/g, " ") : lines, {
    delimiter: used,
    skipEmptyLines: keepEmpty ? false : "greedy",
    preview: mostRows,
  });
  return { cells: parsed.data.map((row) => row.map((cell) => cell.trim())), delimiter: used };
}

/** "4.00 mL" as a number and a unit. */
function amountOf(cell: string): { value: string; unit: string } | null {
  const match = /^([+-]?[\d.]+)\s*([^\d\s].*)?$/.exec(cell);
  return match && numberPattern.test(match[1] ?? "")
    ? { value: match[1] ?? "", unit: (match[2] ?? "").trim() }
    : null;
}

/**
 * A class's readings as pasted or from a file: a row for each flask, its amount first, then one reading of each person; a
 * heading row may name them. A reading with % is a transmittance. Everything wrong is told by its cell; empty cells are
 * passed over.
 */
export function readReadingsTable(text: string, unit: string): ReadingsTable {
  const { cells, delimiter } = cellsOf(text, mostRows + 2);
  const problems: CellProblem[] = [];
  const tooMuch = (message: string) => ({ rows: [], empty: 0, problems: [{ row: 1, column: 1, message }] });
  if (cells.length > mostRows + 1) return tooMuch(`There are more than ${mostRows} flasks in the table`);
  if (cells.length === 0)
    return { rows: [], empty: 0, problems: [{ row: 1, column: 1, message: "The table is empty" }] };
  const [first = []] = cells;
  const isHeading =
    amountOf(withPoint(first[0] ?? "", delimiter)) === null && !/^blank$/i.test(first[0] ?? "");
  const body = isHeading ? cells.slice(1) : cells;
  const width = Math.max(...cells.map((row) => row.length));
  if (width > mostReadings + 1) return tooMuch(`There are more than ${mostReadings} readings of a flask`);
  const people = Array.from(
    { length: width - 1 },
    (_, i) => (isHeading ? (first[i + 1] ?? "") : "") || `Reader ${i + 1}`,
  );
  if (width < 2)
    problems.push({
      row: 1,
      column: 1,
      message: "There is one column only: amounts and readings belong side by side",
    });
  let empty = 0;
  const rows = body.map((cellsOfRow, i): TableRow => {
    const row = i + 1 + (isHeading ? 1 : 0);
    const head = withPoint(cellsOfRow[0] ?? "", delimiter);
    const amount = amountOf(head);
    const blank = /^blank$/i.test(head);
    if (!amount && !blank) {
      problems.push({
        row,
        column: 1,
        message: head === "" ? "The amount is missing" : `"${head}" is no amount`,
      });
    }
    if (amount && amount.unit !== "" && amount.unit !== unit) {
      problems.push({
        row,
        column: 1,
        message: `It is in ${amount.unit}; amounts are in ${unit || "plain numbers"} here`,
      });
    }
    const readings = people.flatMap((person, j): TableReading[] => {
      const cell = withPoint(cellsOfRow[j + 1] ?? "", delimiter);
      if (cell === "") {
        empty++;
        return [];
      }
      const percent = cell.endsWith("%");
      const number = (percent ? cell.slice(0, -1) : cell).trim();
      if (!numberPattern.test(number)) {
        problems.push({ row, column: j + 2, message: `"${cell}" is no number` });
        return [];
      }
      if (
        percent ? Number(number) <= 0 || Number(number) > 300 : Number(number) > 4 || Number(number) < -0.5
      ) {
        problems.push({
          row,
          column: j + 2,
          message: percent
            ? `${cell} is no transmittance`
            : `${number} is no absorbance: is it a transmittance in %?`,
        });
        return [];
      }
      return [{ person, text: number, kind: percent ? "transmittance" : "absorbance" }];
    });
    return { amount: blank ? "blank" : (amount?.value ?? head), readings };
  });
  if (problems.length === 0 && rows.every((r) => r.readings.length === 0)) {
    problems.push({ row: 1, column: 2, message: "No reading stands in the table" });
  }
  return { rows, empty, problems };
}
