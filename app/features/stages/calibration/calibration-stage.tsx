import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useMemo, useState } from "react";
import { v7 as newId } from "uuid";
import { type CalibrationStage, fieldKey, stageFields, trialFields } from "~/core/method";
import type { RunRecord } from "~/core/run";
import {
  type CalibrationEvaluation,
  type LevelEvaluation,
  nextCuvette,
  type RunEvaluation,
  seriesKind,
  seriesWords,
  usualAbsorbance,
} from "~/core/stages";
import { presentObservation } from "~/core/record";
import { absorberNear, clearCuvette, cuvetteOf } from "~/devices";
import type { Send, LiveRun } from "../shared/use-run";
import { Sheet } from "../../../ui/sheet";
import { CautionPanel } from "../shared/panels";
import { ShelveButton } from "../shared/shelve";
import { StrikeDialog } from "../shared/trial-dialogs";
import { CuvetteSheet } from "../photometer/cuvette-sheet";
import { LevelsTable, takenWords } from "./levels-table";
import { LineChart } from "../photometer/line-chart";
import { LinePanel } from "./line-panel";
import { NextSteps } from "../photometer/next-steps";
import { PasteDialog } from "../photometer/paste-dialog";
import { ReadingDialog, type ReadingTarget } from "../photometer/reading-dialog";
import { column } from "../photometer/layout";
import { tintOf } from "../photometer/tint";
import { type CuvetteTarget, displayFields, useCuvette } from "../photometer/use-cuvette";
import { usePhotometer } from "../photometer/use-photometer";
import { useReader, wavelengthOf } from "../photometer/use-reader";
import { StageFrame } from "../photometer/stage-frame";

interface CalibrationStageProps {
  run: LiveRun;
  stage: CalibrationEvaluation;
  evaluation: RunEvaluation;
}

/** The cuvette that comes next, as the screen names it. */
function following(stage: CalibrationEvaluation, person: string): string {
  const next = nextCuvette(stage, person);
  if (next.what === "flask") return next.id;
  return next.what === "ahead" ? `ahead:${next.value}` : next.what;
}

interface FlaskInHandProps extends CalibrationStageProps {
  readonly which: string;
  readonly person: string;
  readonly onPerson: (person: string) => void;
  readonly onSaved: () => void;
}

/** The flask that is read next: what it holds, what the instrument shows of it, and how to fill the cuvette. */
function FlaskInHand({ run, stage, evaluation, which, person, onPerson, onSaved }: FlaskInHandProps) {
  const { record, send } = run;
  const { definition } = stage;
  const [fresh, setFresh] = useState(() => newId());
  const stageRecord = record.stages.find((s) => s.key === stage.key);
  const level = stage.levels.find((l) => l.id === which) ?? null;
  const planned = which.startsWith("ahead:") ? which.slice(6) : null;
  const { symbol } = definition.series;
  const kind = seriesKind(definition);
  const amountKey = fieldKey({ symbol, kind });
  // What is typed for the flask in hand, or will be: its color, and what a simulated photometer shows of it.
  const amount =
    planned ?? (level && presentObservation(level.record.observations, symbol, kind)?.value) ?? null;

  const target = useMemo((): CuvetteTarget => {
    if (which === "blank") {
      const observations = stageRecord?.observations ?? [];
      const readings = displayFields(stageFields(definition, record.houseRules));
      return { trialId: null, readings, fields: [], proposals: {}, observations };
    }
    const all = trialFields(definition, record.houseRules);
    const read = level !== null && level.readings.length > 0;
    const there = new Set(level?.fields.filter((f) => f.present).map((f) => fieldKey(f.field)));
    return {
      trialId: level?.id ?? fresh,
      readings: displayFields(all).filter((f) => f.kind !== "absorbance.again" || read),
      fields: all.filter((f) => !f.optional && !there.has(fieldKey(f))),
      proposals: planned === null ? {} : { [amountKey]: planned },
      observations: level?.record.observations ?? [],
    };
  }, [which, stageRecord, definition, record.houseRules, level, fresh, planned, amountKey]);

  const cuvette = useCuvette({
    draftKey: `cuvette:${record.id}:${stage.key}:${which}`,
    target,
    stage: definition,
    rules: record.houseRules,
    person,
    send,
    onSaved: () => {
      setFresh(newId());
      onSaved();
    },
  });
  const nm = wavelengthOf(evaluation);
  const usual = usualAbsorbance(definition, amount);
  const simulated = which === "blank" ? clearCuvette : cuvetteOf(absorberNear(nm), nm, usual);
  const photometer = usePhotometer(record.id, nm, simulated, which);

  const { title, prompt } = wordsFor(stage, which, level, planned);
  return (
    <CuvetteSheet
      title={title}
      prompt={prompt}
      tint={which === "blank" ? null : tintOf(definition.color, usual / definition.strongest)}
      target={target}
      cuvette={cuvette}
      person={person}
      onPerson={onPerson}
      photometer={photometer}
    />
  );
}

