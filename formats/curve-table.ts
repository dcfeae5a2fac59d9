import type { CurvePoint } from "~/core/curves";
import { msg, type Phrase } from "~/core/text";
import { cellsOf } from "./readings-table";

/** Lines that are read at most, and problems that are told. */
const mostPoints = 2000;
const mostProblems = 6;

/** Fewer points are no curve. */
const usualLeast = 5;

/** A pH beyond these was misread. */
const [leastPH, mostPH] = [-1, 15];

/** A line of numbers as it was written, with a decimal point. */
export interface CurveTexts {
  /** The column before the last one: a volume, a reading of the burette, a count of drops. */
  readonly volume: string;
  /** The last column: what the meter showed. */
  readonly value: string;
}

export interface CurveTable {
  readonly points: readonly CurvePoint[];
  /** The same as it stands in the table. */
  readonly texts: readonly CurveTexts[];
  readonly problems: readonly Phrase[];
}

/** How a table of a curve is read. */
export interface CurveTableOptions {
  /** What the column of volumes reads at the start, mL. */
  readonly startMl: number;
  /** Milliliters of one of its units: 1, or the volume of a drop where drops are counted. */
  readonly mlEach?: number;
  /** What the meter shows, and between what that lies; pH where nothing is said. */
  readonly meter?: { readonly label: Phrase; readonly least: number; readonly most: number };
  /** Fewer points than these are told; five where nothing is said. */
  readonly leastPoints?: number;
}

const pHMeter = { label: "pH" as Phrase, least: leastPH, most: mostPH };

/** A number with a decimal point; null for what is none. */
function numberText(cell: string, delimiter: string): string | null {
  const text = (delimiter === "," ? cell : cell.replace(",", ".")).trim();
  return /^[+-]?(\d+\.?\d*|\.\d+)$/.test(text) ? text : null;
}

/** What speaks against a point after another one; null where nothing does. */
function against(
  { volume, value }: CurvePoint,
  before: CurvePoint | undefined,
  { label, least, most }: NonNullable<CurveTableOptions["meter"]>,
): Phrase | null {
  if (value < least || value > most) return msg`${label} ${value} is outside ${least} to ${most}`;
  if (volume < 0) return msg`${volume} mL is below the reading at the start`;
  if (before && volume < before.volume)
    return msg`${volume} mL after ${before.volume} mL: the volume goes back`;
  return null;
}

/**
 * Volumes and pH values from columns parted by tabs, semicolons, commas or blanks: the last two of each line, so that a logger's file with times
 * before them is read too. Lines before the first numbers are headings.
 */
export function readCurveTable(
  text: string,
  { startMl, mlEach = 1, meter = pHMeter, leastPoints = usualLeast }: CurveTableOptions,
): CurveTable {
  const { cells, delimiter } = cellsOf(text, mostPoints + 50);
  // Empty lines are passed over, and count as people count them.
  const lines = text.split(/\r\n?|\n/).flatMap((line, i) => (/^[\s;,]*$/.test(line) ? [] : [i + 1]));
  const points: CurvePoint[] = [];
  const texts: CurveTexts[] = [];
  const problems: Phrase[] = [];
  for (const [i, row] of cells.entries()) {
    const filled = row.map((cell) => cell.trim()).filter((cell) => cell !== "");
    if (filled.length === 0) continue;
    const [volume = null, value = null] = filled.slice(-2).map((cell) => numberText(cell, delimiter));
    if (volume === null || value === null) {
      if (points.length > 0)
        problems.push(
          msg`Line ${lines[i] ?? i + 1}: "${filled.join(" ").slice(0, 40)}" is no volume with its pH`,
        );
      continue;
    }
    const ml = Number((mlEach * Number(volume) - startMl).toPrecision(12));
    const point = { volume: ml, value: Number(value) };
    const wrong = against(point, points.at(-1), meter);
    if (wrong === null) {
      points.push(point);
      texts.push({ volume, value });
    } else problems.push(msg`Line ${lines[i] ?? i + 1}: ${wrong}`);
  }
  if (points.length > mostPoints) problems.push(msg`There are more than ${mostPoints} points`);
  if (text.trim() !== "" && points.length < leastPoints && problems.length === 0)
    problems.push(msg`${points.length} points are no curve yet: ${leastPoints} at least`);
  return { points, texts, problems: problems.slice(0, mostProblems) };
}
