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
import { useSay } from "../../words/text";
import { msg, type Phrase } from "~/core/text";

const ways: readonly { readonly way: Way; readonly title: Phrase; readonly note: Phrase }[] = [
  {
    way: "standardize",
    title: msg`Standardize a solution`,
    note: msg`Find the exact concentration of a titrant against a primary standard.`,
  },
  {
    way: "unknown",
    title: msg`Find an unknown`,
    note: msg`Titrate a sample, and carry the result back to what was weighed or measured out.`,
  },
  {
    way: "absorbance",
    title: msg`Read absorbances`,
    note: msg`Calibration line, unknowns, spectra and kinetic runs at the photometer.`,
  },
];

interface FirstStepsProps {
  /** True in a lab where nothing was ever done. */
  readonly empty: boolean;
  readonly onStart: (way: Way | null) => void;
}

/** What to do on an empty bench: in a new lab, what the product is and the three ways in. */
export function FirstSteps({ empty, onStart }: FirstStepsProps) {
  const say = useSay();
  return (
    <Sheet
      component="section"
      aria-label={say`First steps`}
      sx={{ p: { xs: 2, sm: 3 }, display: "grid", gap: 2 }}
    >
      <Box>
        <Typography variant="h2">
          {empty ? say`Welcome to Steady Bead` : say`Nothing is on the bench`}
        </Typography>
        <Typography color="textSecondary" sx={{ mt: 0.5, maxWidth: 720 }}>
          {empty
            ? say`Type what you read at the burette, the balance and the photometer. Steady Bead computes as you type, tells you when trials agree, and shows the working behind every number.`
            : say`Start a run: choose a method, name the sample, and begin with the first flask.`}
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
              {say(title)}
            </Box>
            <Box component="span" sx={{ color: colors.inkSoft, lineHeight: 1.35 }}>
              {say(note)}
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
          {say`Try it with simulated instruments`}
        </Button>
        {empty && <LoadDemo />}
      </Box>
    </Sheet>
  );
}

function LoadDemo() {
  const say = useSay();
  const fetcher = useFetcher<{ message: Phrase }>();
  const busy = fetcher.state !== "idle";
  return (
    <fetcher.Form method="post" action="/?index">
      <input type="hidden" name="intent" value="demo" />
      <Button type="submit" disabled={busy}>
        {busy ? say`Loading the demo data …` : say`Load the demo data`}
      </Button>
      {fetcher.data?.message && <Alert severity="error">{say(fetcher.data.message)}</Alert>}
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
