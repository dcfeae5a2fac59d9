import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { useId, useMemo, useState } from "react";
import {
  errorWords,
  millilitersOff,
  namedIndicator,
  percentOff,
  type RatedIndicator,
  ratedIndicators,
  type Scale,
  type EndTheory,
  verdictOnIndicator,
} from "~/core/plan";
import { msg, type Phrase } from "~/core/text";
import { colors, fonts } from "../../theme/theme";
import { Chart } from "../../ui/chart/chart";
import { IndicatorColors } from "../../ui/indicator-colors";
import { noPrint } from "../../ui/page";
import { useSay } from "../../words/text";
import { indicatorOption } from "./which-indicator-option";

interface WhichIndicatorProps {
  readonly curve: EndTheory;
  /** What the method says of its indicator. */
  readonly used: string;
  /** A drop of the burette, mL. */
  readonly dropMl: number;
}

/** What the axis shows at a place, with its digits. */
const placeOn: Readonly<Record<Scale["is"], (value: string, metal: string) => Phrase>> = {
  pH: (value) => msg`pH ${value}`,
  pM: (value, metal) => msg`p${metal} ${value}`,
  V: (value) => msg`${value} V`,
};

const rangeOn: Readonly<Record<Scale["is"], (from: string, to: string, metal: string) => Phrase>> = {
  pH: (from, to) => msg`pH ${from} to ${to}`,
  pM: (from, to, metal) => msg`p${metal} ${from} to ${to}`,
  V: (from, to) => msg`${from} to ${to} V`,
};

const metalOf = (scale: Scale): string => (scale.is === "pM" ? scale.metal : "");

/** From where to where an indicator changes: "pH 8.3 to 10". */
function rangeWords({ from, to }: RatedIndicator, scale: Scale): Phrase {
  const text = (x: number) => (scale.is === "V" ? x.toFixed(2) : String(Number(x.toFixed(1))));
  if (text(from) === text(to)) return placeOn[scale.is](text(from), metalOf(scale));
  return rangeOn[scale.is](text(from), text(to), metalOf(scale));
}

/** The curve that theory gives for a planned titration, and how far from its equivalence point each indicator changes. */
export function WhichIndicator({ curve, used, dropMl }: WhichIndicatorProps) {
  const say = useSay();
  const group = useId();
  const rated = useMemo(() => ratedIndicators(curve, dropMl), [curve, dropMl]);
  const own = namedIndicator(rated, used);
  const [chosen, setChosen] = useState<string | null>(null);
  const looked = rated.find(({ indicator }) => indicator.key === chosen) ?? own ?? rated[0];
  if (!looked) return null;
  const { text, poor } = verdictOnIndicator(rated, used);
  const { scale, equivalenceMl } = curve;
  const atEnd = placeOn[scale.is](curve.at(equivalenceMl).toFixed(2), metalOf(scale));
  return (
    <Box sx={{ mt: 2, pt: 1.5, borderTop: `1px solid ${colors.line}`, ...noPrint }}>
      <Typography variant="h3">{say`Which indicator?`}</Typography>
      <Typography
        sx={{ maxWidth: 720, color: poor ? colors.brick : colors.ink, fontWeight: poor ? 650 : 400 }}
      >
        {say(text)}
      </Typography>
      <Box
        sx={{
          display: "grid",
          gap: 2,
          mt: 1,
          alignItems: "start",
          gridTemplateColumns: { xs: "minmax(0,1fr)", sm: "minmax(0,1fr) 290px" },
        }}
      >
        <Chart
          label={say`Titration curve by theory: ${atEnd} at the equivalence point, ${equivalenceMl.toFixed(2)} mL; ${looked.indicator.name} changes at ${rangeWords(looked, scale)}`}
          option={indicatorOption(curve, looked, say)}
          height={290}
          fileName="titration-curve"
        />
        <Box role="radiogroup" aria-label={say`Indicators, best first`}>
          {rated.map((one) => (
            <Row
              key={one.indicator.key}
              rated={one}
              scale={scale}
              chosen={one === looked}
              own={one === own}
              group={group}
              onChoose={() => setChosen(one.indicator.key)}
            />
          ))}
        </Box>
      </Box>
      <Typography variant="body2" color="textSecondary">
        {say`${curve.assumed}: ${atEnd} at the equivalence point. The error is that of the middle of the change, or of the first trace of color where one side has none; an indicator suits where it is within a drop, or 0.2 % of the titer.`}
      </Typography>
    </Box>
  );
}

interface RowProps {
  readonly rated: RatedIndicator;
  readonly scale: Scale;
  readonly chosen: boolean;
  readonly own: boolean;
  /** Of the buttons of which one is chosen. */
  readonly group: string;
  readonly onChoose: () => void;
}

function Row({ rated, scale, chosen, own, group, onChoose }: RowProps) {
  const say = useSay();
  const { indicator, suits } = rated;
  return (
    <Box
      component="label"
      sx={{
        display: "grid",
        gridTemplateColumns: "auto minmax(0,1fr) auto",
        alignItems: "center",
        columnGap: 1,
        px: 1,
        py: 0.5,
        borderRadius: "8px",
        cursor: "pointer",
        bgcolor: chosen ? colors.tealPale : "transparent",
        "&:focus-within": { outline: `2px solid ${colors.teal}` },
      }}
    >
      <Box
        component="input"
        type="radio"
        aria-label={say`${indicator.name}, ${indicator.low.looks} to ${indicator.high.looks}, ${rangeWords(rated, scale)}, ${errorWords(rated)}`}
        name={group}
        checked={chosen}
        onChange={onChoose}
        sx={{ position: "absolute", opacity: 0, pointerEvents: "none" }}
      />
      <IndicatorColors indicator={indicator} />
      <Box component="span" sx={{ minWidth: 0, lineHeight: 1.25 }}>
        <Box component="span" sx={{ fontWeight: suits ? 650 : 400, display: "block" }}>
          {say(indicator.name)}
        </Box>
        <Box component="span" sx={quiet}>
          {say(rangeWords(rated, scale))}
          {own && say`, used here`}
        </Box>
      </Box>
      <Box component="span" sx={{ textAlign: "right", lineHeight: 1.25, whiteSpace: "nowrap" }}>
        <Box
          component="span"
          sx={{ fontFamily: fonts.reading, display: "block", fontWeight: suits ? 700 : 400 }}
        >
          {say(millilitersOff(rated))}
        </Box>
        <Box component="span" sx={{ ...quiet, fontFamily: fonts.reading }}>
          {percentOff(rated)}
        </Box>
      </Box>
    </Box>
  );
}

const quiet = { color: colors.inkSoft, fontSize: "0.85rem" } as const;
