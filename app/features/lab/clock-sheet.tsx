import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import type { LabView } from "~/protocol/lab";
import { colors } from "../../theme/theme";
import { Sheet } from "../../ui/sheet";
import { type WhoWhyState, Who } from "../../ui/who-why";
import type { Ask } from "./ask";
import { useSay } from "../../words/text";

interface ClockSheetProps {
  readonly lab: LabView;
  readonly by: WhoWhyState;
  readonly busy: boolean;
  readonly ask: Ask;
}

/** Whether the clock by which all times go was set back. */
export function ClockSheet({ lab, by, busy, ask }: ClockSheetProps) {
  const say = useSay();
  return (
    <Sheet component="section" aria-labelledby="clock" sx={{ p: { xs: 2, sm: 2.5 } }}>
      <Typography id="clock" variant="h2">
        {say`Clock`}
      </Typography>
      <Typography sx={{ color: lab.clock ? colors.brick : colors.inkSoft, mb: lab.clock ? 1.5 : 0 }}>
        {lab.clock ?? say`This computer's clock has not been set back.`}
      </Typography>
      {lab.clock && (
        <Box sx={{ display: "grid", gap: 1.5 }}>
          <Typography>
            {say`If the clock was ahead before and is right now, confirm it. Times and timers then go by it.`}
          </Typography>
          <Who by={by} problem={undefined} />
          <Button
            variant="outlined"
            disabled={busy || by.person.trim() === ""}
            onClick={() => ask({ intent: "clock", person: by.person })}
          >
            {say`Confirm the clock`}
          </Button>
        </Box>
      )}
    </Sheet>
  );
}
