import { Type } from "@sinclair/typebox";
import { flaskVolume } from "../measure";
import { figuresOf } from "./figures";
import {
  calibratedOf,
  conditionsOf,
  flaskChecks,
  pieceDecimals,
  pieceHint,
  proposedVolume,
  volumeField,
  volumeTaken,
} from "./glass";
import type { InputKind } from "./kind";
import { inputSchema, type Made, Per, Piece, ShortText } from "./parts";
import { volumeSuspect } from "./suspect";
import { msg } from "../text";

/** A volumetric flask made up to its mark. */
export const flaskSchema = () =>
  inputSchema("flask", { of: ShortText, per: Per, presumed: ShortText, piece: Type.Optional(Piece()) });
export type FlaskInput = Made<typeof flaskSchema>;

export const flask: InputKind<FlaskInput> = {
  unit: () => "mL",
  decimals: (input) => pieceDecimals(input, 1),
  fields: (input, setting, rules) => [
    volumeField(input, setting, msg`The flask`, pieceHint(input, rules, msg`volumetric flask`), 5000),
  ],
  quantity: (input, read, place, rules) => {
    const volumeMl = volumeTaken(input, read, place);
    return volumeMl === null
      ? null
      : flaskVolume(volumeMl, place, conditionsOf(input, rules), input.symbol, calibratedOf(input, volumeMl));
  },
  checks: (_input, typed) => flaskChecks(typed),
  figures: ({ presumed }, text) => figuresOf(text, "volume.taken", presumed),
  presumed: ({ presumed }) => ({ "volume.taken": presumed }),
  usual: ({ presumed }) => Number(presumed),
  measuredBy: () => "flask",
  planned: { measured: false, consumed: false },
  amountUnit: "mL",
  suspect: (input) => volumeSuspect(input, 1.4),
  ledger: ({ label }) => [{ head: msg`${label}, mL`, kind: "volume.taken" }],
  proposed: proposedVolume,
};
