import Box from "@mui/material/Box";
import { Link } from "react-router";
import type { RunRecord, UsedSolution } from "~/core/run";
import type { FieldState } from "~/core/stages";
import { howWords } from "~/protocol/concentration";
import { colors } from "../../../theme/theme";
import { When } from "../../../ui/when";
import { useSay } from "../../../words/text";

/** The bottle that a value came from, where it came from one and nothing was typed over it. */
export function bottleUsed(
  states: readonly FieldState[],
  { solutions }: RunRecord,
): UsedSolution | undefined {
  const main = states.find(({ field }) => field.kind === "given" || field.kind === "purity");
  const id = main?.present?.assignment;
  return id ? solutions?.find((s) => s.assignmentId === id) : undefined;
}

/** From which bottle a value came, and how old its concentration is. */
export function FromBottle({ used }: { used: UsedSolution }) {
  const say = useSay();
  return (
    <Box component="span" sx={{ color: colors.inkSoft }}>
      {say`from`}{" "}
      <Link to={`/shelf/${used.solutionId}`} style={{ color: colors.teal }}>
        {used.code}
      </Link>
      , {say(howWords[used.how])} <When at={used.at} />
    </Box>
  );
}
