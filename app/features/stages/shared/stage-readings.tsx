import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { lazy, Suspense, useContext, useState } from "react";
import type { ComputedStage } from "~/core/method";
import type { Input } from "~/core/inputs";
import type { RunShelf } from "~/protocol/shelf";
import { type ComputedEvaluation, type FieldState, type RunEvaluation, shownResult } from "~/core/stages";
import { isPreselected, type StageRecord } from "~/core/record";
import { cursorTarget } from "../../../entry/cursor";
import { useRunInHand } from "../../../entry/run-context";
import { colors, fonts } from "../../../theme/theme";
import { ConfirmVolumes } from "./confirm-volumes";
import { CorrectDialog } from "./correct-dialog";
import { bottlesFor, ShelfContext } from "./shelf-context";
import { StageInput } from "./stage-input";
import { useSay } from "../../../words/text";

// The list of bottles comes when somebody asks for it.
const TakeDialog = lazy(() => import("./take-bottle").then((m) => ({ default: m.TakeDialog })));

interface StageReadingsProps {
  stage: ComputedEvaluation;
  evaluation: RunEvaluation;
  /** One below the other, with a button for the next one that waits: where nothing else is read. */
  single?: boolean;
}

/** What holds for all trials of a stage: purities, what was stated or measured once, and results of earlier stages. */
export function StageReadings(props: StageReadingsProps) {
  const { stage, evaluation, single: single = false } = props;
  const { record: run, locked } = useRunInHand();
  const record = run.stages.find((s) => s.key === stage.key);
  const [chosen, setChosen] = useState<FieldState | null>(null);
  const shelf = useContext(ShelfContext);
  const [taking, setTaking] = useState<Input | null>(null);
  const { definition } = stage;
  const stageFields = stage.stageFields.filter(({ field }) => !field.hidden && !field.many);
  const earlierOnes = earlierOf(definition, evaluation);
  const read = definition.inputs.filter((input) =>
    stageFields.some(({ field }) => field.symbol === input.symbol),
  );
  if (earlierOnes.length + read.length === 0) return null;
  const waiting = stageFields.find(({ field, present }) => !present && !field.optional);
  const asked = !locked ? (
    <ConfirmVolumes
      definition={definition}
      observations={record?.observations ?? []}
      stageKey={stage.key}
      fields={stageFields}
      onChange={setChosen}
      next={single && !waiting}
    />
  ) : null;
  return (
    <>
      <Box sx={readingsLayout(single)}>
        {earlierOnes.map(({ input, earlier }) => (
          <EarlierResult key={input.symbol} input={input} earlier={earlier} />
        ))}
        {read.map((input) => (
          <StageInput
            key={input.symbol}
            input={input}
            states={stageFields.filter(({ field }) => field.symbol === input.symbol)}
            target={"accept" in definition && definition.accept?.symbol === input.symbol}
            fromShelf={bottlesFor(input, shelf).length > 0}
            all={stage.stageFields.filter(({ field }) => field.symbol === input.symbol)}
            onChoose={setChosen}
            onTake={() => setTaking(input)}
          />
        ))}
        {single && !locked && waiting && <RecordNext waiting={waiting} onChoose={setChosen} />}
        {taking && <Taking taking={taking} shelf={shelf} stage={stage} setTaking={setTaking} />}
        {chosen && (
          <Correcting chosen={chosen} stage={stage} record={record} onClose={() => setChosen(null)} />
        )}
      </Box>
      {asked}
    </>
  );
}

interface RecordNextProps {
  readonly waiting: FieldState;
  readonly onChoose: (state: FieldState) => void;
}

function RecordNext({ waiting, onChoose }: RecordNextProps) {
  const say = useSay();
  return (
    <Button
      variant="contained"
      size="large"
      onClick={() => onChoose(waiting)}
      sx={{ mt: 1 }}
      {...cursorTarget}
    >
      {say`Record: ${waiting.field.label}`}
    </Button>
  );
}

function earlierOf(definition: ComputedStage, evaluation: RunEvaluation) {
  return definition.inputs.flatMap((input) => {
    const earlier = input.is === "result" ? evaluation.stages.find((s) => s.key === input.stage) : undefined;
    // A closed stage shows its result on its bead already.
    // What a stage only handed on is on no bead, though.
    const handedOn = input.is === "result" && input.result !== undefined;
    return input.is === "result" && earlier && (!earlier.done || handedOn) ? [{ input, earlier }] : [];
  });
}

function EarlierResult({
  input,
  earlier,
}: {
  readonly input: Extract<Input, { is: "result" }>;
  readonly earlier: ComputedEvaluation;
}) {
  const say = useSay();
  return (
    <Box>
      {input.label}{" "}
      <Box
        component="span"
        sx={{
          fontFamily: shownResult(earlier, input.result) ? fonts.reading : undefined,
          color: colors.ink,
        }}
      >
        {say(shownResult(earlier, input.result)?.text ?? say`not known yet`)}
      </Box>
      {earlier.shown &&
        !earlier.done &&
        earlier.implausible.length === 0 &&
        say` (its set is not closed yet)`}
    </Box>
  );
}

const readingsLayout = (single: boolean) =>
  ({
    display: "flex",
    flexDirection: single ? "column" : "row",
    flexWrap: single ? "nowrap" : "wrap",
    alignItems: single ? "flex-start" : "center",
    columnGap: 3,
    rowGap: 0.5,
    color: colors.inkSoft,
  }) as const;

interface TakingProps {
  readonly taking: Input;
  readonly shelf: RunShelf;
  readonly stage: ComputedEvaluation;
  readonly setTaking: (to: Input | null) => void;
}

function Taking({ taking, shelf, stage, setTaking }: TakingProps) {
  return (
    <Suspense>
      <TakeDialog
        input={taking}
        bottles={bottlesFor(taking, shelf)}
        stageKey={stage.key}
        replaces={stage.stageFields.some(
          ({ field, present }) =>
            field.symbol === taking.symbol && present !== null && !isPreselected(present),
        )}
        onClose={() => setTaking(null)}
      />
    </Suspense>
  );
}

interface CorrectingProps {
  readonly chosen: FieldState;
  readonly stage: ComputedEvaluation;
  readonly record: StageRecord | undefined;
  readonly onClose: () => void;
}

function Correcting({ chosen, stage, record, onClose }: CorrectingProps) {
  return (
    <CorrectDialog
      state={chosen}
      spread={
        stage.stageFields.find(
          ({ field }) =>
            field.symbol === chosen.field.symbol && field.kind === `${chosen.field.kind}.plus-minus`,
        ) ?? null
      }
      holder={{ observations: record?.observations ?? [] }}
      trialId={null}
      trialKind="fine"
      stage={stage.definition}
      onClose={onClose}
    />
  );
}
