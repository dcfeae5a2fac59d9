import Box from "@mui/material/Box";
import type { Share } from "~/core/judgement";
import { useSay } from "../words/text";
import { fills, percent, segmentsOf } from "./share-segments";
import { colors, fonts } from "../theme/theme";

/** The uncertainty budget as one bar, a segment for each cause, and the causes beneath it. */
export function ShareBar({ shares }: { readonly shares: readonly Share[] }) {
  const say = useSay();
  const segments = segmentsOf(shares, say);
  if (segments.length === 0) return null;
  return (
    <Box component="figure" sx={{ m: 0 }}>
      <Box
        role="img"
        aria-label={say`Uncertainty budget: ${segments.map(({ label, part }) => `${label} ${percent(part)}`).join(", ")}`}
        sx={{ display: "flex", gap: "2px", height: 16, borderRadius: "8px", overflow: "hidden" }}
      >
        {segments.map(({ id, part }, i) => (
          <Box
            key={id}
            style={{ flexGrow: Math.max(part, 0.004), backgroundColor: fills[i] }}
            sx={{ printColorAdjust: "exact" }}
          />
        ))}
      </Box>
      <Box
        component="ul"
        aria-hidden="true"
        sx={{
          listStyle: "none",
          m: 0,
          p: 0,
          mt: 0.75,
          display: "flex",
          flexWrap: "wrap",
          columnGap: 2,
          rowGap: 0.25,
        }}
      >
        {segments.map(({ id, label, part }, i) => (
          <Box
            component="li"
            key={id}
            sx={{ display: "flex", alignItems: "baseline", gap: 0.75, fontSize: "0.9rem" }}
          >
            <Box
              component="span"
              style={{ backgroundColor: fills[i] }}
              sx={{ width: 10, height: 10, borderRadius: "3px", flex: "none", printColorAdjust: "exact" }}
            />
            <span>{label}</span>
            <Box component="span" sx={{ fontFamily: fonts.reading, color: colors.inkSoft }}>
              {percent(part)}
            </Box>
          </Box>
        ))}
      </Box>
    </Box>
  );
}
