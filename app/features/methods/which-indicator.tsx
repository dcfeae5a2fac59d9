import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { useId, useMemo, useState } from "react";
import { acidOf } from "~/catalog/constants/acids";
import { indicators, type KnownIndicator } from "~/catalog/constants/indicators";
import { type PlannedCurve, type RatedIndicator, ratedIndicators } from "~/core/plan";
import { capitalized, inEnglish, msg, type Phrase } from "~/core/text";
import { colors, fonts } from "../../theme/theme";
import { Chart } from "../../ui/chart/chart";
import { noPrint } from "../../ui/page";
import { useSay } from "../../words/text";
import { indicatorOption } from "./which-indicator-option";

type Rated = RatedIndicator<KnownIndicator>;

interface WhichIndicatorProps {
  readonly curve: PlannedCurve;
  /** What the method says of its indicator. */
  readonly used: string;
  /** A drop of the burette, mL. */
  readonly dropMl: number;
}

const sign = (x: number): string => (x < 0 ? "−" : "+");

const millilitersOff = ({ errorMl }: Rated): Phrase =>
  msg`${sign(errorMl)}${Math.abs(errorMl).toFixed(2)} mL`;

const percentOff = ({ relative }: Rated): string =>
  `${sign(relative)}${Math.abs(100 * relative).toFixed(Math.abs(relative) < 0.001 ? 2 : Math.abs(relative) < 0.1 ? 1 : 0)} %`;

/** How late or early an indicator changes, with its part of the titer. */
const errorWords = (rated: Rated): Phrase => msg`${millilitersOff(rated)} (${percentOff(rated)})`;

/** A larger part of the titer than this is no end point for a determination. Common practice, no source. */
const tolerable = 0.02;

/** What is to be said of the indicator that a method uses. */
function verdictOn(used: Rated | undefined, best: Rated | undefined): Phrase {
  if (!best) return "";
  const bestName = capitalized(best.indicator.name);
  const advice =
    best.suits || Math.abs(best.relative) <= tolerable
      ? msg`${bestName} comes nearest: ${errorWords(best)}.`
      : msg`None of these changes near it: take the whole curve with a pH meter.`;
  if (!used) return advice;
  const name = capitalized(used.indicator.name);
  if (used.suits)
    return msg`${name}, which this method uses, suits: the middle of its change is off by ${errorWords(used)}.`;
  if (used === best)
    return msg`${name}, which this method uses, comes nearest, and is off by ${errorWords(used)}.`;
  return used.errorMl < 0
    ? msg`${name}, which this method uses, changes early: ${errorWords(used)}. ${advice}`
    : msg`${name}, which this method uses, changes late: ${errorWords(used)}. ${advice}`;
}

/** The curve that theory gives for a planned titration, and how far from its equivalence point each indicator changes. */
export function WhichIndicator({ curve, used, dropMl }: WhichIndicatorProps) {
  const say = useSay();
  const group = useId();
  const rated = useMemo(() => ratedIndicators(curve, indicators, dropMl), [curve, dropMl]);
  const own = rated.find(({ indicator }) => used.toLowerCase().includes(inEnglish(indicator.name)));
  const [chosen, setChosen] = useState<string | null>(null);
  const shown = rated.find(({ indicator }) => indicator.key === chosen) ?? own ?? rated[0];
  if (!shown) return null;
  const poor = own !== undefined && Math.abs(own.relative) > tolerable;
  const carbonated = curve.titrated.flask.acids.some(({ acid }) => acid === acidOf("carbonic"));
  return (
    <Box sx={{ mt: 2, pt: 1.5, borderTop: `1px solid ${colors.line}`, ...noPrint }}>
      <Typography variant="h3">{say`Which indicator?`}</Typography>
      <Typography
        sx={{ maxWidth: 720, color: poor ? colors.brick : colors.ink, fontWeight: poor ? 650 : 400 }}
      >
        {say(verdictOn(own, rated[0]))}
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
          label={say`Titration curve by theory: pH ${curve.pH.toFixed(2)} at the equivalence point, ${curve.equivalenceMl.toFixed(2)} mL; ${shown.indicator.name} changes from pH ${shown.indicator.from} to ${shown.indicator.to}`}
          option={indicatorOption(curve, shown.indicator, say)}
          height={290}
          fileName="titration-curve"
        />
        <Box role="radiogroup" aria-label={say`Indicators, best first`}>
          {rated.map((one) => (
            <Row
              key={one.indicator.key}
              rated={one}
              chosen={one === shown}
              own={one === own}
              group={group}
              onChoose={() => setChosen(one.indicator.key)}
            />
          ))}
        </Box>
      </Box>
      <Typography variant="body2" color="textSecondary">
        {say`By theory at ${curve.setting.celsius} °C, ${curve.setting.activity === "none" ? say`without activity coefficients` : say`with activity coefficients by Davies`}: pH ${curve.pH.toFixed(2)} at the equivalence point. The error is that of the middle of the change; an indicator suits where it is within a drop, or 0.2 % of the titer.`}
        {carbonated &&
          ` ${say`Carbon dioxide is taken to stay in the flask; where it is boiled off, the jump is larger.`}`}
      </Typography>
    </Box>
  );
}

interface RowProps {
  readonly rated: Rated;
  readonly chosen: boolean;
  readonly own: boolean;
  /** Of the buttons of which one is chosen. */
  readonly group: string;
  readonly onChoose: () => void;
}

function Row({ rated, chosen, own, group, onChoose }: RowProps) {
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
        aria-label={say`${indicator.name}, ${indicator.acid.looks} to ${indicator.base.looks}, pH ${indicator.from} to ${indicator.to}, ${errorWords(rated)}`}
        name={group}
        checked={chosen}
        onChange={onChoose}
        sx={{ position: "absolute", opacity: 0, pointerEvents: "none" }}
      />
      <Box aria-hidden="true" sx={{ display: "flex", borderRadius: "4px", overflow: "hidden" }}>
        {[indicator.acid.color, indicator.base.color].map((color, i) => (
          <Box
            key={i}
            sx={{ width: 12, height: 20, bgcolor: color, boxShadow: `inset 0 0 0 1px ${colors.line}` }}
          />
        ))}
      </Box>
      <Box component="span" sx={{ minWidth: 0, lineHeight: 1.25 }}>
        <Box component="span" sx={{ fontWeight: suits ? 650 : 400, display: "block" }}>
          {say(indicator.name)}
        </Box>
        <Box component="span" sx={quiet}>
          {say`pH ${indicator.from} to ${indicator.to}`}
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
