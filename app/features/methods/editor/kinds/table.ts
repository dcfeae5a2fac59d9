import type { ComputedStage } from "~/core/method";
import type { EditedKind } from "./kind";
import { curve } from "./curve";
import { isotherm } from "./isotherm";
import { calibration, rate, unknown } from "./photometer";
import { preparation } from "./preparation";
import { titration } from "./titration";

type Kinds = { readonly [K in ComputedStage["kind"]]: EditedKind<Extract<ComputedStage, { kind: K }>> };

const kinds: Kinds = { titration, preparation, calibration, unknown, rate, curve, isotherm };

/** How a stage is written in the editor; the union of stages is matched with the table here, and nowhere else. */
export const editedKind = ({ kind }: { readonly kind: ComputedStage["kind"] }) =>
  kinds[kind] as unknown as EditedKind;

const all = Object.keys(kinds) as ComputedStage["kind"][];

/** All ways to begin a stage, with the kind that it is of. */
export const starters = all.flatMap((kind) =>
  editedKind({ kind }).starters.map((starter) => ({ kind, starter })),
);

/** The kinds that a stage can be changed into. */
export const switchable = all.filter((kind) => editedKind({ kind }).switchable);
