import Box from "@mui/material/Box";
import ToggleButton from "@mui/material/ToggleButton";
import ToggleButtonGroup from "@mui/material/ToggleButtonGroup";
import { lazy, Suspense } from "react";
import { useSearchParams } from "react-router";
import { colors } from "../../theme/theme";
import { Page } from "../../ui/page";
import { BalanceCalculator } from "./balance-calculator";
import { ConcentrationCalculator } from "./concentration-calculator";
import { DilutionCalculator, LiquidCalculator, MassCalculator } from "./solution-calculators";
import { MolarMassCalculator } from "./molar-mass-calculator";
import { TiterCalculator } from "./titer-calculator";
import { useSay } from "../../words/text";
import { msg } from "~/core/text";

// Comes with its tables where somebody asks for it.
const CurveCalculator = lazy(() =>
  import("./curve-calculator").then((m) => ({ default: m.CurveCalculator })),
);

const CurveReader = lazy(() => import("./curve-reader").then((m) => ({ default: m.CurveReader })));

const calculators = [
  { key: "molar-mass", label: msg`Molar mass`, Part: MolarMassCalculator },
  { key: "balance", label: msg`Balance an equation`, Part: BalanceCalculator },
  { key: "mass", label: msg`Mass for a solution`, Part: MassCalculator },
  { key: "dilution", label: msg`Dilution`, Part: DilutionCalculator },
  { key: "concentration", label: msg`mol/L, N, %, ppm`, Part: ConcentrationCalculator },
  { key: "liquid", label: msg`Ethanol, % by volume`, Part: LiquidCalculator },
  { key: "titer", label: msg`Expected titer`, Part: TiterCalculator },
  { key: "curve", label: msg`Titration curve`, Part: CurveCalculator },
  { key: "read-curve", label: msg`Read a pH curve`, Part: CurveReader },
] as const;

/** The small calculations of every day, with their working. */
export function CalculatePage() {
  const say = useSay();
  const [search, setSearch] = useSearchParams();
  const chosen = calculators.find(({ key }) => key === search.get("what")) ?? calculators[0];
  return (
    <Page
      title={say`Calculate`}
      note={say`Quick calculations with the working shown. Nothing here is saved.`}
      width={1240}
    >
      <ToggleButtonGroup
        exclusive
        value={chosen.key}
        onChange={(_, key: string | null) =>
          key && setSearch({ what: key }, { replace: true, preventScrollReset: true })
        }
        aria-label={say`What to calculate`}
        sx={{
          mb: 2,
          flexWrap: "wrap",
          gap: 0.75,
          // Each with its own border, since they fill more than one line.
          "& .MuiToggleButton-root": { m: 0, border: `1px solid ${colors.lineStrong}`, borderRadius: "8px" },
        }}
      >
        {calculators.map(({ key, label }) => (
          <ToggleButton key={key} value={key}>
            {say(label)}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
      <Box>
        <Suspense>
          <chosen.Part />
        </Suspense>
      </Box>
    </Page>
  );
}
