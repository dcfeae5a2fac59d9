import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { BackupView } from "~/protocol/lab";
import { fonts } from "../../theme/theme";
import { linedTable } from "../../ui/lined-table";
import { When } from "../../ui/when";
import { useSay } from "../../words/text";

interface BackupListProps {
  backups: readonly BackupView[];
  busy: boolean;
  onRestore: (backup: BackupView) => void;
  onRuns: (backup: BackupView) => void;
}

/** The backups that are kept, the newest first, with what can be done with each. */
export function BackupList({ backups, busy, onRestore, onRuns }: BackupListProps) {
  const say = useSay();
  if (backups.length === 0) return null;
  return (
    <Box sx={{ overflowX: "auto" }} tabIndex={0} role="region" aria-label={say`Backups that are kept`}>
      <Box component="table" sx={{ ...linedTable, whiteSpace: "nowrap" }}>
        <thead>
          <tr>
            {[say`Made`, say`Why`, say`Runs`, say`Size`, say`Verified`, ""].map((head) => (
              <th key={head} scope="col">
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {backups.map((backup) => (
            <tr key={backup.name} data-testid="backup">
              <td>
                <When at={backup.at} as="time" />
              </td>
              <td>{backup.reason}</td>
              <Box component="td" sx={{ fontFamily: fonts.reading }}>
                {backup.runs}
              </Box>
              <Box component="td" sx={{ fontFamily: fonts.reading }}>
                {say`${(backup.bytes / 1024 / 1024).toFixed(1)} MB`}
              </Box>
              <td>{backup.verifiedAt === null ? say`no` : say`yes`}</td>
              <td>
                <Button size="small" disabled={busy} onClick={() => onRestore(backup)}>
                  {say`Restore the lab`}
                </Button>
                <Button size="small" disabled={busy} onClick={() => onRuns(backup)}>
                  {say`Restore a run`}
                </Button>
              </td>
            </tr>
          ))}
        </tbody>
      </Box>
    </Box>
  );
}
