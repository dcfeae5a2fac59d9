import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useState } from "react";
import { type CalibrationStage } from "~/core/method";
import type { RunRecord } from "~/core/run";
import {
  type CalibrationEvaluation,
  type LevelEvaluation,
  nextCuvette,
  type RunEvaluation,
} from "~/core/stages";
import { useRunInHand } from "../../../entry/run-context";
import { Sheet } from "../../../ui/sheet";
import { CautionPanel } from "../shared/caution-panel";
import { ShelveButton } from "../shared/shelve";
import { StrikeDialog } from "../shared/trial-dialogs";
import { LevelsTable } from "./levels-table";
import { LineChart } from "../photometer/line-chart";
import { LinePanel } from "./line-panel";
import { NextSteps } from "../photometer/next-steps";
import { PasteDialog } from "../photometer/paste-dialog";
import { ReadingDialog, type ReadingTarget } from "../photometer/reading-dialog";
import { column } from "../photometer/layout";
import { useReader } from "../photometer/use-reader";
import type { StageViewProps } from "../screens";
import { StageFrame } from "../photometer/stage-frame";
import { FlaskInHand } from "./flask-in-hand";
import { useSay } from "../../../words/text";

/** The cuvette that comes next, as the screen names it. */
function following(stage: CalibrationEvaluation, person: string): string {
  const next = nextCuvette(stage, person);
  if (next.what === "flask") return next.id;
  return next.what === "ahead" ? `ahead:${next.value}` : next.what;
}

/** Standards and the line through them: the reading in hand, all readings, the chart, what the data say. */
export function CalibrationStageView({ stage, evaluation }: StageViewProps<CalibrationEvaluation>) {
  const { record } = useRunInHand();
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
      <StageFrame stage={stage} evaluation={evaluation} columns={[5, 7]}>
        <Box sx={column}>
          {!locked && (
            <FlaskInHand
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
            which={which}
            symbols={symbols}
            setAsked={setAsked}
            setOpened={setOpened}
            setStriking={setStriking}
            setPasting={setPasting}
          />
          <Box sx={{ order: 9 }}>
            <CautionPanel definition={definition} />
          </Box>
        </Box>
        <LineSide stage={stage} evaluation={evaluation} record={record} />
      </StageFrame>
      {pasting && <PasteDialog stage={stage} symbols={symbols} onClose={() => setPasting(false)} />}
      {opened && <ReadingDialog target={opened} stage={stage.definition} onClose={() => setOpened(null)} />}
      {striking && <StrikeDialog trial={striking} onClose={() => setStriking(null)} />}
    </>
  );
}

interface FlasksSheetProps {
  readonly stage: CalibrationEvaluation;
  readonly which: string;
  readonly symbols: { reading: string; blank: string | null };
  readonly setAsked: (to: string | null) => void;
  readonly setOpened: (to: ReadingTarget | null) => void;
  readonly setStriking: (to: LevelEvaluation | null) => void;
  readonly setPasting: (to: boolean) => void;
}

function FlasksSheet({
  stage,
  which,
  symbols,
  setAsked,
  setOpened,
  setStriking,
  setPasting,
}: FlasksSheetProps) {
  const say = useSay();
  const { locked, send } = useRunInHand();
  return (
    <Sheet
      component="section"
      aria-label={say`Flasks`}
      sx={{ p: 1.25, order: { xs: 3, md: 0 }, minWidth: 0 }}
    >
      <LevelsTable
        stage={stage}
        inHand={locked ? "" : which}
        symbols={symbols}
        onTakeUp={setAsked}
        onOpen={setOpened}
        onStrike={setStriking}
        onRestore={(l) => void send({ intent: "restore", trialId: l.id })}
      />
      {!locked && (
        <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap", mt: 1 }}>
          <Button size="small" onClick={() => setAsked("other")}>
            {say`Another flask`}
          </Button>
          <Button size="small" onClick={() => setPasting(true)}>
            {say`A class’s readings …`}
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
  readonly record: RunRecord;
}

function LineSide({ stage, evaluation, record }: LineSideProps) {
  const unknown = evaluation.stages.find((s) => s.kind === "unknown" && s.lineOf === stage.key);
  return (
    <Box sx={column}>
      <NextSteps stage={stage} evaluation={evaluation}>
        <ShelveButton stage={stage} record={record} />
      </NextSteps>
      <LineChart stage={stage} unknown={unknown?.kind === "unknown" ? unknown : null} title={record.title} />
      <LinePanel stage={stage} />
    </Box>
  );
}
