import type { Check, ReadingRules } from "../measure";
import type { Field } from "./field";
import type { InputBase, Typed } from "./kind";
import { msg } from "../text";

/** Fields of a cuvette on a photometer; `again` is the one reading of a standard at the end. */
export function photometerFields({ symbol, label }: InputBase, again: boolean): Field[] {
  const rules: ReadingRules = {
    instrument: msg`The photometer`,
    unit: "",
    decimals: null,
    least: -0.5,
    most: 4,
  };
  const field = { symbol, unit: "", rules, optional: true };
  return [
    { ...field, kind: "absorbance", label, hint: msg`when it is steady`, many: true },
    {
      ...field,
      kind: "transmittance",
      label: msg`${label}, as transmittance`,
      unit: "%",
      hint: msg`turned into absorbance`,
      rules: { ...rules, unit: "%", least: 0, aboveZero: true, most: 300 },
      many: true,
      otherWay: true,
    },
    ...(again
      ? [
          {
            ...field,
            kind: "absorbance.again" as const,
            label: msg`Recheck at the end`,
            hint: msg`to check for drift`,
            many: true,
          },
        ]
      : []),
  ];
}

/** An absorbance below what a blank scatters by: the instrument is to be zeroed again. */
export const photometerChecks = ({ value, text }: Typed): Check[] =>
  value < -0.005
    ? [
        {
          severity: "caution",
          kind: "scale",
          message: msg`${text} is below zero: zero on the blank again?`,
        },
      ]
    : [];
