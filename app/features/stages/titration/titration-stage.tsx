import Box from "@mui/material/Box";
import { lazy, Suspense, useState } from "react";
import { v7 as newId } from "uuid";
import { buretteDecimals, buretteText } from "~/core/rules";
import { fieldKey, type MaybeMark, maybeMarks } from "~/core/method";
import { beadAfter, type TitrationEvaluation } from "~/core/stages";
import { useRunInHand } from "../../../entry/run-context";
import { BuretteColumn } from "../../../ui/burette-column";
import { Sheet } from "../../../ui/sheet";
import { afterDrops } from "./after-drops";
import { CorrectDialog } from "../shared/correct-dialog";
import { flasksLeft } from "./due-flasks";
import { Ledger } from "./ledger";
import { CautionPanel } from "../shared/caution-panel";
import { AgreementPanel, ResultPanel } from "../shared/panels";
import { StageReadings } from "../shared/stage-readings";
import { TrialEntrySheet } from "./trial-entry";
import type { StageViewProps } from "../screens";
import { savedReading, type TrialEntry, useTrialEntry } from "./use-trial-entry";
import { useSay } from "../../../words/text";

// What is seldom done to a trial comes when somebody does it.
const dialogs = () => import("../shared/trial-dialogs");
const StrikeDialog = lazy(() => dialogs().then((m) => ({ default: m.StrikeDialog })));
const LabelDialog = lazy(() => dialogs().then((m) => ({ default: m.LabelDialog })));
const BackDialog = lazy(() => dialogs().then((m) => ({ default: m.BackDialog })));

interface OpenDialog {
  readonly kind: "correct" | "strike" | "label" | "back";
  readonly trialId: string;
  /** For a correction: the field. */
  readonly fieldKey?: string;
}

const workingLayout = {
  gridTemplateColumns: {
    xs: "minmax(0, 1fr)",
    sm: "190px minmax(0, 1fr)",
    lg: "228px minmax(0, 1fr) 336px",
  },
  gridTemplateAreas: {
    xs: '"work" "side" "ledger" "burette"',
    sm: '"burette work" "ledger ledger" "side side"',
    lg: '"burette work side" "burette ledger side"',
  },
} as const;

/** A finished run is read, not worked on: no burette, no fields. */
const finishedLayout = {
  gridTemplateColumns: { xs: "minmax(0, 1fr)", lg: "minmax(0, 1fr) 336px" },
  gridTemplateAreas: { xs: '"ledger" "side"', lg: '"ledger side"' },
} as const;

/** The working place of a titration: burette, entry and ledger, verdict and result. */
export function TitrationStageView({ stage: saved }: StageViewProps<TitrationEvaluation>) {
  const { record, locked } = useRunInHand();
  const entry = useTrialEntry(saved);
  const { stage, evaluation } = entry;
  const [dialog, setDialog] = useState<OpenDialog | null>(null);
  const timers = record.stages.find((s) => s.key === saved.key)?.timers ?? [];
  return (
    <>
      <StageReadings stage={stage} evaluation={evaluation} />
      <Box
        sx={{
          display: "grid",
          gap: 2,
          mt: 1,
          alignItems: "start",
          ...(locked ? finishedLayout : workingLayout),
          gridTemplateRows: locked ? undefined : { lg: "auto 1fr" },
        }}
      >
        {!locked && (
          <>
            <Burette entry={entry} titer={saved.titer} />
            <Box sx={{ gridArea: "work", minWidth: 0 }}>
              <TrialEntrySheet
                key={saved.key}
                entry={entry}
                onCorrect={(target) => setDialog({ kind: "correct", ...target })}
              />
            </Box>
          </>
        )}
        <Box sx={{ gridArea: "ledger", minWidth: 0 }}>
          <TrialsLedger saved={saved} stage={stage} onDialog={setDialog} />
        </Box>
        <Box
          sx={{
            gridArea: "side",
            display: "grid",
            gap: 2,
            alignItems: "start",
            gridTemplateColumns: { xs: "minmax(0,1fr)", sm: "1fr 1fr", lg: "minmax(0,1fr)" },
          }}
        >
          <AgreementPanel stage={stage} />
          <ResultPanel
            stage={stage}
            closed={entry.closed}
            next={beadAfter(evaluation, saved.key) ?? null}
            left={flasksLeft(timers, saved)}
          />
          <CautionPanel definition={stage.definition} />
        </Box>
      </Box>
      <Suspense>
        <Dialogs dialog={dialog} saved={saved} close={() => setDialog(null)} />
      </Suspense>
    </>
  );
}

