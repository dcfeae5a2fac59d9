import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { colors, fonts } from "../../../theme/theme";
import { Tex } from "../../../ui/tex";
import type { Preview } from "./preview";
import { useSay } from "../../../words/text";

/** What a simulated bench gives: each stage's result, and its working to unfold. */
export function PreviewPanel({ preview }: { preview: Preview }) {
  const say = useSay();
  return (
    <>
      {preview.stages.map(({ key, title, text, steps }) => (
        <Box key={key} sx={{ mb: 1.5 }}>
          <Typography color="textSecondary">{title}</Typography>
          <Box data-testid={`preview-${key}`} sx={{ fontFamily: fonts.reading, fontSize: "1.3rem" }}>
            {say(text)}
          </Box>
          <Box component="details" sx={{ "& summary": { cursor: "pointer", py: 0.5 } }}>
            <summary>{say`Its working`}</summary>
            {steps.map((step) => (
              <Box
                key={step.id}
                tabIndex={0}
                role="group"
                aria-label={say`${step.title}: ${step.valueText}`}
                sx={{ mt: 1, overflowX: "auto", fontSize: "0.92rem" }}
              >
                <Box sx={{ fontWeight: 650 }}>{say(step.title)}</Box>
                {step.names && (
                  <Box sx={{ whiteSpace: "nowrap" }}>
                    <Tex tex={step.names} />
                  </Box>
                )}
                <Box sx={{ whiteSpace: "nowrap", color: colors.inkSoft }}>
                  <Tex tex={`${step.numbers} ${step.value}`} />
                </Box>
              </Box>
            ))}
          </Box>
        </Box>
      ))}
    </>
  );
}
