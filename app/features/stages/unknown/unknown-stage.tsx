import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useMemo, useState } from "react";
import { v7 as newId } from "uuid";
import type {
  CalibrationEvaluation,
  RunEvaluation,
  SampleEvaluation,
  UnknownEvaluation,
} from "~/core/stages";
import { presumedOf } from "~/core/inputs";
import { fieldKey, trialFields } from "~/core/method";
import { presentObservation, trialWords } from "~/core/record";
import { absorberNear, cuvetteOf } from "~/devices";
import { useRunInHand } from "../../../entry/run-context";
import { Sheet } from "../../../ui/sheet";
import { CautionPanel } from "../shared/caution-panel";
import { StrikeDialog } from "../shared/trial-dialogs";
import { BootstrapPanel } from "../photometer/bootstrap-panel";
import { column } from "../photometer/layout";
import { tintOf } from "../photometer/tint";
import { CuvetteSheet } from "../photometer/cuvette-sheet";
import { LineChart } from "../photometer/line-chart";
import { ReadingDialog, type ReadingTarget } from "../photometer/reading-dialog";
import { SampleFlask } from "./sample-flask";
import { UnknownResult } from "./unknown-result";
import { type CuvetteTarget, displayFields, useCuvette } from "../photometer/use-cuvette";
import { hidden, usePhotometer } from "../photometer/use-photometer";
import { useReader, wavelengthOf } from "../photometer/use-reader";
import { StageFrame } from "../photometer/stage-frame";
import { useSay } from "../../../words/text";

interface UnknownStageProps {
  stage: UnknownEvaluation;
  evaluation: RunEvaluation;
}

/** Usual values of the fields of a flask, and those of the flask before. */
function proposalsOf(stage: UnknownEvaluation): Record<string, string> {
  const last = stage.trials.at(-1);
  const proposals: Record<string, string> = {};
  for (const input of stage.definition.inputs) {
    const usual = presumedOf(input)["volume.taken"];
    for (const kind of ["volume.taken", "given"] as const) {
      const before = last && presentObservation(last.record.observations, input.symbol, kind)?.text;
      const value = before ?? (kind === "volume.taken" ? usual : undefined);
      if (value !== undefined) proposals[`${input.symbol}:${kind}`] = value;
    }
  }
  return proposals;
}

interface SampleInHandProps extends UnknownStageProps {
  readonly calibration: CalibrationEvaluation | null;
  readonly which: string;
  readonly onTakeUp: (which: string) => void;
}

/** The flask of the unknown that is read next; it stays in hand, since an unknown is read several times. */
function SampleInHand({ stage, evaluation, calibration, which, onTakeUp }: SampleInHandProps) {
  const say = useSay();
  const { record } = useRunInHand();
  const { definition } = stage;
  const [person, setPerson] = useReader(record.bench);
  const [fresh, setFresh] = useState(() => newId());
  const sample = stage.trials.find((t) => t.id === which) ?? null;
  const target = useMemo((): CuvetteTarget => {
    const all = trialFields(definition, record.houseRules);
    const there = new Set(sample?.fields.filter((f) => f.present).map((f) => fieldKey(f.field)));
    return {
      trialId: sample?.id ?? fresh,
      readings: displayFields(all),
      fields: all.filter((f) => !f.optional && !there.has(fieldKey(f))),
      proposals: proposalsOf(stage),
      observations: sample?.record.observations ?? [],
    };
  }, [definition, record.houseRules, sample, fresh, stage]);
  const cuvette = useCuvette({
    draftKey: `cuvette:${record.id}:${stage.key}:${which}`,
    target,
    stage: definition,
    person,
    onSaved: (trialId) => {
      // The same flask stays in hand: an unknown is read several times.
      if (trialId !== null) onTakeUp(trialId);
      setFresh(newId());
    },
  });
  const nm = wavelengthOf(evaluation);
  const strongest = calibration?.definition.strongest ?? 0.7;
  const absorbance = strongest * (0.5 + 0.2 * hidden(record.id));
  const photometer = usePhotometer(record.id, nm, cuvetteOf(absorberNear(nm), nm, absorbance), which);
  const name = sample ? trialWords(sample.record, "flask") : say`flask ${stage.trials.length + 1}`;
  return (
    <CuvetteSheet
      title={say`Unknown, ${name}`}
      prompt={say`Rinse the cuvette with it, fill it, wipe it. Read it as often as the standards were.`}
      tint={tintOf(calibration?.definition.color ?? "#8899aa", 0.55)}
      target={target}
      cuvette={cuvette}
      person={person}
      onPerson={setPerson}
      photometer={photometer}
    >
      {sample && (
        <Button size="small" onClick={() => onTakeUp("new")} sx={{ justifySelf: "start", ml: -1 }}>
          {say`Another flask of it`}
        </Button>
      )}
    </CuvetteSheet>
  );
}

