import Box from "@mui/material/Box";
import type { TitrationStage } from "~/core/method";
import { contrast } from "../theme/contrast";
import { colors } from "../theme/theme";
import { useSay } from "../words/text";

/** Ink or white, whichever is the more legible on a color. */
export const textOn = (color: string): string =>
  contrast(colors.ink, color) >= contrast("#ffffff", color) ? colors.ink : "#ffffff";

/** What the flask looks like during the titration: color and words, the end point in a frame, and where it should be now. */
export function ColorRibbon({ steps, now = null }: { steps: TitrationStage["ribbon"]; now?: number | null }) {
  const say = useSay();
  if (steps.length === 0) return null;
  return (
    <Box
      component="ol"
      aria-label={say`Flask color during the titration`}
      sx={{
        listStyle: "none",
        m: 0,
        p: 0,
        display: "grid",
        gridTemplateColumns: { xs: "1fr 1fr", sm: `repeat(${steps.length}, 1fr)` },
        borderRadius: "10px",
        border: `1px solid ${colors.line}`,
        overflow: "hidden",
      }}
    >
      {steps.map((step, i) => (
        <Box
          component="li"
          key={step.looks}
          aria-current={i === now ? "step" : undefined}
          sx={{
            bgcolor: step.color,
            color: textOn(step.color),
            px: 1.25,
            py: 0.9,
            lineHeight: 1.25,
            fontSize: "0.92rem",
            boxShadow: step.end ? `inset 0 0 0 3px ${colors.ink}` : "none",
          }}
        >
          {i === now && (
            <Box component="span" sx={{ display: "block", fontWeight: 700 }}>
              {say`▸ now`}
            </Box>
          )}
          <Box component="span" sx={{ display: "block", fontWeight: step.end ? 700 : 500 }}>
            {step.looks}
          </Box>
          <Box component="span" sx={{ fontWeight: step.end ? 700 : 400 }}>
            {step.do}
          </Box>
        </Box>
      ))}
    </Box>
  );
}
