import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import type { TitrationEvaluation, TrialEvaluation } from "~/core/stages";
import { BeadRail, type RailBead } from "../../../ui/bead-rail";
import { useSay } from "../../../words/text";

/** What a trial is on a rail: in the set, beside it, rough, or struck out. */
export function beadRole({ id, record }: TrialEvaluation, members: readonly string[]): RailBead["role"] {
  if (record.struck) return "struck";
  if (record.kind === "rough") return "rough";
  return members.includes(id) ? "member" : "other";
}

/** The trials of a titration on their rail, with what is compared beneath it; nothing before the first. */
export function AgreementRail({ stage: { trials, agreement } }: { readonly stage: TitrationEvaluation }) {
  const say = useSay();
  const beads = trials.flatMap((t): RailBead[] =>
    t.compared === null || t.missing
      ? []
      : [{ id: t.id, name: say(t.name), value: t.compared, role: beadRole(t, agreement.members) }],
  );
  if (beads.length === 0) return null;
  return (
    <Box sx={{ maxWidth: 460 }}>
      <BeadRail
        beads={beads}
        collars={agreement.windows}
        label={say(agreement.label)}
        decimals={agreement.decimals}
      />
      <Typography
        variant="caption"
        color="textSecondary"
        sx={{ display: "block", textAlign: "center", mb: 0.5 }}
      >
        {say(agreement.label)}
      </Typography>
    </Box>
  );
}
