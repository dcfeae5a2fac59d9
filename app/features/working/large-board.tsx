import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import Typography from "@mui/material/Typography";
import { type KeyboardEvent, useState } from "react";
import type { WorkingStep } from "~/core/stages";
import { colors } from "../../theme/theme";
import { Formulas } from "./step";
import { useSay } from "../../words/text";

interface LargeBoardProps {
  readonly title: string;
  readonly steps: readonly WorkingStep[];
  readonly onClose: () => void;
}

/** The working for a class that looks at a screen: one step at a time, by the arrow keys. */
export function LargeBoard({ title, steps, onClose }: LargeBoardProps) {
  const say = useSay();
  const [at, setAt] = useState(0);
  const step = steps[at];
  const go = (by: number) => setAt((now) => Math.min(steps.length - 1, Math.max(0, now + by)));
  const onKeyDown = (event: KeyboardEvent) => {
    const by = { ArrowRight: 1, PageDown: 1, ArrowLeft: -1, PageUp: -1 }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    go(by);
  };
  if (!step) return null;
  return (
    <Dialog open fullScreen onClose={onClose} onKeyDown={onKeyDown} aria-labelledby="large-step">
      <Box sx={boardStyle}>
        <Box sx={{ display: "flex", flexWrap: "wrap", alignItems: "baseline", gap: 2 }}>
          <Typography color="textSecondary" sx={{ flexGrow: 1, fontSize: "1.2rem" }}>
            {title}
          </Typography>
          <Typography color="textSecondary" sx={{ fontSize: "1.2rem" }}>
            {say`Step ${at + 1} of ${steps.length}`}
          </Typography>
        </Box>
        <Box aria-live="polite" sx={{ alignSelf: "center", minWidth: 0 }}>
          <Typography
            id="large-step"
            component="h2"
            sx={{ fontSize: { xs: "1.6rem", sm: "2.4rem" }, fontWeight: 700, mb: 2 }}
          >
            {say(step.title)}
          </Typography>
          <Formulas step={step} large />
        </Box>
        <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1.5 }}>
          <Button variant="outlined" size="large" disabled={at === 0} onClick={() => go(-1)}>
            {say`Previous step`}
          </Button>
          <Button
            variant="contained"
            size="large"
            autoFocus
            disabled={at === steps.length - 1}
            onClick={() => go(1)}
          >
            {say`Next step`}
          </Button>
          <Button size="large" color="secondary" onClick={onClose} sx={{ ml: "auto" }}>
            {say`Close`}
          </Button>
        </Box>
      </Box>
    </Dialog>
  );
}

const boardStyle = {
  minHeight: 1,
  display: "grid",
  gridTemplateRows: "auto 1fr auto",
  gap: 3,
  p: { xs: 2, sm: 5 },
  bgcolor: colors.sheet,
} as const;
