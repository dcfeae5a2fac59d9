import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { indicatorsOn } from "~/core/curves";
import { errorWords, type IndicatorOnAxis, isClose } from "~/core/plan";
import { dropsPerMl } from "~/core/rules";
import type { CurveEvaluation } from "~/core/stages";
import { unitText } from "~/core/text";
import { useRunInHand } from "../../../entry/run-context";
import { colors, fonts } from "../../../theme/theme";
import { IndicatorColors } from "../../../ui/indicator-colors";
import { Sheet } from "../../../ui/sheet";
import { useSay } from "../../../words/text";

interface CurveIndicatorsProps {
  readonly curve: CurveEvaluation;
  /** The end of which they are told, mL. */
  readonly endMl: number;
  /** With their ranges on the axis of the curve. */
  readonly indicators: readonly IndicatorOnAxis[];
  readonly chosen: string | null;
  readonly onChoose: (key: string | null) => void;
  readonly reads: "pH" | "mV";
}

/** So many are listed before somebody asks for all. */
const few = 4;

/** Which indicator would have shown the end of a curve that was taken, and how far off: each as a band on the curve. */
export function CurveIndicators({ curve, endMl, indicators, chosen, onChoose, reads }: CurveIndicatorsProps) {
  const say = useSay();
  const { rules } = useRunInHand();
  const [all, setAll] = useState(false);
  const dropMl = 1 / Number(dropsPerMl(rules));
  const rated = indicatorsOn(curve.points, endMl, indicators);
  if (rated.length === 0) return null;
  return (
    <Sheet component="section" aria-label={say`Which indicator?`}>
      <Typography variant="h2">{say`Which indicator?`}</Typography>
      <Typography color="textSecondary" sx={{ mb: 0.5 }}>
        {say`Where each would have changed on this curve, the nearest first; a drop is ${dropMl.toFixed(2)} ${unitText("mL")}.`}
      </Typography>
      {rated.slice(0, all ? undefined : few).map((one) => {
        const { indicator, from, to } = one;
        const isChosen = chosen === indicator.key;
        return (
          <Button
            key={indicator.key}
            fullWidth
            aria-pressed={isChosen}
            onClick={() => onChoose(isChosen ? null : indicator.key)}
            sx={{
              display: "grid",
              gridTemplateColumns: "auto minmax(0,1fr) auto",
              gap: 1,
              textAlign: "left",
              px: 0.75,
              color: colors.ink,
              fontWeight: isClose(one.errorMl, endMl, dropMl) ? 650 : 400,
              bgcolor: isChosen ? colors.tealPale : "transparent",
            }}
          >
            <IndicatorColors indicator={indicator} />
            <span>
              {reads === "pH"
                ? say`${indicator.name}, pH ${from} to ${to}`
                : say`${indicator.name}, ${from.toFixed(0)} to ${to.toFixed(0)} mV`}
            </span>
            <span style={{ fontFamily: fonts.reading }}>{say(errorWords(one))}</span>
          </Button>
        );
      })}
      {rated.length > few && (
        <Button size="small" onClick={() => setAll(!all)} sx={{ ml: -0.5 }}>
          {all ? say`Fewer` : say`All ${rated.length}`}
        </Button>
      )}
    </Sheet>
  );
}
