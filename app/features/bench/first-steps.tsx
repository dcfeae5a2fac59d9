import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import ButtonBase from "@mui/material/ButtonBase";
import Typography from "@mui/material/Typography";
import { useFetcher } from "react-router";
import { colors } from "../../theme/theme";
import { Sheet } from "../../ui/sheet";
import { simulateInstruments } from "../instruments/settings";
import type { Way } from "./ways";

const ways: readonly { readonly way: Way; readonly title: string; readonly note: string }[] = [
  {
    way: "standardize",
    title: "Standardize a solution",
    note: "Find the exact concentration of a titrant against a primary standard.",
  },
  {
    way: "unknown",
    title: "Find an unknown",
    note: "Titrate a sample, and carry the result back to what was weighed or measured out.",
  },
  {
    way: "absorbance",
    title: "Read absorbances",
    note: "Calibration line, unknowns, spectra and kinetic runs at the photometer.",
  },
];

interface FirstStepsProps {
  /** True in a lab where nothing was ever done. */
  readonly empty: boolean;
  readonly onStart: (way: Way | null) => void;
}

/** What to do on an empty bench: in a new lab, what the product is and the three ways in. */
export function FirstSteps({ empty, onStart }: FirstStepsProps) {
  return (
    <Sheet component="section" aria-label="First steps" sx={{ p: { xs: 2, sm: 3 }, display: "grid", gap: 2 }}>
      <Box>
        <Typography variant="h2">{empty ? "Welcome to Steady Bead" : "Nothing is on the bench"}</Typography>
        <Typography color="textSecondary" sx={{ mt: 0.5, maxWidth: 720 }}>
          {empty
            ? "Type what you read at the burette, the balance and the photometer. Steady Bead computes as you type, tells you when trials agree, and shows the working behind every number."
            : "Start a run: choose a method, name the sample, and begin with the first flask."}
        </Typography>
      </Box>
      <Box
        sx={{
          display: "grid",
          gap: 1.5,
          gridTemplateColumns: { xs: "minmax(0,1fr)", sm: "repeat(3, minmax(0,1fr))" },
        }}
      >
        {ways.map(({ way, title, note }) => (
          <ButtonBase key={way} onClick={() => onStart(way)} sx={wayStyle}>
            <Box component="span" sx={{ fontWeight: 700, fontSize: "1.1rem", color: colors.tealDeep }}>
              {title}
            </Box>
            <Box component="span" sx={{ color: colors.inkSoft, lineHeight: 1.35 }}>
              {note}
            </Box>
          </ButtonBase>
        ))}
      </Box>
      <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap", alignItems: "center" }}>
        <Button
          onClick={() => {
            simulateInstruments();
            onStart("standardize");
          }}
        >
          Try it with simulated instruments
        </Button>
        {empty && <LoadDemo />}
      </Box>
    </Sheet>
  );
}

function LoadDemo() {
  const fetcher = useFetcher<{ message: string }>();
  const busy = fetcher.state !== "idle";
  return (
    <fetcher.Form method="post" action="/?index">
      <input type="hidden" name="intent" value="demo" />
      <Button type="submit" disabled={busy}>
        {busy ? "Loading the demo data …" : "Load the demo data"}
      </Button>
      {fetcher.data?.message && <Alert severity="error">{fetcher.data.message}</Alert>}
    </fetcher.Form>
  );
}

const wayStyle = {
  display: "grid",
  gap: 0.5,
  alignContent: "start",
  justifyItems: "start",
  textAlign: "left",
  p: 2,
  border: `1.5px solid ${colors.lineStrong}`,
  borderRadius: "12px",
  font: "inherit",
  "&:hover, &:focus-visible": { borderColor: colors.teal, bgcolor: colors.tealWash },
} as const;