/** The unknown: its flasks and readings, the amount read off, carried back to the sample, and what to think of it. */
export function UnknownStageView({ stage, evaluation }: UnknownStageProps) {
  const { record } = useRunInHand();
  const { definition } = stage;
  const readOff = definition.inputs.find((i) => i.is === "read-off");
  const symbol = readOff?.reading ?? "A";
  const line = evaluation.stages.find((s) => s.key === stage.lineOf);
  const calibration = line?.kind === "calibration" ? line : null;
  const open = stage.trials.find((t) => t.missing && !t.record.struck);
  const [asked, setAsked] = useState<string | null>(null);
  const which = asked ?? open?.id ?? "new";
  const [opened, setOpened] = useState<ReadingTarget | null>(null);
  const [striking, setStriking] = useState<SampleEvaluation | null>(null);
  const locked = record.status !== "open";
  return (
    <>
      <StageFrame stage={stage} evaluation={evaluation} columns={[5, 7]}>
        <Box sx={column}>
          {!locked && (
            <SampleInHand
              stage={stage}
              evaluation={evaluation}
              calibration={calibration}
              which={which}
              onTakeUp={setAsked}
            />
          )}
          {stage.trials.length > 0 && (
            <SampleFlasks
              stage={stage}
              calibration={calibration}
              symbol={symbol}
              setOpened={setOpened}
              setAsked={setAsked}
              setStriking={setStriking}
            />
          )}
          <Box sx={{ order: 9 }}>
            <CautionPanel definition={definition} />
          </Box>
        </Box>
        <Box sx={column}>
          <UnknownResult stage={stage} evaluation={evaluation} />
          {calibration && <LineChart stage={calibration} unknown={stage} title={record.title} />}
          {calibration && <BootstrapPanel stage={stage} calibration={calibration} />}
        </Box>
      </StageFrame>
      {opened && <ReadingDialog target={opened} stage={stage.definition} onClose={() => setOpened(null)} />}
      {striking && <StrikeDialog trial={striking} onClose={() => setStriking(null)} />}
    </>
  );
}

interface SampleFlasksProps {
  readonly stage: UnknownEvaluation;
  readonly calibration: CalibrationEvaluation | null;
  readonly symbol: string;
  readonly setOpened: (to: ReadingTarget | null) => void;
  readonly setAsked: (to: string | null) => void;
  readonly setStriking: (to: SampleEvaluation | null) => void;
}

function SampleFlasks({ stage, calibration, symbol, setOpened, setAsked, setStriking }: SampleFlasksProps) {
  const say = useSay();
  const { send } = useRunInHand();
  return (
    <Sheet
      component="section"
      aria-label={say`Flasks of the unknown`}
      sx={{ p: 1.25, display: "grid", gap: 1, order: { xs: 2, md: 0 } }}
    >
      {stage.trials.map((t) => (
        <SampleFlask
          key={t.id}
          sample={t}
          unit={calibration?.definition.axis.unit ?? ""}
          symbol={symbol}
          onOpen={setOpened}
          onTakeUp={() => setAsked(t.id)}
          onStrike={() =>
            t.record.struck ? void send({ intent: "restore", trialId: t.id }) : setStriking(t)
          }
        />
      ))}
    </Sheet>
  );
}
