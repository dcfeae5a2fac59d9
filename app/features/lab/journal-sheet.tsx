import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { counted } from "~/core/text";
import type { LabView } from "~/protocol/lab";
import { fonts } from "../../theme/theme";
import { Sheet } from "../../ui/sheet";

/** What is written down before anything counts as saved. */
export function JournalSheet({ lab: { journal, recovered } }: { readonly lab: LabView }) {
  return (
    <Sheet component="section" aria-labelledby="journal" sx={{ p: { xs: 2, sm: 2.5 } }}>
      <Typography id="journal" variant="h2">
        Journal
      </Typography>
      <Typography color="textSecondary" sx={{ mb: 1 }}>
        Every change is on the disk before it is shown as saved. After a power failure the lab is rebuilt from
        the newest backup and this journal.
      </Typography>
      {recovered.map((what) => (
        <Alert key={what} severity="warning" sx={{ mb: 1 }}>
          {what}
        </Alert>
      ))}
      {journal && (
        <>
          <Typography>
            {counted(journal.lines, "change")},{" "}
            {journal.sinceBackup === null
              ? "and no backup to rebuild from yet. One is made shortly."
              : `${journal.sinceBackup} of them to repeat after a power failure.`}
          </Typography>
          <Typography color="textSecondary" variant="body2" sx={{ overflowWrap: "anywhere" }}>
            Checksum of the last line:{" "}
            <Box component="span" sx={{ fontFamily: fonts.reading }}>
              {journal.check.slice(0, 16)}
            </Box>
          </Typography>
        </>
      )}
    </Sheet>
  );
}
