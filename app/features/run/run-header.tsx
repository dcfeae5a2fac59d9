import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import IconButton from "@mui/material/IconButton";
import Menu from "@mui/material/Menu";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { lazy, Suspense, useState } from "react";
import { Link, useNavigate } from "react-router";
import { type RunRecord, isEmptyRun } from "~/core/run";
import type { ComputedEvaluation } from "~/core/stages";
import { useCursor } from "../../entry/cursor";
import { useRunInHand } from "../../entry/run-context";
import { When } from "../../ui/when";
import { FormDialog } from "../../ui/form-dialog";
import { useSay } from "../../words/text";
import { type Phrase } from "~/core/text";

function RenameDialog({ onClose }: { onClose: () => void }) {
  const say = useSay();
  const run = useRunInHand();
  const { title, sample, bench } = run.record;
  const [form, setForm] = useState({ title, sample, bench });
  const [problem, setProblem] = useState<Phrase | null>(null);
  const submit = () => {
    if (form.title.trim() === "") return setProblem(say`Give the run a title so you can find it again`);
    void run.send({ intent: "rename", ...form }).then((answer) => {
      if (answer.status === "done") onClose();
      else setProblem(answer.message);
    });
  };
  const field = (name: keyof typeof form, label: string) => (
    <TextField
      label={label}
      value={form[name]}
      onChange={(event) => setForm({ ...form, [name]: event.target.value })}
      error={name === "title" && problem !== null}
      helperText={name === "title" && problem !== null ? say(problem) : undefined}
      slotProps={{ htmlInput: { maxLength: 120 } }}
    />
  );
  return (
    <FormDialog title={say`Rename the run`} submit={say`Rename`} onSubmit={submit} onClose={onClose}>
      {field("title", say`Title`)}
      {field("sample", say`Sample`)}
      {field("bench", say`Bench or person`)}
    </FormDialog>
  );
}

interface RunHeaderProps {
  /** The stage that is looked at. */
  stage: ComputedEvaluation | undefined;
  onShortcuts: () => void;
}

// Comes when someone asks for it.
const TimerDialog = lazy(() => import("./timer-dialog").then((m) => ({ default: m.TimerDialog })));

interface ArchiveDialogProps {
  readonly onArchive: () => void;
  readonly onClose: () => void;
}

function ArchiveDialog({ onArchive, onClose }: ArchiveDialogProps) {
  const say = useSay();
  return (
    <FormDialog title={say`Archive this run?`} submit={say`Archive`} onSubmit={onArchive} onClose={onClose}>
      <Typography>
        {say`It leaves the bench and keeps all its readings. Find it under “archived runs” on the bench; it can be reopened any time.`}
      </Typography>
    </FormDialog>
  );
}

const headLine = {
  display: "flex",
  flexWrap: "wrap",
  alignItems: "center",
  columnGap: 1.5,
  rowGap: 0.5,
  mb: 1.25,
} as const;

/** Title, sample, bench and date; undo; what can be done with the run as a whole. */
export function RunHeader({ stage, onShortcuts }: RunHeaderProps) {
  const say = useSay();
  const run = useRunInHand();
  const { record, send } = run;
  const navigate = useNavigate();
  const [renaming, setRenaming] = useState(false);
  const [timing, setTiming] = useState(false);
  const [archiving, setArchiving] = useState(false);
  const [problem, setProblem] = useState<Phrase | null>(null);
  const change = (intent: "archive" | "delete" | "reopen") =>
    void send({ intent }).then((answer) => {
      if (answer.status !== "done") return setProblem(answer.message);
      if (intent !== "reopen") void navigate("/");
    });
  return (
    <>
      <Box sx={headLine}>
        <Typography variant="h1">{record.title}</Typography>
        <Typography color="textSecondary" sx={{ flexGrow: 1 }}>
          {[record.sample, record.bench].filter(Boolean).map((part) => `${part}, `)}
          <When at={record.startedAt} />
          {record.status !== "open" && `, ${record.status}`}
        </Typography>
        {/* They keep together where the line is too short for all. */}
        <Box sx={{ display: "flex", alignItems: "center", columnGap: { xs: 0.5, sm: 1.5 } }}>
          {record.status === "open" && <UndoButtons setProblem={setProblem} />}
          {record.status === "open" && stage && (
            <Button variant="text" color="secondary" size="small" onClick={() => setTiming(true)}>
              {say`Timer …`}
            </Button>
          )}
          <ShortcutsButton onShortcuts={onShortcuts} />
          <RunMenu
            record={record}
            onRename={() => setRenaming(true)}
            onArchive={() => setArchiving(true)}
            change={change}
          />
        </Box>
      </Box>
      {problem && (
        <Alert severity="error" onClose={() => setProblem(null)} sx={{ mb: 1 }}>
          {say(problem)}
        </Alert>
      )}

      {timing && stage && (
        <Suspense>
          <TimerDialog stage={stage} onClose={() => setTiming(false)} />
        </Suspense>
      )}
      {archiving && <ArchiveDialog onArchive={() => change("archive")} onClose={() => setArchiving(false)} />}
      {renaming && <RenameDialog onClose={() => setRenaming(false)} />}
    </>
  );
}

