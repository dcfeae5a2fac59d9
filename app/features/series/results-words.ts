import type { SeriesRow, SeriesTable } from "~/core/evaluate";
import { seriesRemark } from "~/core/evaluate";
import { toDecimals, toSignificant, withUnit } from "~/core/quantity";
import type { Role } from "~/core/run";
import { msg, type Phrase } from "~/core/text";

/*
 * What a table of results says of its runs, on a screen and on paper.
 */

export const roleWords: Readonly<Record<Role, Phrase>> = {
  sample: "",
  duplicate: msg`duplicate`,
  spiked: msg`spiked`,
  check: msg`check standard`,
};

/** Columns that a table has only where a run says something in them. */
export const columnsOf = ({ rows }: SeriesTable) => ({
  known: rows.some(({ errorPercent }) => errorPercent !== null),
  beside: rows.some((row) => seriesRemark(row) !== ""),
});

/** The result of a run; one whose stage is not done may change yet. */
export function resultWords({ shown, done }: SeriesRow): Phrase {
  if (!shown) return "–";
  const value = shown.plusMinus === "0" ? shown.value : `${shown.value} ± ${shown.plusMinus}`;
  return done ? value : msg`so far ${value}`;
}

export const errorWords = ({ errorPercent, within }: SeriesRow): Phrase => {
  const error = errorPercent === null ? "" : toDecimals(errorPercent, 2);
  return within === false ? msg`${error} outside` : error;
};

/** The mean of samples and duplicates, and how far they scatter; null where one result stands, or none. */
export function scatterWords({ count, mean, standardDeviation: s, unit }: SeriesTable): Phrase | null {
  if (count < 2 || mean === null || s === null) return null;
  const relative = mean === 0 ? "" : msg` (${toSignificant((100 * s) / Math.abs(mean), 2)} %)`;
  return msg`Samples and duplicates whose result stands: ${count}. Mean ${withUnit(toSignificant(mean, 4), unit)}, s = ${withUnit(toSignificant(s, 2), unit)}${relative}. Check standards and spiked samples are left out.`;
}
