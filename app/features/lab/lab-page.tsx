import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { Link, useFetcher } from "react-router";
import { counted } from "~/core/text";
import type { BackupView, LabAnswer, LabView } from "~/protocol/lab";
import { type WhoWhyState, useWhoWhy, Who } from "../../ui/who-why";
import { colors, fonts } from "../../theme/theme";
import { Page } from "../../ui/page";
import { Sheet } from "../../ui/sheet";
import { When } from "../../ui/when";
import type { Ask } from "./ask";
import { BackupList } from "./backup-list";
import { RestoreDialog } from "./restore-dialog";
import { RunsDialog } from "./runs-dialog";

/** The lab as a whole: its backups, whether its data are whole, its clock, and the way to its trail. */
export function LabPage(lab: LabView) {
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
      title="Lab"
      note={`Begun ${lab.begun.slice(0, 10)}, ${counted(lab.runs, "run")}. Data folder: ${lab.folder}`}
      actions={
        <Button component={Link} to="/trail" variant="outlined">
          Trail of the lab
        </Button>
      }
    >
      <Box role="status" sx={{ mb: done || problem || busy ? 2 : 0 }}>
        {busy && <Alert severity="info">This takes a few seconds. Work at the benches continues.</Alert>}
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
          <ClockSheet lab={lab} by={by} busy={busy} ask={ask} />
          <TerminalSheet />
        </Box>
      </Box>
      {restoring && <RestoreDialog backup={restoring} by={by} onClose={() => setRestoring(null)} ask={ask} />}
      {looking && <RunsDialog backup={looking} by={by} onClose={() => setLooking(null)} ask={ask} />}
    </Page>
  );
}

interface CheckSheetProps {
  readonly lab: LabView;
  readonly busy: boolean;
  readonly ask: Ask;
}

function CheckSheet({ lab, busy, ask }: CheckSheetProps) {
  return (
    <Sheet component="section" aria-labelledby="check" sx={{ p: { xs: 2, sm: 2.5 } }}>
      <Typography id="check" variant="h2">
        Check
      </Typography>
      <Typography color="textSecondary" sx={{ mb: 1.5 }}>
        Counts every row, follows corrections and solutions, and recalculates every result.
      </Typography>
      <Findings lab={lab} />
      <Button variant="outlined" disabled={busy} onClick={() => ask({ intent: "check" })}>
        Check everything
      </Button>
    </Sheet>
  );
}

/** What is written down before anything counts as saved. */
function JournalSheet({ lab: { journal, recovered } }: { readonly lab: LabView }) {
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

interface ClockSheetProps {
  readonly lab: LabView;
  readonly by: WhoWhyState;
  readonly busy: boolean;
  readonly ask: Ask;
}

function ClockSheet({ lab, by, busy, ask }: ClockSheetProps) {
  return (
    <Sheet component="section" aria-labelledby="clock" sx={{ p: { xs: 2, sm: 2.5 } }}>
      <Typography id="clock" variant="h2">
        Clock
      </Typography>
      <Typography sx={{ color: lab.clock ? colors.brick : colors.inkSoft, mb: lab.clock ? 1.5 : 0 }}>
        {lab.clock ?? "This computer's clock has not been set back."}
      </Typography>
      {lab.clock && (
        <Box sx={{ display: "grid", gap: 1.5 }}>
          <Typography>
            If the clock was ahead before and is right now, confirm it. Times and timers then go by it.
          </Typography>
          <Who by={by} problem={undefined} />
          <Button
            variant="outlined"
            disabled={busy || by.person.trim() === ""}
            onClick={() => ask({ intent: "clock", person: by.person })}
          >
            Confirm the clock
          </Button>
        </Box>
      )}
    </Sheet>
  );
}

function TerminalSheet() {
  return (
    <Sheet component="section" aria-labelledby="terminal" sx={{ p: { xs: 2, sm: 2.5 } }}>
      <Typography id="terminal" variant="h2">
        At the terminal
      </Typography>
      <Box component="dl" sx={{ m: 0, "& dt": { fontFamily: fonts.reading }, "& dd": { m: 0, mb: 1 } }}>
        <dt>./bin/backup</dt>
        <dd>the same as Back up now</dd>
        <dt>./bin/restore latest</dt>
        <dd>brings the lab back, also when the server does not start</dd>
        <dt>./bin/check</dt>
        <dd>the same as Check everything</dd>
      </Box>
    </Sheet>
  );
}

interface BackupsSheetProps {
  readonly lab: LabView;
  readonly newest: BackupView | undefined;
  readonly busy: boolean;
  readonly ask: Ask;
  readonly setRestoring: (to: BackupView | null) => void;
  readonly setLooking: (to: BackupView | null) => void;
}

function BackupsSheet({ lab, newest, busy, ask, setRestoring, setLooking }: BackupsSheetProps) {
  return (
    <Sheet component="section" aria-labelledby="backups" sx={{ p: { xs: 2, sm: 2.5 } }}>
      <Box sx={{ display: "flex", alignItems: "flex-start", gap: 2, flexWrap: "wrap", mb: 1.5 }}>
        <Box sx={{ flex: "1 1 260px" }}>
          <Typography id="backups" variant="h2">
            Backups
          </Typography>
          <Typography sx={{ color: lab.backupTrouble ? colors.brick : colors.inkSoft }}>
            {lab.backupTrouble ??
              (newest ? (
                <>
                  Newest: <When at={newest.at} as="time" />
                  {newest.verifiedAt && ", verified"}.
                </>
              ) : (
                "None yet. The first one is made automatically an hour after the lab begins."
              ))}
          </Typography>
        </Box>
        <Button variant="contained" size="large" disabled={busy} onClick={() => ask({ intent: "backup" })}>
          Back up now
        </Button>
      </Box>
      <BackupList backups={lab.backups} busy={busy} onRestore={setRestoring} onRuns={setLooking} />
      <Typography variant="body2" color="textSecondary" sx={{ mt: 1.5 }}>
        Made daily and before each migration; seven days and four weeks are kept. Each is an exact copy of the
        lab.{" "}
        {lab.copies === null
          ? "Set BACKUP_DIR to keep a second copy on another disk."
          : `A second copy of each is kept in ${lab.copies}.`}
      </Typography>
    </Sheet>
  );
}

/** What the last look found, the serious first. */
function Findings({ lab: { findings, checkedAt } }: { lab: LabView }) {
  const serious = findings.filter(({ kind }) => kind !== "differs");
  const differing = findings.filter(({ kind }) => kind === "differs");
  return (
    <Box sx={{ mb: 1.5 }}>
      {serious.map(({ message, runId }) => (
        <Alert key={message} severity="error" sx={{ mb: 1 }}>
          {message}.{" "}
          {runId
            ? "Restore this run from a backup that holds it."
            : "Restore the lab from its newest backup."}
        </Alert>
      ))}
      {differing.map(({ message }) => (
        <Alert key={message} severity="info" sx={{ mb: 1 }}>
          {message}.
        </Alert>
      ))}
      {checkedAt !== null && (
        <Typography color="textSecondary">
          Last checked <When at={checkedAt} as="time" />
          {findings.length === 0 && ": no problems"}.
        </Typography>
      )}
    </Box>
  );
}
