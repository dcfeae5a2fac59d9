import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import type { ReportDocument } from "~/formats/report/document";
import { offeredExports } from "~/formats/exports/offered";
import { colors } from "../../theme/theme";
import { noPrint } from "../../ui/page";
import { Sheet } from "../../ui/sheet";
import { useSay } from "../../words/text";

/** The files in which a run leaves the lab, each with what it is good for. */
export function Files({ report: { id: runId, hasLines } }: { readonly report: ReportDocument }) {
  const say = useSay();
  const offered = offeredExports.filter((one) => hasLines || !("ofLines" in one));
  return (
    <Sheet component="section" aria-labelledby="files-title" sx={noPrint}>
      <Typography id="files-title" variant="h2" sx={{ mb: 1 }}>
        {say`Files`}
      </Typography>
      <Box
        component="ul"
        sx={{
          listStyle: "none",
          m: 0,
          p: 0,
          display: "grid",
          gap: 1.5,
          gridTemplateColumns: { xs: "minmax(0, 1fr)", sm: "repeat(2, minmax(0, 1fr))" },
        }}
      >
        {offered.map(({ key, label, use }) => (
          <li key={key}>
            <Box
              component="a"
              href={`/runs/${runId}/export/${key}`}
              download
              sx={{ color: colors.teal, fontWeight: 650, display: "inline-block", py: 0.25 }}
            >
              {say(label)}
            </Box>
            <Typography variant="body2" color="textSecondary">
              {say(use)}
            </Typography>
          </li>
        ))}
      </Box>
    </Sheet>
  );
}
