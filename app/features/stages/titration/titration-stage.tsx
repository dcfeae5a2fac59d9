import Box from "@mui/material/Box";
import { useEffect, useRef, useState } from "react";
import { v7 as newId } from "uuid";
import { buretteDecimals, buretteText } from "~/core/rules";
import { fieldKey, type MaybeMark, maybeMarks } from "~/core/method";
import { beadAfter, type TitrationEvaluation } from "~/core/stages";
import { BuretteColumn } from "../../../ui/burette-column";
import { Sheet } from "../../../ui/sheet";
import { afterDrops } from "./after-drops";
import { CorrectDialog } from "../shared/correct-dialog";
import { Ledger } from "./ledger";
import { AgreementPanel, CautionPanel, ResultPanel } from "../shared/panels";
import { StageReadings } from "../shared/stage-readings";
import { TrialEntrySheet } from "./trial-entry";
import { BackDialog, LabelDialog, StrikeDialog } from "../shared/trial-dialogs";
import type { LiveRun } from "../shared/use-run";
import type { StageViewProps } from "../screens";
import { savedReading, useTrialEntry } from "./use-trial-entry";

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
export function TitrationStageView({ run, stage: saved }: StageViewProps<TitrationEvaluation>) {
  const { record, send } = run;
  const entry = useTrialEntry(record, saved, send);
  const { stage, evaluation } = entry;
  const [dialog, setDialog] = useState<OpenDialog | null>(null);
  const goOn = useRef<HTMLAnchorElement>(null);
  const rules = record.houseRules;
  const locked = record.status !== "open";
  const stageRecord = record.stages.find((s) => s.key === saved.key);

  const next = beadAfter(evaluation, saved.key) ?? null;

  // When the last reading closes the set, the way on is what Enter should do next.
  const closed = saved.done;
  const wasClosed = useRef(closed);
  useEffect(() => {
    if (closed && !wasClosed.current) goOn.current?.focus();
    wasClosed.current = closed;
  }, [closed]);

  const inHand = stage.trials.find((t) => t.id === entry.trialId);
  // The drawn burette is that of the titrant; a sample may come from one of its own.
  const readingOf = (kind: string) =>
    inHand?.fields.find((f) => f.field.kind === kind && f.field.symbol === saved.titer)?.present?.value ??
    null;
  const number = (text: string | null) => (text === null ? null : Number(text));
  const final = entry.fields.find((f) => f.symbol === saved.titer && f.kind === "burette.final");
  const marks = maybeMarks(inHand?.record.observations ?? [], saved.titer).map((mark) => Number(mark.text));
  const moveTo = (to: { ml: number } | { drops: number }) =>
    final &&
    entry.type(final, "ml" in to ? buretteText(to.ml, rules) : afterDrops(entry, final, to.drops, rules));
  const chooseEnd = (trialId: string, mark: MaybeMark) => {
    const trial = trialOf(trialId);
    const present = trial?.fields.find(
      ({ field }) => field.kind === "burette.final" && field.symbol === saved.titer,
    )?.present;
    if (!trial || !present) return;
    void send({
      intent: "observe",
      id: newId(),
      stageKey: saved.key,
      trial: { id: trialId, kind: trial.record.kind },
      symbol: present.symbol,
      kind: "burette.final",
      text: mark.text,
      supersedes: present.id,
      reason: `the end was the mark at ${mark.text}`,
    });
  };
  /** A rough trial whose end was overshot tells only where the end is not. */
  const markOvershot = (trialId: string) => {
    const trial = trialOf(trialId);
    if (!trial || trial.overshot) return;
    void send({
      intent: "observe",
      id: newId(),
      stageKey: saved.key,
      trial: { id: trialId, kind: trial.record.kind },
      symbol: saved.titer,
      kind: "end.overshot",
      text: "1",
      supersedes: null,
      reason: null,
    });
  };
  const close = () => setDialog(null);
  const trialOf = (id: string) => saved.trials.find((t) => t.id === id);

  return (
    <>
      <StageReadings
        stage={stage}
        record={stageRecord}
        evaluation={evaluation}
        run={record}
        rules={rules}
        locked={locked}
        send={send}
      />
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
            <Sheet component="section" aria-label="Burette" sx={{ gridArea: "burette", px: 0.5, py: 1.5 }}>
              <Box sx={{ maxWidth: { xs: 260, sm: "none" }, mx: "auto" }}>
                <BuretteColumn
                  capacityMl={rules.burette.capacityMl}
                  decimals={buretteDecimals(rules)}
                  start={number(readingOf("burette.initial"))}
                  now={number(readingOf("burette.final"))}
                  slowAt={entry.guidance?.slowAt ?? null}
                  endNear={entry.guidance?.endNear ?? null}
                  endText={entry.guidance?.endText ?? ""}
                  before={entry.guidance?.before ?? false}
                  ends={entry.guidance?.ends ?? []}
                  marks={marks}
                  onMove={final && !savedReading(entry, final) ? moveTo : undefined}
                />
              </Box>
            </Sheet>
            <Box sx={{ gridArea: "work", minWidth: 0 }}>
              <TrialEntrySheet
                key={saved.key}
                entry={entry}
                record={stageRecord}
                rules={rules}
                send={send}
                onCorrect={(target) => setDialog({ kind: "correct", ...target })}
              />
            </Box>
          </>
        )}
        <Box sx={{ gridArea: "ledger", minWidth: 0 }}>
          <Ledger
            runId={record.id}
            stage={stage}
            rules={rules}
            locked={locked}
            onCorrect={(target) => setDialog({ kind: "correct", ...target })}
            onStrike={(trialId) => setDialog({ kind: "strike", trialId })}
            onRestore={(trialId) => void send({ intent: "restore", trialId })}
            onMark={(trialId, kind) => void send({ intent: "mark", trialId, kind })}
            onLabel={(trialId) => setDialog({ kind: "label", trialId })}
            onBack={(trialId) => setDialog({ kind: "back", trialId })}
            onOvershot={markOvershot}
            onField={(target) => setDialog({ kind: "correct", ...target })}
            onEnd={chooseEnd}
          />
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
            record={record}
            stage={stage}
            closed={entry.closed}
            next={next}
            goOnRef={goOn}
            send={send}
          />
          <CautionPanel definition={stage.definition} />
        </Box>
      </Box>
      <Dialogs dialog={dialog} saved={saved} run={run} close={close} trialOf={trialOf} />
    </>
  );
}

interface DialogsProps {
  dialog: OpenDialog | null;
  saved: TitrationEvaluation;
  run: LiveRun;
  close: () => void;
  trialOf: (id: string) => TitrationEvaluation["trials"][number] | undefined;
}

function Dialogs({ dialog, saved, run, close, trialOf }: DialogsProps) {
  if (!dialog) return null;
  const trial = trialOf(dialog.trialId);
  if (!trial) return null;
  if (dialog.kind === "strike") return <StrikeDialog trial={trial} send={run.send} onClose={close} />;
  if (dialog.kind === "label") return <LabelDialog trial={trial} send={run.send} onClose={close} />;
  if (dialog.kind === "back") {
    return (
      <BackDialog trial={trial} stage={saved} rules={run.record.houseRules} send={run.send} onClose={close} />
    );
  }
  const state = trial.fields.find((f) => fieldKey(f.field) === dialog.fieldKey);
  if (!state) return null;
  return (
    <CorrectDialog
      state={state}
      holder={trial.record}
      trialId={trial.id}
      trialKind={trial.record.kind}
      stage={saved.definition}
      rules={run.record.houseRules}
      send={run.send}
      onClose={close}
    />
  );
}