/** The burette of the titrant, drawn to scale; a sample may come from one of its own. */
function Burette({ entry, titer }: { entry: TrialEntry; titer: string }) {
  const say = useSay();
  const { rules } = useRunInHand();
  const { stage, guidance } = entry;
  const inHand = stage.trials.find((t) => t.id === entry.trialId);
  const readingOf = (kind: string) => {
    const text = inHand?.fields.find((f) => f.field.kind === kind && f.field.symbol === titer)?.present
      ?.value;
    return text == null ? null : Number(text);
  };
  const final = entry.fields.find((f) => f.symbol === titer && f.kind === "burette.final");
  const moveTo = (to: { ml: number } | { drops: number }) =>
    final &&
    entry.type(final, "ml" in to ? buretteText(to.ml, rules) : afterDrops(entry, final, to.drops, rules));
  return (
    <Sheet component="section" aria-label={say`Burette`} sx={{ gridArea: "burette", px: 0.5, py: 1.5 }}>
      <Box sx={{ maxWidth: { xs: 260, sm: "none" }, mx: "auto" }}>
        <BuretteColumn
          capacityMl={rules.burette.capacityMl}
          decimals={buretteDecimals(rules)}
          start={readingOf("burette.after-refill") ?? readingOf("burette.initial")}
          now={readingOf("burette.final")}
          slowAt={guidance?.slowAt ?? null}
          endNear={guidance?.endNear ?? null}
          endTexts={guidance?.endTexts ?? []}
          before={guidance?.before ?? false}
          presumed={guidance?.from === "presumed"}
          ends={guidance?.ends ?? []}
          marks={maybeMarks(inHand?.record.observations ?? [], titer).map((mark) => Number(mark.text))}
          onMove={final && !savedReading(entry, final) ? moveTo : undefined}
        />
      </Box>
    </Sheet>
  );
}

interface TrialsLedgerProps {
  /** As saved, and as it would be with what is typed. */
  saved: TitrationEvaluation;
  stage: TitrationEvaluation;
  onDialog: (dialog: OpenDialog) => void;
}

/** The trials, with what can be done to each. */
function TrialsLedger({ saved, stage, onDialog }: TrialsLedgerProps) {
  const say = useSay();
  const { record, send } = useRunInHand();
  const trialOf = (id: string) => saved.trials.find((t) => t.id === id);
  const shared = (trialId: string, kind: "rough" | "fine") =>
    ({ intent: "observe", id: newId(), stageKey: saved.key, trial: { id: trialId, kind } }) as const;
  const chooseEnd = (trialId: string, mark: MaybeMark) => {
    const trial = trialOf(trialId);
    const isEnd = ({ kind, symbol }: { kind: string; symbol: string }) =>
      kind === "burette.final" && symbol === saved.titer;
    const present = trial?.fields.find(({ field }) => isEnd(field))?.present;
    if (!trial || !present) return;
    void send({
      ...shared(trialId, trial.record.kind),
      symbol: present.symbol,
      kind: "burette.final",
      text: mark.text,
      supersedes: present.id,
      reason: say`the end was the mark at ${mark.text}`,
    });
  };
  /** A rough trial whose end was overshot tells only where the end is not. */
  const markOvershot = (trialId: string) => {
    const trial = trialOf(trialId);
    if (!trial || trial.overshot) return;
    void send({
      ...shared(trialId, trial.record.kind),
      symbol: saved.titer,
      kind: "end.overshot",
      text: "1",
      supersedes: null,
      reason: null,
    });
  };
  return (
    <Ledger
      runId={record.id}
      stage={stage}
      onCorrect={(target) => onDialog({ kind: "correct", ...target })}
      onStrike={(trialId) => onDialog({ kind: "strike", trialId })}
      onRestore={(trialId) => void send({ intent: "restore", trialId })}
      onMark={(trialId, kind) => void send({ intent: "mark", trialId, kind })}
      onLabel={(trialId) => onDialog({ kind: "label", trialId })}
      onBack={(trialId) => onDialog({ kind: "back", trialId })}
      onOvershot={markOvershot}
      onField={(target) => onDialog({ kind: "correct", ...target })}
      onEnd={chooseEnd}
    />
  );
}

interface DialogsProps {
  dialog: OpenDialog | null;
  saved: TitrationEvaluation;
  close: () => void;
}

function Dialogs({ dialog, saved, close }: DialogsProps) {
  const trial = saved.trials.find((t) => t.id === dialog?.trialId);
  if (!dialog || !trial) return null;
  if (dialog.kind === "strike") return <StrikeDialog trial={trial} onClose={close} />;
  if (dialog.kind === "label") return <LabelDialog trial={trial} onClose={close} />;
  if (dialog.kind === "back") return <BackDialog trial={trial} stage={saved} onClose={close} />;
  const state = trial.fields.find((f) => fieldKey(f.field) === dialog.fieldKey);
  if (!state) return null;
  return (
    <CorrectDialog
      state={state}
      holder={trial.record}
      trialId={trial.id}
      trialKind={trial.record.kind}
      stage={saved.definition}
      onClose={close}
    />
  );
}
