import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { counted } from "~/core/text";
import type { LabView } from "~/protocol/lab";
import { fonts } from "../../theme/theme";
import { Sheet } from "../../ui/sheet";
import { useSay } from "../../words/text";

/** What is written down before anything counts as saved. */
export function JournalSheet({ lab: { journal, recovered } }: { readonly lab: LabView }) {
  const say = useSay();
  return (
    <Sheet component="section" aria-labelledby="journal" sx={{ p: { xs: 2, sm: 2.5 } }}>
      <Typography id="journal" variant="h2">
        {say`Journal`}
      </Typography>
      <Typography color="textSecondary" sx={{ mb: 1 }}>
        {say`Every change is on the disk before it is shown as saved. After a power failure the lab is rebuilt from the newest backup and this journal.`}
      </Typography>
      {recovered.map((what) => (
        <Alert key={what} severity="warning" sx={{ mb: 1 }}>
          {what}
        </Alert>
      ))}
      {journal && (
        <>
          <Typography>
            {say`${counted(journal.lines, "change")}, ${journal.sinceBackup === null ? say`and no backup to rebuild from yet. One is made shortly.` : say`${journal.sinceBackup} of them to repeat after a power failure.`}`}
          </Typography>
          <Typography color="textSecondary" variant="body2" sx={{ overflowWrap: "anywhere" }}>
            {say`Checksum of the last line:`}{" "}
            <Box component="span" sx={{ fontFamily: fonts.reading }}>
              {journal.check.slice(0, 16)}
            </Box>
          </Typography>
        </>
      )}
    </Sheet>
  );
}
