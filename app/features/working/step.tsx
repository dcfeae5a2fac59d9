import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import type { WorkingStep } from "~/core/stages";
import type { RunRecord } from "~/core/run";
import { colors } from "../../theme/theme";
import { Tex } from "../../ui/tex";
import { OriginNote } from "./origin-note";
import { useSay } from "../../words/text";

interface StepProps {
  step: WorkingStep;
  number: number;
  workingHref: (stage: string) => string;
  /** Bottles from the shelf that readings can name. */
  solutions?: RunRecord["solutions"];
}

const numberStyle = {
  width: 28,
  height: 28,
  borderRadius: "50%",
  bgcolor: colors.teal,
  color: "#fff",
  display: "grid",
  placeItems: "center",
  fontWeight: 700,
  fontSize: "0.92rem",
} as const;

/** One step of the board: heading, names, numbers, value; each input opens to where it came from. */
export function Step({ step, number, workingHref, solutions = [] }: StepProps) {
  const say = useSay();
  const [open, setOpen] = useState<string | null>(null);
  const opened = step.inputs.find(({ key }) => key === open);
  return (
    <Box
      component="li"
      sx={{
        display: "grid",
        // Where the numbers come from stands beside the formulas, where there is room.
        gridTemplateColumns: { xs: "34px minmax(0,1fr)", lg: "34px minmax(0,1fr) minmax(160px, 240px)" },
        columnGap: 1.25,
        breakInside: "avoid",
      }}
    >
      <Box aria-hidden="true" sx={numberStyle}>
        {number}
      </Box>
      <Box sx={{ minWidth: 0 }}>
        <Typography sx={{ fontWeight: 700, mb: 0.5 }}>{say(step.title)}</Typography>
        <Formulas step={step} />
      </Box>
      <Box sx={{ minWidth: 0, gridColumn: { xs: 2, lg: 3 } }}>
        {step.inputs.length > 0 && (
          <Box
            sx={{
              display: "flex",
              flexWrap: "wrap",
              columnGap: 1,
              ml: -1,
              "@media print": { display: "none" },
            }}
          >
            {step.inputs.map(({ key, label }) => (
              <Button
                key={key}
                size="small"
                aria-expanded={open === key}
                onClick={() => setOpen(open === key ? null : key)}
                sx={{ textDecoration: "underline", textUnderlineOffset: 3, px: 1, minHeight: 30, py: 0 }}
              >
                {say(label)}
              </Button>
            ))}
          </Box>
        )}
        {opened && <OriginNote origin={opened.origin} workingHref={workingHref} solutions={solutions} />}
      </Box>
    </Box>
  );
}

export function Formulas({ step, large = false }: { readonly step: WorkingStep; readonly large?: boolean }) {
  const say = useSay();
  return (
    <Box
      sx={{
        overflowX: "auto",
        overflowY: "hidden",
        fontSize: large ? { xs: "1.3rem", sm: "2rem", md: "2.5rem" } : { xs: "0.98rem", sm: "1.12rem" },
        whiteSpace: "nowrap",
        "& .katex": { lineHeight: 1.6 },
      }}
      tabIndex={0}
      role="group"
      aria-label={say(step.valueText)}
    >
      {step.names && (
        <Box sx={{ py: 0.5 }}>
          <Tex tex={step.names} />
        </Box>
      )}
      {step.numbers && (
        <Box sx={{ py: 0.5, color: colors.inkSoft }}>
          <Tex tex={step.numbers} />
        </Box>
      )}
      <Box sx={{ py: 0.25, display: "flex", flexWrap: "wrap", alignItems: "center", columnGap: 2 }}>
        <Box sx={{ "& .katex": { fontWeight: 700 } }}>
          <Tex tex={`\\boldsymbol{${step.value}}`} />
        </Box>
      </Box>
    </Box>
  );
}
