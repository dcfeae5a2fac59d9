import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { Link, useFetcher } from "react-router";
import { counted } from "~/core/text";
import type { BackupView, LabAnswer, LabView } from "~/protocol/lab";
import { useWhoWhy } from "../../ui/who-why";
import { fonts } from "../../theme/theme";
import { Page } from "../../ui/page";
import { Sheet } from "../../ui/sheet";
import type { Ask } from "./ask";
import { BackupsSheet } from "./backups-sheet";
import { CheckSheet } from "./check-sheet";
import { ClockSheet } from "./clock-sheet";
import { JournalSheet } from "./journal-sheet";
import { LetterheadSheet } from "./letterhead-sheet";
import { RestoreDialog } from "./restore-dialog";
import { RunsDialog } from "./runs-dialog";
import { useSay } from "../../words/text";

/** The lab as a whole: its backups, whether its data are whole, its clock, and the way to its trail. */
export function LabPage(lab: LabView) {
  const say = useSay();
  const fetcher = useFetcher<LabAnswer>();
  const by = useWhoWhy();
  const [restoring, setRestoring] = useState<BackupView | null>(null);
  const [looking, setLooking] = useState<BackupView | null>(null);
  const ask: Ask = (request) =>
    void fetcher.submit(JSON.stringify(request), { method: "post", encType: "application/json" });
  const busy = fetcher.state !== "idle";
  const { done = null, problem = null } = busy ? {} : (fetcher.data ?? {});
  const [newest] = lab.backups;
  return (
    <Page
      title={say`Lab`}
      note={say`Begun ${lab.begun.slice(0, 10)}, ${counted(lab.runs, "run")}. Data folder: ${lab.folder}`}
      actions={
        <>
          <Button component={Link} to="/access" variant="outlined">
            {say`Access`}
          </Button>
          <Button component={Link} to="/trail" variant="outlined">
            {say`Trail of the lab`}
          </Button>
        </>
      }
    >
      <Box role="status" sx={{ mb: done || problem || busy ? 2 : 0 }}>
        {busy && (
          <Alert severity="info">{say`This takes a few seconds. Work at the benches continues.`}</Alert>
        )}
        {done && <Alert severity="success">{done}</Alert>}
        {problem && <Alert severity="error">{problem}</Alert>}
      </Box>
      <Box
        sx={{
          display: "grid",
          gap: 2,
          alignItems: "start",
          gridTemplateColumns: { xs: "minmax(0,1fr)", lg: "minmax(0,1fr) 380px" },
        }}
      >
        <BackupsSheet
          lab={lab}
          newest={newest}
          busy={busy}
          ask={ask}
          setRestoring={setRestoring}
          setLooking={setLooking}
        />
        <Box sx={{ display: "grid", gap: 2 }}>
          <CheckSheet lab={lab} busy={busy} ask={ask} />
          <JournalSheet lab={lab} />
          <LetterheadSheet key={lab.letterhead} lab={lab} by={by} busy={busy} ask={ask} />
          <ClockSheet lab={lab} by={by} busy={busy} ask={ask} />
          {lab.signingKey !== null && <KeySheet signingKey={lab.signingKey} />}
          <TerminalSheet />
        </Box>
      </Box>
      {restoring && <RestoreDialog backup={restoring} by={by} onClose={() => setRestoring(null)} ask={ask} />}
      {looking && <RunsDialog backup={looking} by={by} onClose={() => setLooking(null)} ask={ask} />}
    </Page>
  );
}

/** By what others know that a file is from this lab. */
function KeySheet({ signingKey }: { readonly signingKey: string }) {
  const say = useSay();
  return (
    <Sheet component="section" aria-labelledby="signing-key" sx={{ p: { xs: 2, sm: 2.5 } }}>
      <Typography id="signing-key" variant="h2">
        {say`Key of this lab`}
      </Typography>
      <Typography color="textSecondary" sx={{ mb: 1 }}>
        {say`Run records that leave the lab are signed with it. Tell this fingerprint to those who check them.`}
      </Typography>
      <Box sx={{ fontFamily: fonts.reading, overflowWrap: "anywhere" }}>{signingKey}</Box>
    </Sheet>
  );
}

function TerminalSheet() {
  const say = useSay();
  return (
    <Sheet component="section" aria-labelledby="terminal" sx={{ p: { xs: 2, sm: 2.5 } }}>
      <Typography id="terminal" variant="h2">
        {say`At the terminal`}
      </Typography>
      <Box component="dl" sx={{ m: 0, "& dt": { fontFamily: fonts.reading }, "& dd": { m: 0, mb: 1 } }}>
        <dt>./bin/backup</dt>
        <dd>{say`the same as Back up now`}</dd>
        <dt>./bin/verify FILE</dt>
        <dd>{say`checks whether an exported run record or archive was altered`}</dd>
        <dt>./bin/restore latest</dt>
        <dd>{say`brings the lab back, even if the server does not start`}</dd>
        <dt>./bin/passphrase</dt>
        <dd>{say`sets the passphrase that instructors sign in with`}</dd>
        <dt>./bin/check</dt>
        <dd>{say`the same as Check everything`}</dd>
      </Box>
    </Sheet>
  );
}
