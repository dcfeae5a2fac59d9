import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import type { BackupView, LabView } from "~/protocol/lab";
import { colors } from "../../theme/theme";
import { Sheet } from "../../ui/sheet";
import { When } from "../../ui/when";
import type { Ask } from "./ask";
import { BackupList } from "./backup-list";
import { useSay } from "../../words/text";

interface BackupsSheetProps {
  readonly lab: LabView;
  readonly newest: BackupView | undefined;
  readonly busy: boolean;
  readonly ask: Ask;
  readonly setRestoring: (to: BackupView | null) => void;
  readonly setLooking: (to: BackupView | null) => void;
}

/** The backups of a lab, and what can be done with each. */
export function BackupsSheet({ lab, newest, busy, ask, setRestoring, setLooking }: BackupsSheetProps) {
  const say = useSay();
  return (
    <Sheet component="section" aria-labelledby="backups" sx={{ p: { xs: 2, sm: 2.5 } }}>
      <Box sx={{ display: "flex", alignItems: "flex-start", gap: 2, flexWrap: "wrap", mb: 1.5 }}>
        <Box sx={{ flex: "1 1 260px" }}>
          <Typography id="backups" variant="h2">
            {say`Backups`}
          </Typography>
          <Typography sx={{ color: lab.backupTrouble ? colors.brick : colors.inkSoft }}>
            {lab.backupTrouble ??
              (newest ? (
                <>
                  {say`Newest:`} <When at={newest.at} as="time" />
                  {newest.verifiedAt && say`, verified`}.
                </>
              ) : (
                say`None yet. The first one is made automatically an hour after the lab begins.`
              ))}
          </Typography>
        </Box>
        <Button variant="contained" size="large" disabled={busy} onClick={() => ask({ intent: "backup" })}>
          {say`Back up now`}
        </Button>
      </Box>
      <BackupList backups={lab.backups} busy={busy} onRestore={setRestoring} onRuns={setLooking} />
      <Typography variant="body2" color="textSecondary" sx={{ mt: 1.5 }}>
        {say`Made daily and before each migration; seven days and four weeks are kept. Each is an exact copy of the lab. ${lab.copies === null ? say`Set BACKUP_DIR to keep a second copy on another disk.` : say`A second copy of each is kept in ${lab.copies}.`}`}
      </Typography>
    </Sheet>
  );
}
