import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { useMemo } from "react";
import type { CalibrationStage } from "~/core/method";
import type { LineView, CalibrationEvaluation, UnknownEvaluation } from "~/core/stages";
import { toSignificant } from "~/core/quantity";
import { colors, fonts } from "../../../theme/theme";
import { Chart } from "../../../ui/chart/chart";
import { Sheet } from "../../../ui/sheet";
import { lineOption, readOffPoints } from "./line-option";
import { useSay } from "../../../words/text";
import { unitText } from "~/core/text";

interface LineChartProps {
  stage: CalibrationEvaluation;
  unknown: UnknownEvaluation | null;
  title: string;
}

/** The line as a picture, and the same as a table for those who read it with keys or by ear. */
export function LineChart({ stage, unknown, title }: LineChartProps) {
  const say = useSay();
  const option = useMemo(() => lineOption(stage, unknown, say), [stage, unknown, say]);
  const { line, definition } = stage;
  const offs = readOffPoints(unknown);
  const unit = definition.axis.unit === "1" ? "" : ` ${say(unitText(definition.axis.unit))}`;
  const label = line
    ? say`${line.points.length} readings and the line through them${offs.map((o) => say`; ${o.name} read off at ${toSignificant(o.x, 3)}${unit}`).join("")}`
    : say`The readings so far; no line has been fitted yet`;
  if (stage.levels.every((l) => l.x === null || l.readings.length === 0)) {
    return (
      <Sheet component="section" aria-label={say`Chart of the line`}>
        <Typography color="textSecondary">{say`The line appears with the first standards.`}</Typography>
      </Sheet>
    );
  }
  return (
    <Sheet
      component="section"
      aria-label={say`Chart of the line`}
      sx={{ p: 1.5, pb: 0.5, order: { xs: 4, md: 0 }, minWidth: 0 }}
    >
      <Chart label={label} option={option} height={440} fileName={title} />
      <Box component="details" sx={{ "& summary": { cursor: "pointer", fontWeight: 650, py: 0.5 } }}>
        <summary>{say`The same as a table`}</summary>
        <PointsTable definition={definition} line={line} unit={unit} />
        {!line && <Typography color="textSecondary">{say`No line has been fitted yet.`}</Typography>}
      </Box>
    </Sheet>
  );
}

interface PointsTableProps {
  readonly definition: CalibrationStage;
  readonly line: LineView | null;
  readonly unit: string;
}

function PointsTable({ definition, line, unit }: PointsTableProps) {
  const say = useSay();
  return (
    <Box
      component="table"
      sx={{
        borderCollapse: "collapse",
        mb: 1,
        "& th, & td": { textAlign: "left", pr: 2, py: 0.25, borderTop: `1px solid ${colors.line}` },
        "& td": { fontFamily: fonts.reading },
      }}
    >
      <thead>
        <tr>
          {[definition.axis.name, say`Absorbance`, say`On the line`, say`Residual`, say`Studentized`].map(
            (head) => (
              <th key={head} scope="col">
                {head}
              </th>
            ),
          )}
        </tr>
      </thead>
      <tbody>
        {(line?.points ?? []).map((p) => (
          <tr key={p.readingId}>
            <td>
              {toSignificant(p.x, 4)}
              {unit}
            </td>
            <td>{p.y.toFixed(3)}</td>
            <td>{p.fitted.toFixed(4)}</td>
            <td>{p.residual.toFixed(4)}</td>
            <td>
              {p.studentized.toFixed(2)}
              {p.off ? say` off the line` : ""}
            </td>
          </tr>
        ))}
      </tbody>
    </Box>
  );
}
