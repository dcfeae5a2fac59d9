import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { lazy, Suspense, useState } from "react";
import { useNavigate } from "react-router";
import { allowsOf, type ComputedEvaluation } from "~/core/stages";
import { useRunInHand } from "../../entry/run-context";
import { When } from "../../ui/when";
import { useSay } from "../../words/text";
import { canLeaveOut, isAdapted, isKnowable, methodDone, methodOf, type RunRecord } from "~/core/run";
import { msg, type Phrase } from "~/core/text";
import { measures } from "./measured-in";
import { RunMenu } from "./run-menu";
import type { RunMenuItemsProps } from "./run-menu-items";
import { UndoButtons } from "./undo-buttons";

interface RunHeaderProps {
  /** The stage that is looked at. */
  stage: ComputedEvaluation | undefined;
  onShortcuts: () => void;
}

// Comes when someone asks for it.
const TimerDialog = lazy(() => import("./timer-dialog").then((m) => ({ default: m.TimerDialog })));
const RenameDialog = lazy(() => import("./run-dialogs").then((m) => ({ default: m.RenameDialog })));
const ArchiveDialog = lazy(() => import("./run-dialogs").then((m) => ({ default: m.ArchiveDialog })));
const MeasuredWithDialog = lazy(() =>
  import("./measured-with").then((m) => ({ default: m.MeasuredWithDialog })),
);

const HeldAgainstDialog = lazy(() =>
  import("./held-against").then((m) => ({ default: m.HeldAgainstDialog })),
);
const KnownDialog = lazy(() => import("./known-dialog").then((m) => ({ default: m.KnownDialog })));

const headLine = {
  display: "flex",
  flexWrap: "wrap",
  alignItems: "center",
  columnGap: 1.5,
  rowGap: 0.5,
  mb: 1.25,
} as const;

type Dialog = "rename" | "timer" | "measured" | "known" | "held" | "archive";

/** What can be chosen for the stage that is looked at. */
function choicesOf(
  record: RunRecord,
  stage: ComputedEvaluation | undefined,
  open: (dialog: Dialog) => void,
): Pick<RunMenuItemsProps, "onMeasure" | "onKnown" | "onHold" | "leaving"> {
  const { stages } = record.method;
  const own = stages.find(({ key }) => key === stage?.key);
  const leftOut = stages.filter(({ key }) => isAdapted(record, key, "left-out"));
  const leaving = leftOut.map(({ key, title }) => ({ key, title, out: true }));
  if (!stage || !own) return { leaving };
  const { key, title } = own;
  return {
    leaving: canLeaveOut(methodOf(record), own) ? [{ key, title, out: false }, ...leaving] : leaving,
    ...(measures(record, stage.key) ? { onMeasure: () => open("measured") } : {}),
    ...(isKnowable(methodDone(record), own) ? { onKnown: () => open("known") } : {}),
    ...(allowsOf(stage.definition).holds ? { onHold: () => open("held") } : {}),
  };
}

const closedWords = ({ status, countersigned }: RunRecord): Phrase =>
  countersigned
    ? msg`countersigned by ${countersigned.person}`
    : status === "finished"
      ? msg`finished`
      : msg`archived`;

/** Title, sample, bench and date; undo; what can be done with the run as a whole. */
export function RunHeader({ stage, onShortcuts }: RunHeaderProps) {
  const say = useSay();
  const run = useRunInHand();
  const { record, send } = run;
  const navigate = useNavigate();
  const [open, setOpen] = useState<"rename" | "timer" | "measured" | "known" | "held" | "archive" | null>(
    null,
  );
  const close = () => setOpen(null);
  const [problem, setProblem] = useState<Phrase | null>(null);
  const change = (intent: "archive" | "delete" | "reopen") =>
    void send({ intent }).then((answer) => {
      if (answer.status !== "done") return setProblem(answer.message);
      if (intent !== "reopen") void navigate("/");
    });
  const leaveOut = (stageKey: string, on: boolean) =>
    void send({ intent: "adapt", stageKey, adapted: "left-out", on }).then((answer) => {
      if (answer.status !== "done") setProblem(answer.message);
    });
  return (
    <>
      <Box sx={headLine}>
        <Typography variant="h1">{record.title}</Typography>
        <Typography color="textSecondary" sx={{ flexGrow: 1 }}>
          {[record.sample, record.bench].filter(Boolean).map((part) => `${part}, `)}
          <When at={record.startedAt} />
          {record.status !== "open" && say`, ${closedWords(record)}`}
        </Typography>
        {/* They stay on one line where there is no room for all. */}
        <Box sx={{ display: "flex", alignItems: "center", columnGap: { xs: 0.5, sm: 1.5 } }}>
          {record.status === "open" && <UndoButtons setProblem={setProblem} />}
          {record.status === "open" && stage && (
            <Button variant="text" color="secondary" size="small" onClick={() => setOpen("timer")}>
              {say`Timer …`}
            </Button>
          )}
          <ShortcutsButton onShortcuts={onShortcuts} />
          <RunMenu
            record={record}
            onRename={() => setOpen("rename")}
            {...choicesOf(record, stage, setOpen)}
            onArchive={() => setOpen("archive")}
            change={change}
            leaveOut={leaveOut}
          />
        </Box>
      </Box>
      {problem && (
        <Alert severity="error" onClose={() => setProblem(null)} sx={{ mb: 1 }}>
          {say(problem)}
        </Alert>
      )}

      <Suspense>
        {open === "timer" && stage && <TimerDialog stage={stage} onClose={close} />}
        {open === "measured" && stage && <MeasuredWithDialog stage={stage} onClose={close} />}
        {open === "known" && stage && <KnownDialog stageKey={stage.key} onClose={close} />}
        {open === "held" && stage && <HeldAgainstDialog stageKey={stage.key} onClose={close} />}
        {open === "archive" && <ArchiveDialog onArchive={() => change("archive")} onClose={close} />}
        {open === "rename" && <RenameDialog onClose={close} />}
      </Suspense>
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
