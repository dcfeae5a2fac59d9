import { Type } from "@sinclair/typebox";
import { graduatedVolume } from "../measure";
import { decimal, given, numberColumn, ofColumn, perColumn, perOfRow, text, trimmed } from "./edit";
import { figuresOf } from "./figures";
import { proposedVolume, nothingTaken, volumeConditions, volumeField, volumeTaken } from "./glass";
import type { InputKind } from "./kind";
import { inputSchema, type Made, Per, ShortText } from "./parts";
import { volumeSuspect } from "./suspect";
import { msg } from "../text";

/** A pipette with a scale, or a measuring cylinder: any volume up to its capacity. */
export const graduatedSchema = () =>
  inputSchema("graduated", {
    of: ShortText,
    per: Per,
    glass: Type.Union([Type.Literal("graduated pipette"), Type.Literal("cylinder")]),
    capacityMl: Type.Number({ exclusiveMinimum: 0 }),
    presumed: Type.Optional(ShortText),
  });
export type GraduatedInput = Made<typeof graduatedSchema>;

const usualMl = ({ presumed, capacityMl }: GraduatedInput) =>
  presumed === undefined ? capacityMl / 2 : Number(presumed);

export const graduated: InputKind<GraduatedInput> = {
  unit: () => "mL",
  decimals: () => 2,
  fields: (input, setting) => {
    const { glass, capacityMl } = input;
    return [volumeField(input, setting, msg`The ${glass}`, msg`${capacityMl} mL ${glass}`, capacityMl)];
  },
  quantity: (input, read, place, rules) => {
    const { symbol, glass: kind, capacityMl } = input;
    const volumeMl = volumeTaken(input, read, place);
    if (volumeMl === null) return null;
    if (volumeMl === 0) return nothingTaken;
    return graduatedVolume(volumeMl, place, volumeConditions(rules), { kind, capacityMl }, symbol);
  },
  figures: ({ presumed }, typed) => figuresOf(typed, "volume.taken", presumed),
  presumed: ({ presumed }) => (presumed === undefined ? {} : { "volume.taken": presumed }),
  usual: usualMl,
  measuredBy: ({ glass }) => glass,
  planned: { measured: true, consumed: true },
  simulate: (input, { aim }) => ({ "volume.taken": (aim ?? usualMl(input)).toFixed(1) }),
  amountUnit: "mL",
  suspect: (input) => volumeSuspect(input, 1.4),
  ledger: ({ label }) => [{ head: msg`${label}, mL`, kind: "volume.taken" }],
  proposed: proposedVolume,
  described: () => "",
  edit: {
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
};
