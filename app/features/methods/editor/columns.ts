import type { Row } from "./row";
import type { Column } from "./row";

const yesNo = (yes: string, no: string) => [
  { value: "yes", label: yes },
  { value: "", label: no },
];

const kinds = [
  { value: "mass", label: "mass" },
  { value: "purity", label: "purity" },
  { value: "titer", label: "titer" },
  { value: "pipette", label: "one-mark pipette" },
  { value: "graduated", label: "graduated glass" },
  { value: "flask", label: "volumetric flask" },
  { value: "delivered", label: "sample by burette" },
  { value: "drops", label: "drops" },
  { value: "temperature", label: "temperature" },
  { value: "pH", label: "pH" },
  { value: "absorbance", label: "absorbance" },
  { value: "blank", label: "absorbance of the blank" },
  { value: "read-off", label: "read off a line" },
  { value: "trace", label: "absorbance in time" },
  { value: "given", label: "stated, or from the shelf" },
  { value: "result", label: "result of a stage before" },
  { value: "constant", label: "constant" },
];

const per: Column = {
  key: "per",
  label: "Read",
  wide: 1.5,
  choices: [
    { value: "trial", label: "each flask" },
    { value: "run", label: "once" },
  ],
};
const of: Column = { key: "of", label: "Of, formula or name", wide: 2 };
const number = (key: string, label: string, wide = 1): Column => ({ key, label, wide, reading: true });

const particular: Readonly<Record<string, readonly Column[]>> = {
  mass: [
    of,
    per,
    {
      key: "weighing",
      label: "Weighed",
      wide: 2,
      choices: [
        { value: "", label: "by difference: before, after" },
        { value: "transfer", label: "by difference: boat emptied" },
        { value: "addition", label: "by difference: vessel filled" },
        { value: "tared", label: "tared" },
      ],
    },
    number("low", "From, g"),
    number("high", "To, g"),
    number("density", "Density, g/mL"),
  ],
  purity: [of, number("value", "Presumed, %", 1.3), number("plusMinus", "±, %")],
  titer: [
    { ...of, label: "Titrant, formula" },
    number("value", "Indicator turns late by, mL", 2),
    number("plusMinus", "±, mL"),
  ],
  blank: [
    {
      key: "readings",
      label: "Cuvettes are read",
      wide: 2,
      choices: [
        { value: "", label: "against the blank" },
        { value: "zeroed", label: "against the blank, said" },
        { value: "deducted", label: "with the blank deducted" },
      ],
    },
  ],
  pipette: [of, per, number("value", "mL")],
  flask: [of, per, number("value", "mL")],
  graduated: [
    of,
    per,
    {
      key: "glass",
      label: "Glass",
      wide: 2,
      choices: [
        { value: "cylinder", label: "cylinder" },
        { value: "graduated pipette", label: "graduated pipette" },
      ],
    },
    number("capacity", "Holds, mL"),
    number("value", "Usual, mL"),
  ],
  delivered: [of, per],
  drops: [of, per, number("value", "Drops to the mL", 1.5), number("plusMinus", "±")],
  temperature: [per, number("plusMinus", "±, °C")],
  pH: [per, number("plusMinus", "±")],
  constant: [number("value", "Value"), { key: "unit", label: "Unit" }, number("plusMinus", "±")],
  given: [
    per,
    { ...of, label: "Solution, formula (for the shelf)" },
    { key: "unit", label: "Unit" },
    number("value", "Presumed"),
    number("plusMinus", "±"),
    { key: "optional", label: "Needed", wide: 1.4, choices: yesNo("can be left out", "needed") },
    { key: "exact", label: "Has a ±", wide: 1.4, choices: yesNo("none: counted or chosen", "yes") },
  ],
};

/** Columns of a thing that is read, by its kind. */
export function inputColumns(
  row: Row,
  earlier: readonly { readonly value: string; readonly label: string }[],
): readonly Column[] {
  return [
    { key: "is", label: "Kind", wide: 2.2, choices: kinds },
    { key: "symbol", label: "Letter", reading: true },
    { key: "label", label: "What it is", wide: 3 },
    ...(row.is === "result" || row.is === "read-off"
      ? [
          { key: "stage", label: "Stage", wide: 2.5, choices: earlier },
          {
            key: "result",
            label: row.is === "result" ? "Its result (empty: the main one)" : "By the absorbance",
            wide: 2,
            reading: true,
          },
          of,
        ]
      : (particular[row.is ?? ""] ?? [])),
  ];
}

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
