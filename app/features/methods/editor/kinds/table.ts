import type { ComputedStage } from "~/core/method";
import type { EditedKind } from "./kind";
import { calibration, rate, unknown } from "./photometer";
import { preparation } from "./preparation";
import { titration } from "./titration";

type Kinds = { readonly [K in ComputedStage["kind"]]: EditedKind<Extract<ComputedStage, { kind: K }>> };

const kinds: Kinds = { titration, preparation, calibration, unknown, rate };

/** How a stage is written in the editor; the union of stages is matched with the table here, and nowhere else. */
export const editedKind = ({ kind }: { readonly kind: ComputedStage["kind"] }) =>
  kinds[kind] as unknown as EditedKind;

/** The kinds of which a new stage can be begun in the editor. */
export const begunKinds = (Object.keys(kinds) as ComputedStage["kind"][]).flatMap((kind) => {
  const { words, starter } = editedKind({ kind });
  return starter === null ? [] : [{ kind, words, starter }];
});