/** Takes the last change back, or makes again what was taken back last. */
function UndoButtons({ setProblem }: { readonly setProblem: (to: Phrase | null) => void }) {
  const say = useSay();
  const { send, undo, redo } = useRunInHand();
  const toNext = useCursor();
  const [busy, setBusy] = useState(false);
  const act = (intent: "undo" | "redo", eventId: string) => {
    // Pressed twice, it takes two changes back: the second one is known once the first is gone.
    setBusy(true);
    void send({ intent, eventId }).then((answer) => {
      setBusy(false);
      setProblem(answer.status === "done" ? null : answer.message);
      toNext();
    });
  };
  const button = (intent: "undo" | "redo", change: typeof undo) =>
    change && (
      <Button
        variant="text"
        color="secondary"
        size="small"
        disabled={busy}
        onClick={() => act(intent, change.eventId)}
        sx={{ textAlign: "left", lineHeight: 1.2 }}
      >
        {say`${intent === "undo" ? say`Undo` : say`Redo`}: ${change.description}`}
      </Button>
    );
  return (
    <>
      {button("undo", undo)}
      {button("redo", redo)}
    </>
  );
}

function ShortcutsButton({ onShortcuts }: { readonly onShortcuts: () => void }) {
  const say = useSay();
  return (
    <Button
      variant="text"
      color="secondary"
      size="small"
      onClick={onShortcuts}
      aria-label={say`Shortcuts`}
      // A phone has no such keys.
      sx={{ display: { xs: "none", sm: "inline-flex" } }}
    >
      {say`? keys`}
    </Button>
  );
}

interface RunMenuProps {
  readonly record: RunRecord;
  readonly onRename: () => void;
  readonly onArchive: () => void;
  readonly change: (intent: "archive" | "delete" | "reopen") => void;
}

/** What is done seldom to a run: its name, its trail, its rules, and putting it away. */
function RunMenu({ record, onRename, onArchive, change }: RunMenuProps) {
  const say = useSay();
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const choose = (act: () => void) => () => {
    setAnchor(null);
    act();
  };
  return (
    <>
      <IconButton
        aria-label={say`More about this run`}
        onClick={(event) => setAnchor(event.currentTarget)}
        sx={{ width: 40, height: 40, color: "text.primary", fontWeight: 700 }}
      >
        ⋯
      </IconButton>
      <Menu open={anchor !== null} anchorEl={anchor} onClose={() => setAnchor(null)}>
        {record.status === "open" && <MenuItem onClick={choose(onRename)}>{say`Rename …`}</MenuItem>}
        <MenuItem component={Link} to={`/?start=${record.method.id}&again=${record.id}`}>
          {say`Same again: next sample …`}
        </MenuItem>
        <MenuItem component={Link} to="trail" relative="path">
          {say`Trail: who did what, when`}
        </MenuItem>
        <MenuItem component={Link} to={`/runs/${record.id}/sheet`}>
          {say`Data sheet to print`}
        </MenuItem>
        {record.status === "open" && (
          <MenuItem component={Link} to={`/runs/${record.id}/paper`}>
            {say`Enter from paper …`}
          </MenuItem>
        )}
        {record.status === "open" && (
          <MenuItem component={Link} to={`/house-rules?run=${record.id}`}>
            {say`House rules for this run …`}
          </MenuItem>
        )}
        {record.status !== "open" && (
          <MenuItem onClick={choose(() => change("reopen"))}>{say`Reopen`}</MenuItem>
        )}
        {isEmptyRun(record) ? (
          <MenuItem onClick={choose(() => change("delete"))}>{say`Delete the empty run`}</MenuItem>
        ) : (
          record.status !== "archived" && <MenuItem onClick={choose(onArchive)}>{say`Archive …`}</MenuItem>
        )}
      </Menu>
    </>
  );
}
