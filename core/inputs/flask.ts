import { flaskVolume } from "../measure";
import { decimal, numberColumn, ofColumn, perColumn, perOfRow, trimmed } from "./edit";
import { figuresOf } from "./figures";
import { proposedVolume, flaskChecks, volumeConditions, volumeField, volumeTaken } from "./glass";
import type { InputKind } from "./kind";
import { inputSchema, type Made, Per, ShortText } from "./parts";
import { volumeSuspect } from "./suspect";
import { msg, unitText } from "../text";

/** A volumetric flask made up to its mark. */
export const flaskSchema = () => inputSchema("flask", { of: ShortText, per: Per, presumed: ShortText });
export type FlaskInput = Made<typeof flaskSchema>;

export const flask: InputKind<FlaskInput> = {
  unit: () => "mL",
  decimals: () => 1,
  fields: (input, setting, rules) => [
    volumeField(
      input,
      setting,
      msg`The flask`,
      msg`class ${rules.glassware.toleranceClass} volumetric flask`,
      5000,
    ),
  ],
  quantity: (input, read, place, rules) => {
    const volumeMl = volumeTaken(input, read, place);
    return volumeMl === null ? null : flaskVolume(volumeMl, place, volumeConditions(rules), input.symbol);
  },
  checks: (_input, typed) => flaskChecks(typed),
  figures: ({ presumed }, text) => figuresOf(text, "volume.taken", presumed),
  presumed: ({ presumed }) => ({ "volume.taken": presumed }),
  usual: ({ presumed }) => Number(presumed),
  measuredBy: () => "flask",
  planned: { measured: false, consumed: false },
  simulate: ({ presumed }, { aim }) => ({ "volume.taken": aim === undefined ? presumed : aim.toFixed(2) }),
  amountUnit: "mL",
  suspect: (input) => volumeSuspect(input, 1.4),
  ledger: ({ label }) => [{ head: msg`${label}, mL`, kind: "volume.taken" }],
  proposed: proposedVolume,
  described: ({ presumed }) => msg`, ${presumed} mL`,
  edit: {
    name: msg`volumetric flask`,
    columns: [ofColumn, perColumn, numberColumn("value", unitText("mL"))],
    row: ({ of, presumed }) => ({ of, value: presumed }),
    input: (row) => ({ of: trimmed(row, "of"), per: perOfRow(row), presumed: decimal(row.value) }),
  },
};
