import type { TitrationEvaluation } from "~/core/stages";
import { useSay } from "../../../words/text";
import { agreementRail } from "./beads";
import { CaptionedRail } from "./captioned-rail";

/** The trials of a titration on their rail, with what is compared beneath it; nothing before the first. */
export function AgreementRail({ stage }: { readonly stage: TitrationEvaluation }) {
  const say = useSay();
  const rail = agreementRail(stage, say);
  return rail && <CaptionedRail {...rail} />;
}
