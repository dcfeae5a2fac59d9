import { Type } from "@sinclair/typebox";
import { pipetteVolume } from "../measure";
import { figuresOf } from "./figures";
import {
  calibratedOf,
  conditionsOf,
  proposedVolume,
  pieceDecimals,
  pieceHint,
  pipetteChecks,
  nothingTaken,
  volumeField,
  volumeTaken,
} from "./glass";
import type { InputKind } from "./kind";
import { inputSchema, type Made, Per, Piece, ShortText } from "./parts";
import { volumeSuspect } from "./suspect";
import { msg } from "../text";

/** A one-mark pipette. */
export const pipetteSchema = () =>
  inputSchema("pipette", {
    of: ShortText,
    per: Per,
    /** The usual volume in mL, as it would be typed. */
    presumed: ShortText,
    piece: Type.Optional(Piece()),
  });
export type PipetteInput = Made<typeof pipetteSchema>;

export const pipette: InputKind<PipetteInput> = {
  unit: () => "mL",
  decimals: (input) => pieceDecimals(input, 2),
  fields: (input, setting, rules) => [
    volumeField(input, setting, msg`The pipette`, pieceHint(input, rules, msg`pipette`), 200),
    {
      symbol: input.symbol,
      kind: "glass.piece",
      label: msg`${input.label}: pipette no.`,
      short: msg`pipette no.`,
      unit: "",
      hint: msg`2 for a second one of the same size`,
      rules: { instrument: msg`It`, unit: "", decimals: 0, least: 1, most: 99 },
      optional: true,
      outOfTurn: true,
    },
  ],
  quantity: (input, read, place, rules) => {
    const volumeMl = volumeTaken(input, read, place);
    if (volumeMl === 0) return nothingTaken;
    return volumeMl === null
      ? null
      : pipetteVolume(
          volumeMl,
          place,
          conditionsOf(input, rules),
          input.symbol,
          read("glass.piece"),
          calibratedOf(input, volumeMl),
        );
  },
  checks: (_input, typed) => pipetteChecks(typed),
  figures: ({ presumed }, text) => figuresOf(text, "volume.taken", presumed),
  presumed: ({ presumed }) => ({ "volume.taken": presumed }),
  usual: ({ presumed }) => Number(presumed),
  measuredBy: () => "pipette",
  planned: { measured: true, consumed: true },
  amountUnit: "mL",
  suspect: (input) => volumeSuspect(input, 1.4),
  ledger: () => [{ head: msg`Aliquot, mL`, kind: "volume.taken" }],
  proposed: proposedVolume,
};
