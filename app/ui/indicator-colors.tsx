import Box from "@mui/material/Box";
import type { Indicator } from "~/core/plan";
import { colors } from "../theme/theme";

/** The two colors of an indicator, side by side, in the order in which the axis rises. */
export function IndicatorColors({ indicator: { low, high } }: { readonly indicator: Indicator }) {
  return (
    <Box aria-hidden="true" sx={{ display: "flex", borderRadius: "4px", overflow: "hidden" }}>
      {[low, high].map(({ color }, i) => (
        <Box
          key={i}
          sx={{ width: 12, height: 20, bgcolor: color, boxShadow: `inset 0 0 0 1px ${colors.line}` }}
        />
      ))}
    </Box>
  );
}
