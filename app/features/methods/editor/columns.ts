import { columnsOfKind, inputKindNames } from "~/core/inputs";
import type { Row } from "./row";
import type { Column } from "./row";

const yesNo = (yes: string, no: string) => [
  { value: "yes", label: yes },
  { value: "", label: no },
];

/** Columns of a thing that is read, by its kind. */
export const inputColumns = (
  row: Row,
  earlier: readonly { readonly value: string; readonly label: string }[],
): readonly Column[] => [
  { key: "is", label: "Kind", wide: 2.2, choices: inputKindNames },
  { key: "symbol", label: "Letter", reading: true },
  { key: "label", label: "What it is", wide: 3 },
  ...columnsOfKind(row.is).map(({ choices, ...column }): Column =>
    choices === undefined ? column : { ...column, choices: choices === "stages" ? earlier : choices },
  ),
];

export const equationColumns: readonly Column[] = [
  { key: "name", label: "What happens", wide: 1.6 },
  { key: "equation", label: "Equation", wide: 5, reading: true },
];

export const substanceColumns: readonly Column[] = [
  { key: "formula", label: "Formula", wide: 1.5, reading: true },
  { key: "name", label: "Name", wide: 3 },
];

export const relationColumns: readonly Column[] = [
  { key: "title", label: "What it computes", wide: 2.4 },
  { key: "relation", label: "Relation", wide: 4, reading: true },
  { key: "unit", label: "Shown in", wide: 1 },
];

export const resultColumns: readonly Column[] = [
  { key: "symbol", label: "Letter", reading: true },
  { key: "name", label: "Name", wide: 4 },
  { key: "unit", label: "Unit", wide: 1.2 },
  { key: "whole", label: "Shown", wide: 1.6, choices: yesNo("as a whole number too", "as it is") },
];

export const ribbonColumns: readonly Column[] = [
  { key: "color", label: "Color", type: "color" },
  { key: "looks", label: "Looks", wide: 3 },
  { key: "do", label: "Do", wide: 2.4 },
  { key: "end", label: "Here", wide: 1.4, choices: yesNo("it ends", "go on") },
];

export const reagentColumns: readonly Column[] = [
  { key: "name", label: "Reagent", wide: 3 },
  { key: "amount", label: "Amount", wide: 1.6 },
  { key: "most", label: "At most", reading: true },
  {
    key: "unit",
    label: "Unit",
    wide: 1.1,
    choices: [
      { value: "", label: "no number" },
      ...["mL", "L", "g", "mg", "drops"].map((unit) => ({ value: unit, label: unit })),
    ],
  },
  {
    key: "of",
    label: "For",
    wide: 1.3,
    choices: [
      { value: "", label: "each flask" },
      { value: "series", label: "the whole series" },
    ],
  },
  { key: "exact", label: "How exact", wide: 1.3, choices: yesNo("exact", "about") },
  { key: "when", label: "When", wide: 2.6 },
  { key: "last", label: "Added", wide: 1.4, choices: yesNo("at the last", "at once") },
];

export const conditionColumns: readonly Column[] = [
  { key: "what", label: "What must hold", wide: 4 },
  {
    key: "of",
    label: "Of",
    wide: 1.2,
    choices: [
      { value: "", label: "the flask" },
      { value: "flask", label: "the flask, said" },
      { value: "solid", label: "the solid" },
      { value: "room", label: "the room" },
    ],
  },
  { key: "from", label: "From, °C", reading: true },
  { key: "to", label: "To, °C", reading: true },
  { key: "minutes", label: "Minutes", reading: true },
  {
    key: "counts",
    label: "Counts as",
    wide: 1.2,
    choices: [
      { value: "", label: "not said" },
      { value: "for", label: "just that" },
      { value: "within", label: "at most" },
    ],
  },
  { key: "strict", label: "Strict", wide: 1.2, choices: yesNo("strict", "loose") },
];
