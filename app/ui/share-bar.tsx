import Box from "@mui/material/Box";
import type { Share } from "~/core/judgement";
import { useSay } from "../words/text";
import { colors, fonts } from "../theme/theme";

/** Fills of the segments, the largest share first: neighbors differ in lightness, so that they part without color. */
const fills = ["#0f5a5e", "#8fbab4", "#3f7f80", "#c4dad5", "#5f6b68"] as const;

/** More segments than this are told together. */
const most = 5;

interface Segment {
  readonly id: string;
  readonly label: string;
  readonly part: number;
}

function segmentsOf(shares: readonly Share[], say: ReturnType<typeof useSay>): readonly Segment[] {
  const named = shares.map(({ id, label, part }) => ({ id, label: say(label), part }));
  if (named.length <= most) return named;
  const rest = named.slice(most - 1);
  const part = rest.reduce((sum, one) => sum + one.part, 0);
  return [...named.slice(0, most - 1), { id: "rest", label: say`${rest.length} others`, part }];
}

const percent = (part: number) => (part < 0.005 ? "< 1 %" : `${Math.round(part * 100)} %`);

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