function wordsFor(
  stage: CalibrationEvaluation,
  which: string,
  level: LevelEvaluation | null,
  planned: string | null,
): { title: string; prompt: string } {
  const title =
    which === "blank"
      ? "Blank"
      : level
        ? `Flask with ${takenWords(level)}`
        : planned === null
          ? "Another flask"
          : `Flask with ${seriesWords(stage.definition, planned)}`;
  const prompt =
    which === "blank"
      ? stage.blanks.length === 0
        ? "Zero the instrument on it, then write down what it shows."
        : "Once more: it shows whether the instrument drifted."
      : "Rinse the cuvette with this solution, fill it, wipe it, the same side to the light.";
  return { title, prompt };
}

/** Standards and the line through them: the reading in hand, all readings, the chart, what the data say. */
export function CalibrationStageView({ run, stage, evaluation }: CalibrationStageProps) {
  const { record, send } = run;
  const { definition } = stage;
  const [person, setPerson] = useReader(record.bench);
  const symbols = symbolsOf(definition);
  const [asked, setAsked] = useState<string | null>(null);
  const which = asked ?? following(stage, person);
  const [pasting, setPasting] = useState(false);
  const [opened, setOpened] = useState<ReadingTarget | null>(null);
  const [striking, setStriking] = useState<LevelEvaluation | null>(null);
  const locked = record.status !== "open";
  return (
    <>
      <StageFrame run={run} stage={stage} evaluation={evaluation} columns={[5, 7]}>
        <Box sx={column}>
          {!locked && (
            <FlaskInHand
              run={run}
              stage={stage}
              evaluation={evaluation}
              which={which}
              person={person}
              onPerson={setPerson}
              onSaved={() => setAsked(null)}
            />
          )}
          <FlasksSheet
            stage={stage}
            locked={locked}
            which={which}
            symbols={symbols}
            setAsked={setAsked}
            setOpened={setOpened}
            setStriking={setStriking}
            send={send}
            setPasting={setPasting}
          />
          <Box sx={{ order: 9 }}>
            <CautionPanel definition={definition} />
          </Box>
        </Box>
        <LineSide stage={stage} evaluation={evaluation} locked={locked} send={send} record={record} />
      </StageFrame>
      {pasting && (
        <PasteDialog stage={stage} symbols={symbols} send={send} onClose={() => setPasting(false)} />
      )}
      {opened && (
        <ReadingDialog target={opened} stageKey={stage.key} send={send} onClose={() => setOpened(null)} />
      )}
      {striking && <StrikeDialog trial={striking} send={send} onClose={() => setStriking(null)} />}
    </>
  );
}

interface FlasksSheetProps {
  readonly stage: CalibrationEvaluation;
  readonly locked: boolean;
  readonly which: string;
  readonly symbols: { reading: string; blank: string | null };
  readonly setAsked: (to: string | null) => void;
  readonly setOpened: (to: ReadingTarget | null) => void;
  readonly setStriking: (to: LevelEvaluation | null) => void;
  readonly send: Send;
  readonly setPasting: (to: boolean) => void;
}

function FlasksSheet({
  stage,
  locked,
  which,
  symbols,
  setAsked,
  setOpened,
  setStriking,
  send,
  setPasting,
}: FlasksSheetProps) {
  return (
    <Sheet component="section" aria-label="Flasks" sx={{ p: 1.25, order: { xs: 3, md: 0 }, minWidth: 0 }}>
      <LevelsTable
        stage={stage}
        inHand={locked ? "" : which}
        symbols={symbols}
        locked={locked}
        onTakeUp={setAsked}
        onOpen={setOpened}
        onStrike={setStriking}
        onRestore={(l) => void send({ intent: "restore", trialId: l.id })}
      />
      {!locked && (
        <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap", mt: 1 }}>
          <Button size="small" onClick={() => setAsked("other")}>
            Another flask
          </Button>
          <Button size="small" onClick={() => setPasting(true)}>
            A class’s readings …
          </Button>
        </Box>
      )}
    </Sheet>
  );
}

function symbolsOf(definition: CalibrationStage) {
  return {
    reading: definition.inputs.find((i) => i.is === "absorbance")?.symbol ?? "A",
    blank: definition.inputs.find((i) => i.is === "blank")?.symbol ?? null,
  };
}

interface LineSideProps {
  readonly stage: CalibrationEvaluation;
  readonly evaluation: RunEvaluation;
  readonly locked: boolean;
  readonly send: Send;
  readonly record: RunRecord;
}

function LineSide({ stage, evaluation, locked, send, record }: LineSideProps) {
  const unknown = evaluation.stages.find((s) => s.kind === "unknown" && s.lineOf === stage.key);
  return (
    <Box sx={column}>
      <NextSteps stage={stage} evaluation={evaluation} locked={locked} send={send}>
        <ShelveButton stage={stage} record={record} send={send} />
      </NextSteps>
      <LineChart stage={stage} unknown={unknown?.kind === "unknown" ? unknown : null} title={record.title} />
      <LinePanel stage={stage} rules={record.houseRules} locked={locked} send={send} />
    </Box>
  );
}
