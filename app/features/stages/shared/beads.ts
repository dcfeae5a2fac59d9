import type { TitrationEvaluation, TrialEvaluation } from "~/core/stages";
import type { BeadRailProps, RailBead } from "../../../ui/bead-rail";
import type { Localized } from "../../../words/text";

/** A rail with what is compared beneath it, where that is said there. */
export interface CaptionedRailProps extends BeadRailProps {
  readonly caption: string | null;
}

/** What a trial is on a rail: in the set, beside it, rough, or struck out. */
export function beadRole({ id, record }: TrialEvaluation, members: readonly string[]): RailBead["role"] {
  if (record.struck) return "struck";
  if (record.kind === "rough") return "rough";
  return members.includes(id) ? "member" : "other";
}

/** The trials of a titration on their rail, with the windows in which they agree; null before the first. */
export function agreementRail(
  { trials, agreement }: TitrationEvaluation,
  say: Localized,
): CaptionedRailProps | null {
  const { members, windows, decimals } = agreement;
  const beads = trials.flatMap((t): RailBead[] =>
    t.compared === null || t.missing
      ? []
      : [{ id: t.id, name: say(t.name), value: t.compared, role: beadRole(t, members) }],
  );
  if (beads.length === 0) return null;
  const label = say(agreement.label);
  return { caption: label, beads, collars: windows, label, decimals };
}
