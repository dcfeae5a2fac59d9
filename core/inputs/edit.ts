import { withPoint, msg, type Phrase } from "../text";
import type { Column, Row } from "./kind";

/* What the rows of the method editor have in common. */

export const text = (x: string | number | undefined): string => (x === undefined ? "" : String(x));
export const decimal = withPoint;
/** True for a number above or equal to zero, as the schemas take it. */
export const isDecimal = (x: string): boolean => /^\d+(\.\d+)?$/.test(x);
export const given = (x: string | undefined): boolean => (x ?? "").trim() !== "";
export const trimmed = (row: Row, key: string): string => (row[key] ?? "").trim();

export const perOfRow = (row: Row) => (row.per === "run" ? ("run" as const) : ("trial" as const));
export const plusMinusOf = (row: Row): string => (given(row.plusMinus) ? decimal(row.plusMinus) : "0");

export const perColumn: Column = {
  key: "per",
  label: msg`Read`,
  wide: 1.5,
  choices: [
    { value: "trial", label: msg`each flask` },
    { value: "run", label: msg`once` },
  ],
};
export const ofColumn: Column = { key: "of", label: msg`Of, formula or name`, wide: 2 };
export const numberColumn = (key: string, label: Phrase, wide = 1): Column => ({
  key,
  label,
  wide,
  reading: true,
});
export const yesNo = (yes: Phrase, no: Phrase) => [
  { value: "yes", label: yes },
  { value: "", label: no },
];
