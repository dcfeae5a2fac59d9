import { columnsOfKind, inputKindNames } from "~/core/inputs";
import type { Row } from "./row";
import type { Column } from "./row";
import { msg, type Phrase, unitText } from "~/core/text";

const yesNo = (yes: Phrase, no: Phrase) => [
  { value: "yes", label: yes },
  { value: "", label: no },
];

/** Columns of a thing that is read, by its kind. */
export const inputColumns = (
  row: Row,
  earlier: readonly { readonly value: string; readonly label: Phrase }[],
): readonly Column[] => [
  { key: "is", label: msg`Kind`, wide: 2.2, choices: inputKindNames },
  { key: "symbol", label: msg`Letter`, reading: true },
  { key: "label", label: msg`What it is`, wide: 3 },
  ...columnsOfKind(row.is).map(({ choices, ...column }): Column =>
    choices === undefined ? column : { ...column, choices: choices === "stages" ? earlier : choices },
  ),
];

export const equationColumns: readonly Column[] = [
  { key: "name", label: msg`What happens`, wide: 1.6 },
  { key: "equation", label: msg`Equation`, wide: 5, reading: true },
];

export const substanceColumns: readonly Column[] = [
  { key: "formula", label: msg`Formula`, wide: 1.5, reading: true },
  { key: "name", label: msg`Name`, wide: 3 },
];

export const relationColumns: readonly Column[] = [
  { key: "title", label: msg`What it computes`, wide: 2.4 },
  { key: "relation", label: msg`Relation`, wide: 4, reading: true },
  { key: "unit", label: msg`Shown in`, wide: 1 },
];

export const resultColumns: readonly Column[] = [
  { key: "symbol", label: msg`Letter`, reading: true },
  { key: "name", label: msg`Name`, wide: 4 },
  { key: "unit", label: msg`Unit`, wide: 1.2 },
  { key: "whole", label: msg`Shown`, wide: 1.6, choices: yesNo(msg`as a whole number too`, msg`as it is`) },
];

export const ribbonColumns: readonly Column[] = [
  { key: "color", label: msg`Color`, type: "color" },
  { key: "looks", label: msg`Looks`, wide: 3 },
  { key: "do", label: msg`Do`, wide: 2.4 },
  { key: "end", label: msg`Here`, wide: 1.4, choices: yesNo(msg`end point`, msg`go on`) },
];

export const reagentColumns: readonly Column[] = [
  { key: "name", label: msg`Reagent`, wide: 3 },
  { key: "measured", label: msg`Read as`, wide: 1 },
  { key: "amount", label: msg`Amount`, wide: 1.6 },
  { key: "most", label: msg`At most`, reading: true },
  {
    key: "unit",
    label: msg`Unit`,
    wide: 1.1,
    choices: [
      { value: "", label: msg`no number` },
      ...["mL", "L", "g", "mg", "drops"].map((unit) => ({ value: unit, label: unitText(unit) })),
    ],
  },
  {
    key: "of",
    label: msg`For`,
    wide: 1.3,
    choices: [
      { value: "", label: msg`each flask` },
      { value: "series", label: msg`the whole series` },
    ],
  },
  { key: "exact", label: msg`How exact`, wide: 1.3, choices: yesNo(msg`exact`, msg`about`) },
  { key: "when", label: msg`When`, wide: 2.6 },
  { key: "last", label: msg`Added`, wide: 1.4, choices: yesNo(msg`at the last`, msg`at once`) },
];

export const conditionColumns: readonly Column[] = [
  { key: "what", label: msg`What must hold`, wide: 4 },
  {
    key: "of",
    label: msg`Of`,
    wide: 1.2,
    choices: [
      { value: "", label: msg`the flask` },
      { value: "flask", label: msg`the flask (stated)` },
      { value: "solid", label: msg`the solid` },
      { value: "room", label: msg`the room` },
    ],
  },
  { key: "from", label: msg`From, °C`, reading: true },
  { key: "to", label: msg`To, °C`, reading: true },
  { key: "minutes", label: msg`Minutes`, reading: true },
  {
    key: "counts",
    label: msg`Counts as`,
    wide: 1.2,
    choices: [
      { value: "", label: msg`not said` },
      { value: "for", label: msg`exactly that long` },
      { value: "within", label: "at most" },
    ],
  },
  { key: "strict", label: msg`Strict`, wide: 1.2, choices: yesNo(msg`strict`, msg`loose`) },
];
