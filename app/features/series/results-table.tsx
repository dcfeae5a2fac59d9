import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { Link } from "react-router";
import { type SeriesRow, type SeriesTable, seriesRemark } from "~/core/evaluate";
import { unitText } from "~/core/text";
import { colors, fonts } from "../../theme/theme";
import { useSay } from "../../words/text";
import { columnsOf, errorWords, resultWords, roleWords, scatterWords } from "./results-words";

const cell = { px: { xs: 1.25, sm: 2 }, py: 1, textAlign: "left", verticalAlign: "baseline" } as const;
const numeric = { ...cell, textAlign: "right", fontFamily: fonts.reading, whiteSpace: "nowrap" } as const;

/** Runs of one method, a line each: the result, and what it says beside the others. */
export function ResultsTable({ table }: { readonly table: SeriesTable }) {
  const say = useSay();
  const { rows, name, unit } = table;
  const { known, beside } = columnsOf(table);
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
  const { runId, sample, title, bench, role, within, state, done } = row;
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
        {say(resultWords(row))}
      </Box>
      {known && (
        <Box
          component="td"
          sx={{ ...numeric, ...(within === false ? { color: colors.brick, fontWeight: 600 } : {}) }}
        >
          {say(errorWords(row))}
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
export function Scatter({ table }: { readonly table: SeriesTable }) {
  const say = useSay();
  const words = scatterWords(table);
  return (
    words && (
      <Typography color="textSecondary" sx={{ mt: 1.5 }}>
        {say(words)}
      </Typography>
    )
  );
}
