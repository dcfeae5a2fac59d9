import Box from "@mui/material/Box";
import type { TitrationEvaluation } from "~/core/run";
import { colors } from "../../theme/theme";
import { numbersOut } from "../../ui/number-text";

/** Where the end should come and where to slow down; or what is missing to say so. */
export function GuidanceLine({ stage, closed }: { stage: TitrationEvaluation; closed: boolean }) {
  const { guidance, current } = stage;
  const first = current?.missing;
  const text = guidance
    ? guidance.text
    : first && (first.kind === "mass.before" || first.kind === "mass.after")
      ? "Weigh first: then it is known where the end should come."
      : "Nothing is known yet about where the end comes: titrate a rough one fast, and see.";
  const stop = guidance !== null && !guidance.roomLeft;
  return (
    <Box
      role="status"
      sx={{
        bgcolor: stop ? colors.amberPale : closed || !guidance ? colors.tealWash : colors.pinkPale,
        color: stop ? colors.amberDeep : colors.ink,
        borderRadius: "10px",
        px: 1.75,
        py: 1.25,
        fontSize: "1.05rem",
        lineHeight: 1.4,
        fontWeight: stop ? 700 : 400,
      }}
    >
      {closed
        ? "The set is closed. Another trial may be added, it will be judged with the others."
        : numbersOut(text)}
    </Box>
  );
}
