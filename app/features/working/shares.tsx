import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { Link } from "react-router";
import type { Share } from "~/core/judgement";
import { colors, fonts } from "../../theme/theme";
import { Sheet } from "../../ui/sheet";
import { useSay } from "../../words/text";
import { uncapitalized } from "~/core/text";

const percent = (part: number) => (part < 0.005 ? "< 1 %" : `${Math.round(part * 100)} %`);

/** Uncertainty budget: shares of the variance, largest first; an earlier stage opens to its own causes. */
export function Shares({
  shares,
  workingHref,
}: {
  shares: readonly Share[];
  workingHref: (stage: string) => string;
}) {
  const say = useSay();
  return (
    <Sheet component="section" aria-labelledby="shares-title">
      <Typography id="shares-title" variant="h2" sx={{ mb: 1 }}>
        {say`Uncertainty budget`}
      </Typography>
      {shares.length === 0 && <Typography color="textSecondary">{say`No trial counts yet.`}</Typography>}
      {shares.map(({ id, from, label, part, leaves }) => {
        const earlier = from?.stage ?? null;
        return (
          <Box key={id} sx={{ mb: 1.5 }}>
            <Box sx={{ display: "flex", justifyContent: "space-between", gap: 1 }}>
              {earlier ? (
                <Box component={Link} to={workingHref(earlier)} sx={{ color: colors.teal, fontWeight: 650 }}>
                  {say(label)}
                </Box>
              ) : (
                <span>{say(label)}</span>
              )}
              <Box component="span" sx={{ fontFamily: fonts.reading, whiteSpace: "nowrap" }}>
                {percent(part)}
              </Box>
            </Box>
            <Box sx={{ height: 9, borderRadius: 5, bgcolor: "#eae8de", overflow: "hidden" }}>
              <Box
                sx={{
                  width: `${part * 100}%`,
                  height: "100%",
                  bgcolor: colors.teal,
                  opacity: 0.45 + 0.55 * part,
                }}
              />
            </Box>
            {earlier && leaves.length > 1 && (
              <Typography variant="caption" color="textSecondary">
                {say`of which ${leaves
                  .slice(0, 3)
                  .map((leaf) => `${say(uncapitalized(leaf.label))} ${percent(leaf.part)}`)
                  .join(", ")}`}
              </Typography>
            )}
          </Box>
        );
      })}
    </Sheet>
  );
}
