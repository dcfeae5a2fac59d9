import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import type { ReportDocument } from "~/formats/report/document";
import { colors, fonts } from "../../theme/theme";
import { together } from "../../ui/number-text";
import { useSay } from "../../words/text";
import { checksumOver, keyOfLab, deferring, signatures } from "./words";

/** What shows whether a copy of the record is as it was. */
export interface ReportProof {
  readonly head: string;
  readonly readings: number;
  /** Fingerprint of the lab's key; null where it has none. */
  readonly key: string | null;
}

interface EndsProps {
  readonly report: ReportDocument;
  readonly proof: ReportProof;
}

/** Cautions and waste, places for signatures, and by what a copy of the record is proven. */
export function Ends({ report, proof }: EndsProps) {
  const say = useSay();
  return (
    <>
      <Box
        component="section"
        sx={{
          display: "grid",
          gap: 2,
          gridTemplateColumns: { xs: "1fr", sm: "1fr 1fr" },
          breakInside: "avoid",
        }}
      >
        <List title={say`Cautions`} items={report.cautions} />
        <List title={say`Waste`} items={report.waste} />
      </Box>
      <Typography variant="body2">{say(deferring)}</Typography>
      <Box
        sx={{
          display: "grid",
          gap: 4,
          gridTemplateColumns: { xs: "1fr", sm: "1fr 1fr" },
          breakInside: "avoid",
          pt: 4,
        }}
      >
        {signatures.map((words, i) => (
          <Box key={i} sx={{ borderTop: `1px solid ${colors.ink}`, pt: 0.5 }}>
            <Typography variant="body2">{say(words)}</Typography>
            {i === 1 && report.countersigned !== null && (
              <Typography variant="body2" data-testid="countersigned">
                {say`Countersigned in the program: ${report.countersigned}`}
              </Typography>
            )}
          </Box>
        ))}
      </Box>
      <Box
        sx={{ borderTop: `1px solid ${colors.line}`, pt: 1, breakInside: "avoid" }}
        data-testid="report-proof"
      >
        <Typography variant="body2" color="textSecondary">
          {say(checksumOver(report.id, proof.readings))}
        </Typography>
        <Box sx={{ fontFamily: fonts.reading, fontSize: "0.82rem", overflowWrap: "anywhere" }}>
          {proof.head}
        </Box>
        {proof.key !== null && (
          <Typography variant="body2" color="textSecondary" sx={{ mt: 0.5 }}>
            {say(keyOfLab)}{" "}
            <Box component="span" sx={{ fontFamily: fonts.reading, fontSize: "0.82rem" }}>
              {proof.key}
            </Box>
          </Typography>
        )}
      </Box>
    </>
  );
}

function List({ title, items }: { readonly title: string; readonly items: readonly string[] }) {
  if (items.length === 0) return null;
  return (
    <Box>
      <Typography variant="h2">{title}</Typography>
      <Box component="ul" sx={{ m: 0, pl: 2.5 }}>
        {items.map((item) => (
          <li key={item}>{together(item)}</li>
        ))}
      </Box>
    </Box>
  );
}
