import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { lazy, Suspense, useState } from "react";
import { meterOf } from "~/core/inputs";
import type { PointView } from "~/core/record";
import type { CurveEvaluation, CurveStageEvaluation } from "~/core/stages";
import { unitText } from "~/core/text";
import { lineOfCurve } from "~/formats/lines/line";
import { useRunInHand } from "../../../entry/run-context";
import { colors, fonts } from "../../../theme/theme";
import { Sheet } from "../../../ui/sheet";
import { useSay } from "../../../words/text";
import { SaveLine } from "../shared/save-line";
import { curveInputOf } from "./use-curve-entry";

const PointDialog = lazy(() => import("./point-dialog").then((m) => ({ default: m.PointDialog })));

interface CurvePointsProps {
  readonly stage: CurveStageEvaluation;
  readonly curve: CurveEvaluation;
}

/** How many points are listed before somebody asks for all. */
const few = 12;

/** The ledger of a curve: its pairs, the newest first, each of which can be corrected, struck out and restored. */
export function CurvePoints({ stage, curve }: CurvePointsProps) {
  const say = useSay();
  const { locked } = useRunInHand();
  const [opened, setOpened] = useState<PointView | null>(null);
  const [all, setAll] = useState(false);
  const { label, unit } = meterOf(curveInputOf(stage));
  const newest = curve.taken.toReversed();
  const shown = all ? newest : newest.slice(0, few);
  const head = unit === "" ? say(label) : say`${label}, ${unitText(unit)}`;
  if (newest.length === 0) return null;
  const line = lineOfCurve(curveInputOf(stage), curve.record);
  return (
    <Sheet component="section" aria-label={say`Points`}>
      <Typography variant="h2" sx={{ mb: 0.5 }}>
        {curve.points.length === 1 ? say`1 point` : say`${curve.points.length} points`}
      </Typography>
      <Box component="table" sx={{ ...table, width: 1 }}>
        <thead>
          <tr>
            <th>{say`Burette`}</th>
            <th>{say`Added, ${unitText("mL")}`}</th>
            <th>{head}</th>
            <th aria-label={say`Changes`} />
          </tr>
        </thead>
        <tbody>
          {shown.map((point) => (
            <Row
              key={point.id}
              point={point}
              startMl={curve.startMl}
              onOpen={locked ? null : () => setOpened(point)}
            />
          ))}
        </tbody>
      </Box>
      {line && <SaveLine line={line} />}
      {newest.length > few && (
        <Button size="small" onClick={() => setAll(!all)} sx={{ ml: -1 }}>
          {all ? say`Fewer` : say`All ${newest.length}`}
        </Button>
      )}
      {opened && (
        <Suspense fallback={null}>
          <PointDialog stage={stage} curve={curve} point={opened} onClose={() => setOpened(null)} />
        </Suspense>
      )}
    </Sheet>
  );
}

const table = {
  borderCollapse: "collapse",
  "& th": { color: colors.inkSoft, fontWeight: 500, fontSize: "0.85rem", textAlign: "left", py: 0.25 },
  "& td": { fontFamily: fonts.reading, py: 0.1, borderTop: `1px solid ${colors.line}` },
} as const;

interface RowProps {
  readonly point: PointView;
  readonly startMl: number | null;
  readonly onOpen: (() => void) | null;
}

function Row({ point, startMl, onOpen }: RowProps) {
  const say = useSay();
  const { struck, place, buretteMl, text } = point;
  const added = startMl === null ? "" : (buretteMl - startMl).toFixed(2);
  return (
    <Box
      component="tr"
      title={struck ? say`struck out: ${struck.reason}` : undefined}
      sx={struck ? { textDecoration: "line-through", color: colors.inkSoft } : {}}
    >
      <td>{place.burette}</td>
      <td>{added}</td>
      <td>
        {text}
        {place.unsteady && (
          <Box component="span" sx={{ color: colors.amberDeep, fontSize: "0.85rem", ml: 0.75 }}>
            {say`not steady`}
          </Box>
        )}
      </td>
      <Box component="td" sx={{ textAlign: "right" }}>
        {onOpen && (
          <Button
            size="small"
            onClick={onOpen}
            aria-label={say`Change the point at ${place.burette} ${unitText("mL")}`}
            sx={{ minWidth: 0, minHeight: 28, py: 0, px: 0.75 }}
          >
            {struck ? say`restore` : say`change`}
          </Button>
        )}
      </Box>
    </Box>
  );
}
