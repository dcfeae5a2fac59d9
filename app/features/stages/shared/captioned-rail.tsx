import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { BeadRail } from "../../../ui/bead-rail";
import type { CaptionedRailProps } from "./beads";

/** Trials on their rail, with what is compared beneath it. */
export function CaptionedRail({ caption, ...rail }: CaptionedRailProps) {
  return (
    <Box sx={{ maxWidth: 460 }}>
      <BeadRail {...rail} />
      {caption !== null && (
        <Typography
          variant="caption"
          color="textSecondary"
          sx={{ display: "block", textAlign: "center", mb: 0.5 }}
        >
          {caption}
        </Typography>
      )}
    </Box>
  );
}
