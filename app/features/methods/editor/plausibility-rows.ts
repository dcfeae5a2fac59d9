import { withPoint, msg } from "~/core/text";
import type { Plausibility } from "~/core/method";
import type { Column, Row } from "./row";

const text = (x: string | number | undefined): string => (x === undefined ? "" : String(x));
const given = (x: string | undefined): x is string => (x ?? "").trim() !== "";
const number = (x: string | undefined): number => Number(withPoint(x));

/** What a result can be, as a row of texts. */
export const rowOfPlausibility = (rule: Plausibility): Row => ({
  rule: rule.rule,
  symbol: rule.symbol,
  ...(rule.rule === "between"
    ? { from: text(rule.from), to: text(rule.to), unit: rule.unit, outside: text(rule.outside) }
    : {}),
  ...(rule.rule === "at most all" ? { all: text(rule.all), of: text(rule.of) } : {}),
  ...(rule.rule === "not above" || rule.rule === "not below"
    ? { other: rule.other, stage: text(rule.stage) }
    : {}),
});

export function plausibilityOfRow(row: Row): Plausibility {
  const symbol = (row.symbol ?? "").trim();
  switch (row.rule) {
    case "at most all":
      return {
        rule: "at most all",
        symbol,
        ...(given(row.all) ? { all: row.all.trim() } : {}),
        ...(given(row.of) ? { of: row.of.trim() } : {}),
      };
    case "not above":
    case "not below":
      return {
        rule: row.rule,
        symbol,
        other: (row.other ?? "").trim(),
        ...(given(row.stage) ? { stage: row.stage.trim() } : {}),
      };
    case "whole number":
      return { rule: "whole number", symbol };
    default:
      return {
        rule: "between",
        symbol,
        ...(given(row.from) ? { from: number(row.from) } : {}),
        ...(given(row.to) ? { to: number(row.to) } : {}),
        unit: given(row.unit) ? row.unit.trim() : "1",
        ...(row.outside === "invalid" || row.outside === "impossible" ? { outside: row.outside } : {}),
      };
  }
}

const rules: Column = {
  key: "rule",
  label: msg`A result must be`,
  wide: 2,
  choices: [
    { value: "between", label: msg`between two values` },
    { value: "at most all", label: msg`at most all of it` },
    { value: "not above", label: msg`not above another` },
    { value: "not below", label: msg`not below another` },
    { value: "whole number", label: msg`a whole number` },
  ],
};
const symbol: Column = { key: "symbol", label: msg`Letter`, reading: true };

const another: readonly Column[] = [
  { key: "other", label: msg`The other letter`, reading: true },
  { key: "stage", label: msg`Of stage (empty: this one)`, wide: 2 },
];

const particular: Readonly<Record<string, readonly Column[]>> = {
  between: [
    { key: "from", label: msg`From`, reading: true },
    { key: "to", label: msg`To`, reading: true },
    { key: "unit", label: msg`Unit` },
    {
      key: "outside",
      label: msg`Outside`,
      wide: 2,
      choices: [
        { value: "", label: msg`impossible` },
        { value: "impossible", label: msg`impossible (stated)` },
        { value: "invalid", label: msg`outside the method’s range` },
      ],
    },
  ],
  "at most all": [
    { key: "all", label: msg`All is (empty: 100 %)`, wide: 2, reading: true },
    { key: "of", label: msg`Of what`, wide: 2 },
  ],
  "not above": another,
  "not below": another,
  "whole number": [],
};

export const plausibilityColumns = (row: Row): readonly Column[] => [
  rules,
  symbol,
  ...(particular[row.rule ?? "between"] ?? []),
];

export const freshPlausibility: Row = { rule: "between", symbol: "", from: "0", to: "", unit: "" };
