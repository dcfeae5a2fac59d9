import { msg, type Phrase, unitText } from "../text";
import {
  decimal,
  given,
  numberColumn,
  ofColumn,
  perColumn,
  perOfRow,
  plusMinusOf,
  text,
  trimmed,
  yesNo,
} from "./edit";
import type { Column, Editing, Row } from "./kind";
import type { Input, InputOf } from "./schema";

/* How the method editor shows each kind of input: a table of its own, since only the editor needs it. */

const kinds: { readonly [K in Input["is"]]: Editing<InputOf<K>> } = {
  mass: {
    name: msg`mass`,
    columns: [
      ofColumn,
      perColumn,
      {
        key: "weighing",
        label: msg`Weighed`,
        wide: 2,
        choices: [
          { value: "", label: msg`by difference: before, after` },
          { value: "transfer", label: msg`by difference: boat emptied` },
          { value: "addition", label: msg`by difference: vessel filled` },
          { value: "tared", label: "tared" },
        ],
      },
      numberColumn("low", msg`From, g`),
      numberColumn("high", msg`To, g`),
      numberColumn("density", msg`Density, g/mL`),
      numberColumn("decimals", msg`Decimals of the balance`),
    ],
    row: ({ of, weighing, before, after, expect, decimals, densityGPerMl }) => ({
      ...{ of, weighing: text(weighing), before: text(before), after: text(after) },
      ...{ low: text(expect?.[0]), high: text(expect?.[1]), density: text(densityGPerMl) },
      decimals: text(decimals),
    }),
    input: (row) => ({
      of: trimmed(row, "of"),
      per: perOfRow(row),
      ...(given(row.weighing) ? { weighing: row.weighing as "transfer" | "addition" | "tared" } : {}),
      ...(given(row.before) ? { before: trimmed(row, "before") } : {}),
      ...(given(row.after) ? { after: trimmed(row, "after") } : {}),
      ...(given(row.low) && given(row.high)
        ? { expect: [Number(decimal(row.low)), Number(decimal(row.high))] as [number, number] }
        : {}),
      ...(given(row.decimals) ? { decimals: Number(decimal(row.decimals)) } : {}),
      ...(given(row.density) ? { densityGPerMl: Number(decimal(row.density)) } : {}),
    }),
  },
  purity: {
    name: msg`purity`,
    columns: [ofColumn, numberColumn("value", msg`Presumed, %`, 1.3), numberColumn("plusMinus", "±, %")],
    row: ({ of, presumed }) => ({ of, value: presumed.percent, plusMinus: presumed.plusMinus }),
    input: (row) => ({
      of: trimmed(row, "of"),
      per: "run",
      presumed: { percent: decimal(row.value), plusMinus: plusMinusOf(row) },
    }),
  },
  titer: {
    name: msg`titer`,
    columns: [
      { ...ofColumn, label: msg`Titrant, formula` },
      numberColumn("value", msg`Indicator turns late by, mL`, 2),
      numberColumn("plusMinus", msg`±, mL`),
    ],
    row: ({ titrant, bias }) => ({
      of: titrant,
      value: text(bias?.ml),
      plusMinus: text(bias?.plusMinus),
    }),
    input: (row) => ({
      titrant: trimmed(row, "of"),
      per: "trial",
      ...(given(row.value) ? { bias: { ml: decimal(row.value), plusMinus: plusMinusOf(row) } } : {}),
    }),
  },
  pipette: {
    name: msg`one-mark pipette`,
    columns: [ofColumn, perColumn, numberColumn("value", unitText("mL"))],
    row: ({ of, presumed }) => ({ of, value: presumed }),
    input: (row) => ({ of: trimmed(row, "of"), per: perOfRow(row), presumed: decimal(row.value) }),
  },
  graduated: {
    name: msg`graduated glass`,
    columns: [
      ofColumn,
      perColumn,
      {
        key: "glass",
        label: msg`Glass`,
        wide: 2,
        choices: [
          { value: "cylinder", label: "cylinder" },
          { value: "graduated pipette", label: "graduated pipette" },
        ],
      },
      numberColumn("capacity", msg`Holds, mL`),
      numberColumn("value", msg`Usual, mL`),
    ],
    row: ({ of, glass, capacityMl, presumed }) => ({
      ...{ of, glass },
      capacity: text(capacityMl),
      value: text(presumed),
    }),
    input: (row) => ({
      of: trimmed(row, "of"),
      per: perOfRow(row),
      glass: row.glass === "graduated pipette" ? "graduated pipette" : "cylinder",
      capacityMl: Number(decimal(row.capacity)),
      ...(given(row.value) ? { presumed: decimal(row.value) } : {}),
    }),
  },
  flask: {
    name: msg`volumetric flask`,
    columns: [ofColumn, perColumn, numberColumn("value", unitText("mL"))],
    row: ({ of, presumed }) => ({ of, value: presumed }),
    input: (row) => ({ of: trimmed(row, "of"), per: perOfRow(row), presumed: decimal(row.value) }),
  },
  delivered: {
    name: msg`sample by burette`,
    columns: [ofColumn, perColumn],
    row: ({ of }) => ({ of }),
    input: (row) => ({ of: trimmed(row, "of"), per: perOfRow(row) }),
  },
  "by-mass": {
    name: msg`volume by weighing`,
    columns: [
      ofColumn,
      perColumn,
      numberColumn("density", msg`Density, g/mL`),
      numberColumn("plusMinus", "±"),
      numberColumn("value", msg`Usual, mL`),
    ],
    row: ({ of, density, presumed }) => ({
      ...{ of, density: density.value, plusMinus: density.plusMinus, value: text(presumed) },
    }),
    input: (row) => ({
      of: trimmed(row, "of"),
      per: perOfRow(row),
      density: { value: decimal(row.density), plusMinus: plusMinusOf(row) },
      ...(given(row.value) ? { presumed: decimal(row.value) } : {}),
    }),
  },
  drops: {
    name: msg`drops`,
    columns: [
      ofColumn,
      perColumn,
      numberColumn("value", msg`Drops per mL`, 1.5),
      numberColumn("plusMinus", "±"),
      numberColumn("usual", msg`Usual, mL`),
    ],
    row: ({ of, perMl, presumedMl }) => ({
      of,
      value: perMl.value,
      plusMinus: perMl.plusMinus,
      usual: text(presumedMl),
    }),
    input: (row) => ({
      of: trimmed(row, "of"),
      per: perOfRow(row),
      perMl: { value: decimal(row.value), plusMinus: plusMinusOf(row) },
      ...(given(row.usual) ? { presumedMl: decimal(row.usual) } : {}),
    }),
  },
  count: {
    name: msg`count of pieces`,
    columns: [ofColumn, perColumn, numberColumn("plusMinus", "±, pieces")],
    row: ({ of, plusMinus }) => ({ of, plusMinus }),
    input: (row) => ({ of: trimmed(row, "of"), per: perOfRow(row), plusMinus: plusMinusOf(row) }),
  },
  temperature: {
    name: msg`temperature`,
    columns: [perColumn, numberColumn("plusMinus", "±, °C")],
    row: ({ plusMinus }) => ({ plusMinus }),
    input: (row) => ({ per: perOfRow(row), plusMinus: plusMinusOf(row) }),
  },
  pH: {
    name: msg`pH`,
    columns: [perColumn, numberColumn("plusMinus", "±")],
    row: ({ plusMinus }) => ({ plusMinus }),
    input: (row) => ({ per: perOfRow(row), plusMinus: plusMinusOf(row) }),
  },
  absorbance: { name: msg`absorbance`, columns: [], row: () => ({}), input: () => ({ per: "trial" }) },
  blank: {
    name: msg`absorbance of the blank`,
    columns: [
      {
        key: "readings",
        label: msg`Cuvettes are read`,
        wide: 2,
        choices: [
          { value: "", label: msg`against the blank` },
          { value: "zeroed", label: msg`against the blank (stated)` },
          { value: "deducted", label: msg`with the blank subtracted` },
        ],
      },
    ],
    row: ({ readings }) => ({ readings: text(readings) }),
    input: ({ readings }) => ({
      per: "run",
      ...(readings === "zeroed" || readings === "deducted" ? { readings } : {}),
    }),
  },
  "read-off": {
    name: msg`read off a line`,
    columns: [
      { key: "stage", label: msg`Stage`, wide: 2.5, choices: "stages" },
      { key: "result", label: msg`By the absorbance`, wide: 2, reading: true },
      ofColumn,
    ],
    row: ({ of, stage, reading }) => ({ of, stage, result: reading }),
    input: (row) => ({
      of: trimmed(row, "of"),
      per: "trial",
      stage: trimmed(row, "stage"),
      reading: trimmed(row, "result"),
    }),
  },
  trace: { name: msg`absorbance in time`, columns: [], row: () => ({}), input: () => ({ per: "trial" }) },
  meter: {
    name: msg`calibration of a pH meter`,
    columns: [],
    row: () => ({}),
    input: () => ({ per: "run" }),
  },
  curve: {
    name: msg`titration curve`,
    columns: [
      { key: "titrant", label: msg`Titrant, formula` },
      {
        key: "reads",
        label: msg`Read`,
        choices: [
          { value: "pH", label: "pH" },
          { value: "mV", label: msg`potential, mV` },
          { value: "absorbance", label: msg`absorbance` },
          { value: "conductance", label: msg`conductance, mS` },
        ],
      },
      numberColumn("plusMinus", msg`± of the meter`),
    ],
    row: ({ titrant, reads, plusMinus }) => ({ titrant, reads, plusMinus }),
    input: (row) => ({
      ...{ per: "trial", titrant: text(row.titrant) },
      reads: (text(row.reads) || "pH") as InputOf<"curve">["reads"],
      plusMinus: decimal(row.plusMinus),
    }),
  },
  given: {
    name: msg`stated, or from the shelf`,
    columns: [
      perColumn,
      { ...ofColumn, label: msg`Solution, formula (for the shelf)` },
      { key: "unit", label: msg`Unit` },
      numberColumn("value", msg`Presumed`),
      numberColumn("plusMinus", "±"),
      numberColumn("usual", msg`For plans`),
      { key: "optional", label: msg`Needed`, wide: 1.4, choices: yesNo(msg`can be left out`, msg`needed`) },
      {
        key: "exact",
        label: msg`Has a ±`,
        wide: 1.4,
        choices: yesNo(msg`none: counted or chosen`, msg`yes`),
      },
    ],
    row: ({ of, unit, presumed, usual, optional, exact }) => ({
      ...(of === undefined ? {} : { of }),
      unit,
      value: text(presumed?.value),
      plusMinus: text(presumed?.plusMinus),
      usual: text(usual),
      optional: optional ? "yes" : "",
      exact: exact ? "yes" : "",
    }),
    input: (row) => ({
      per: row.per === "trial" ? "trial" : "run",
      unit: trimmed(row, "unit"),
      ...(given(row.of) ? { of: trimmed(row, "of") } : {}),
      ...(given(row.value) ? { presumed: { value: decimal(row.value), plusMinus: plusMinusOf(row) } } : {}),
      ...(given(row.usual) ? { usual: decimal(row.usual) } : {}),
      ...(row.optional === "yes" ? { optional: true } : {}),
      ...(row.exact === "yes" ? { exact: true } : {}),
    }),
  },
  result: {
    name: msg`result of a stage before`,
    columns: [
      { key: "stage", label: msg`Stage`, wide: 2.5, choices: "stages" },
      { key: "result", label: msg`Its result (empty: the main one)`, wide: 2, reading: true },
      ofColumn,
    ],
    row: ({ of, stage, result }) => ({ of, stage, result: text(result) }),
    input: (row) => ({
      of: trimmed(row, "of"),
      per: "run",
      stage: trimmed(row, "stage"),
      ...(given(row.result) ? { result: trimmed(row, "result") } : {}),
    }),
  },
  constant: {
    name: msg`constant`,
    columns: [
      numberColumn("value", msg`Value`),
      { key: "unit", label: msg`Unit` },
      numberColumn("plusMinus", "±"),
    ],
    row: ({ value, unit, plusMinus }) => ({ value, unit, plusMinus: text(plusMinus) }),
    input: (row) => ({
      value: decimal(row.value),
      unit: trimmed(row, "unit"),
      ...(given(row.plusMinus) ? { plusMinus: plusMinusOf(row) } : {}),
    }),
  },
};

const editingOf = (is: Input["is"]) => kinds[is] as unknown as Editing<Input>;

/** Kinds by what the method editor calls them, in the order in which it offers them. */
export const inputKindNames: readonly { readonly value: string; readonly label: Phrase }[] = Object.entries(
  kinds,
).map(([value, { name }]) => ({ value, label: name }));

const isKind = (is: string | undefined): is is Input["is"] => is !== undefined && Object.hasOwn(kinds, is);

/** What the method editor asks of a kind, behind letter and label. */
export const columnsOfKind = (is: string | undefined): readonly Column[] =>
  isKind(is) ? kinds[is].columns : [];

/** An input as a row of texts; the columns that its kind does not have stay empty. */
export function rowOfInput(input: Input): Row {
  const { is, symbol, label } = input;
  return {
    ...{ is, symbol, label, per: "per" in input ? input.per : "run" },
    ...editingOf(is).row(input),
  };
}

/** The input that a row of texts means; a pipette where it names no kind. */
export function inputOfRow(row: Row): Input {
  const is = isKind(row.is) ? row.is : "pipette";
  const [symbol, label] = [(row.symbol ?? "").trim(), (row.label ?? "").trim()];
  return { is, symbol, label, ...editingOf(is).input(row) } as Input;
}
