import type { CurvePoint } from "~/core/curves";
import { msg, type Phrase } from "~/core/text";
import { cellsOf } from "./readings-table";

/** Lines that are read at most, and problems that are told. */
const mostPoints = 2000;
const mostProblems = 6;

/** Fewer points are no curve. */
const leastPoints = 5;

/** A pH beyond these was misread. */
const [leastPH, mostPH] = [-1, 15];

export interface CurveTable {
  readonly points: readonly CurvePoint[];
  readonly problems: readonly Phrase[];
}

const numberOf = (cell: string, delimiter: string): number => {
  const text = (delimiter === "," ? cell : cell.replace(",", ".")).trim();
  return /^[+-]?(\d+\.?\d*|\.\d+)$/.test(text) ? Number(text) : NaN;
};

/** What speaks against a point after another one; null where nothing does. */
function against({ volume, value }: CurvePoint, before: CurvePoint | undefined): Phrase | null {
  if (value < leastPH || value > mostPH) return msg`pH ${value} is outside ${leastPH} to ${mostPH}`;
  if (volume < 0) return msg`${volume} mL is below the reading at the start`;
  if (before && volume < before.volume)
    return msg`${volume} mL after ${before.volume} mL: the volume goes back`;
  return null;
}

/**
 * Volumes and pH values from columns parted by tabs, semicolons, commas or blanks: the last two of each line, so that a logger's file with times
 * before them is read too. Lines before the first numbers are headings. `startMl` is what the burette read at the start.
 */
export function readCurveTable(text: string, startMl: number): CurveTable {
  const { cells, delimiter } = cellsOf(text, mostPoints + 50);
  // Empty lines are passed over, and count as people count them.
  const lines = text.split(/\r\n?|\n/).flatMap((line, i) => (/^[\s;,]*$/.test(line) ? [] : [i + 1]));
  const points: CurvePoint[] = [];
  const problems: Phrase[] = [];
  for (const [i, row] of cells.entries()) {
    const filled = row.map((cell) => cell.trim()).filter((cell) => cell !== "");
    if (filled.length === 0) continue;
    const [volume = NaN, value = NaN] = filled.slice(-2).map((cell) => numberOf(cell, delimiter));
    if (!Number.isFinite(volume) || !Number.isFinite(value)) {
      if (points.length > 0)
        problems.push(
          msg`Line ${lines[i] ?? i + 1}: "${filled.join(" ").slice(0, 40)}" is no volume with its pH`,
        );
      continue;
    }
    const point = { volume: Number((volume - startMl).toPrecision(12)), value };
    const wrong = against(point, points.at(-1));
    if (wrong === null) points.push(point);
    else problems.push(msg`Line ${lines[i] ?? i + 1}: ${wrong}`);
  }
  if (points.length > mostPoints) problems.push(msg`There are more than ${mostPoints} points`);
  if (text.trim() !== "" && points.length < leastPoints && problems.length === 0)
    problems.push(msg`${points.length} points are no curve yet: ${leastPoints} at least`);
  return { points, problems: problems.slice(0, mostProblems) };
}
