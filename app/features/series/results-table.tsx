import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { Link } from "react-router";
import { type SeriesRow, type SeriesTable, seriesRemark } from "~/core/evaluate";
import { toDecimals, toSignificant, withUnit } from "~/core/quantity";
import type { Role } from "~/core/run";
import { msg, type Phrase, unitText } from "~/core/text";
import { colors, fonts } from "../../theme/theme";
import { useSay } from "../../words/text";

const roleWords: Readonly<Record<Role, Phrase>> = {
  sample: "",
  duplicate: msg`duplicate`,
  spiked: msg`spiked`,
  check: msg`check standard`,
};

const cell = { px: { xs: 1.25, sm: 2 }, py: 1, textAlign: "left", verticalAlign: "baseline" } as const;
const numeric = { ...cell, textAlign: "right", fontFamily: fonts.reading, whiteSpace: "nowrap" } as const;

/** Runs of one method, a line each: the result, and what it says beside the others. */
export function ResultsTable({ table: { rows, name, unit } }: { readonly table: SeriesTable }) {
  const say = useSay();
  const known = rows.some(({ errorPercent }) => errorPercent !== null);
  const beside = rows.some((row) => seriesRemark(row) !== "");
  const head = { ...cell, color: colors.inkSoft, fontWeight: 600, fontSize: "0.9rem" } as const;
  return (
    <Box component="table" sx={{ borderCollapse: "collapse", width: "100%", minWidth: 560 }}>
      <thead>
        <tr>
          <Box component="th" sx={head}>{say`Sample`}</Box>
          <Box component="th" sx={{ ...head, textAlign: "right" }}>
            {name}, {say(unitText(unit))}
          </Box>
          {known && <Box component="th" sx={{ ...head, textAlign: "right" }}>{say`error, %`}</Box>}
          {beside && <Box component="th" sx={head}>{say`Comparison`}</Box>}
          <Box component="th" sx={head}>{say`Bench or person`}</Box>
          <Box component="th" sx={head}>{say`State`}</Box>
        </tr>
      </thead>
      <tbody>
        {rows.map((row) => (
          <ResultRow key={row.runId} row={row} known={known} beside={beside} />
        ))}
      </tbody>
    </Box>
  );
}

interface ResultRowProps {
  readonly row: SeriesRow;
  readonly known: boolean;
  readonly beside: boolean;
}

function ResultRow({ row, known, beside }: ResultRowProps) {
  const say = useSay();
  const { runId, sample, title, bench, role, shown, errorPercent, within, state, done } = row;
  return (
    <Box component="tr" sx={{ borderTop: `1px solid ${colors.line}` }}>
      <Box component="td" sx={cell}>
        <Link to={`/runs/${runId}`} style={{ color: colors.teal, fontWeight: 600, whiteSpace: "nowrap" }}>
          {sample || title}
        </Link>
        {roleWords[role] !== "" && (
          <Box
            component="span"
            sx={{ color: colors.inkSoft, display: { xs: "block", sm: "inline" }, ml: { xs: 0, sm: 1 } }}
          >
            {say(roleWords[role])}
          </Box>
        )}
      </Box>
      <Box component="td" sx={{ ...numeric, ...(done ? {} : { color: colors.inkSoft }) }}>
        {shown && !done && `${say`so far`} `}
        {shown ? (shown.plusMinus === "0" ? shown.value : `${shown.value} ± ${shown.plusMinus}`) : "–"}
      </Box>
      {known && (
        <Box
          component="td"
          sx={{ ...numeric, ...(within === false ? { color: colors.brick, fontWeight: 600 } : {}) }}
        >
          {errorPercent === null ? "" : toDecimals(errorPercent, 2)}
          {within === false && ` ${say`outside`}`}
        </Box>
      )}
      {beside && (
        <Box component="td" sx={cell}>
          {say(seriesRemark(row))}
        </Box>
      )}
      <Box component="td" sx={cell}>
        {bench}
      </Box>
      <Box component="td" sx={{ ...cell, color: colors.inkSoft }}>
        {say(state)}
      </Box>
    </Box>
  );
}

/** The mean of samples and duplicates, and how far they scatter. */
export function Scatter({
  table: { count, mean, standardDeviation: s, unit },
}: {
  readonly table: SeriesTable;
}) {
  const say = useSay();
  if (count < 2 || mean === null || s === null) return null;
  const relative = mean === 0 ? null : (100 * s) / Math.abs(mean);
  return (
    <Typography color="textSecondary" sx={{ mt: 1.5 }}>
      {say(
        msg`Samples and duplicates whose result stands: ${count}. Mean ${withUnit(toSignificant(mean, 4), unit)}, s = ${withUnit(toSignificant(s, 2), unit)}`,
      )}
      {relative === null ? "." : say(msg` (${toSignificant(relative, 2)} %).`)}{" "}
      {say`Check standards and spiked samples are left out.`}
    </Typography>
  );
}
