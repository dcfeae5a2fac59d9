import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import GlobalStyles from "@mui/material/GlobalStyles";
import Typography from "@mui/material/Typography";
import { Link } from "react-router";
import { colors, fonts } from "../../theme/theme";
import { noPrint, Page } from "../../ui/page";
import { Sheet } from "../../ui/sheet";
import { useSay } from "../../words/text";
import { Letterhead } from "../report/letterhead";
import { stacked } from "../report/stacked";
import { checkedBy, checksumsOf, keyOfLab } from "../report/words";
import { ResultsTable, Scatter } from "../series/results-table";
import type { ClassSheet } from "./class-sheet";

interface ClassSheetProps {
  readonly sheet: ClassSheet;
  /** Whose sheet it is; empty where the lab has no header. */
  readonly letterhead: string;
  /** Where the same is had as PDF. */
  readonly pdf: string;
}

/** Several runs on one sheet, to print: a table for each method, with mean and scatter, and by what each record is proven. */
export function ClassSheetPage({ sheet, letterhead, pdf }: ClassSheetProps) {
  const say = useSay();
  const { groups, heads } = sheet;
  return (
    <Page
      width={1120}
      title={<Box component="span" sx={noPrint}>{say`Class sheet`}</Box>}
      note={<Box component="span" sx={noPrint}>{say`As it will be printed, a table for each method.`}</Box>}
      actions={
        <>
          <Button variant="contained" onClick={() => window.print()}>
            {say`Print`}
          </Button>
          <Button component="a" href={pdf} download variant="outlined">
            {say`Save as PDF`}
          </Button>
          <Button component={Link} to="/history" variant="outlined">
            {say`Back to the history`}
          </Button>
        </>
      }
    >
      <GlobalStyles
        styles={`@page { margin: 16mm; @bottom-right { content: counter(page) " / " counter(pages); font: 8pt ${fonts.text}; color: #56625f; } }`}
      />
      <Sheet
        component="article"
        aria-label={say`Class sheet`}
        sx={{
          ...stacked(3),
          p: { xs: 2, sm: 4 },
          "@media print": { border: 0, p: 0, fontSize: "10pt" },
        }}
      >
        <Letterhead text={letterhead} />
        <Typography variant="h1">{say`Results of ${heads.length} runs`}</Typography>
        {groups.map(({ method, table }) => (
          <Box component="section" key={method} aria-label={method}>
            <Typography variant="h2" sx={{ mb: 1 }}>
              {method}
            </Typography>
            <Box sx={{ overflowX: "auto" }} role="region" aria-label={say`Results of ${method}`} tabIndex={0}>
              <ResultsTable table={table} />
            </Box>
            <Scatter table={table} />
          </Box>
        ))}
        <Proofs sheet={sheet} />
        <Box sx={{ borderTop: `1px solid ${colors.ink}`, pt: 0.5, mt: 5, width: 280 }}>
          <Typography variant="body2">{say(checkedBy)}</Typography>
        </Box>
      </Sheet>
    </Page>
  );
}

/** By what a copy of each record is proven. */
function Proofs({ sheet: { heads, labKey } }: Pick<ClassSheetProps, "sheet">) {
  const say = useSay();
  return (
    <Box component="section" sx={{ breakInside: "avoid" }}>
      <Typography variant="body2" color="textSecondary">
        {say(checksumsOf)}
      </Typography>
      {heads.map(({ title, head }) => (
        <Box key={head} sx={{ fontSize: "0.82rem", display: "flex", gap: 1.5, flexWrap: "wrap" }}>
          <span>{title}</span>
          <Box component="span" sx={{ fontFamily: fonts.reading, overflowWrap: "anywhere" }}>
            {head}
          </Box>
        </Box>
      ))}
      {labKey !== null && (
        <Typography variant="body2" color="textSecondary" sx={{ mt: 0.5 }}>
          {say(keyOfLab)}{" "}
          <Box component="span" sx={{ fontFamily: fonts.reading }}>
            {labKey}
          </Box>
        </Typography>
      )}
    </Box>
  );
}
