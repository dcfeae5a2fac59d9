import { Type } from "@sinclair/typebox";
import { graduatedVolume } from "../measure";
import { figuresOf } from "./figures";
import { conditionsOf, nothingTaken, proposedVolume, volumeField, volumeTaken } from "./glass";
import type { InputKind } from "./kind";
import { inputSchema, type Made, Per, Piece, ShortText } from "./parts";
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
    piece: Type.Optional(Piece()),
  });
export type GraduatedInput = Made<typeof graduatedSchema>;

export const usualGraduatedMl = ({ presumed, capacityMl }: GraduatedInput) =>
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
    return graduatedVolume(volumeMl, place, conditionsOf(input, rules), { kind, capacityMl }, symbol);
  },
  figures: ({ presumed }, typed) => figuresOf(typed, "volume.taken", presumed),
  presumed: ({ presumed }) => (presumed === undefined ? {} : { "volume.taken": presumed }),
  usual: usualGraduatedMl,
  measuredBy: ({ glass }) => glass,
  planned: { measured: true, consumed: true },
  amountUnit: "mL",
  suspect: (input) => volumeSuspect(input, 1.4),
  ledger: ({ label }) => [{ head: msg`${label}, mL`, kind: "volume.taken" }],
  proposed: proposedVolume,
};
