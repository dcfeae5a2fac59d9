import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useContext, useState } from "react";
import {
  type ComputedEvaluation,
  type FieldState,
  fieldKey,
  type HouseRules,
  type Input,
  isPreselected,
  type RunEvaluation,
  type RunRecord,
  shownResult,
  type StageRecord,
} from "~/core/run";
import { concentrationOf } from "~/formats/concentration";
import { colors, fonts } from "../../theme/theme";
import { ConfirmVolumes } from "./confirm-volumes";
import { CorrectDialog } from "./correct-dialog";
import { bottlesFor, ShelfContext } from "./shelf-context";
import { bottleUsed, FromBottle, TakeDialog } from "./take-bottle";
import type { Send } from "./use-run";

interface StageReadingsProps {
  stage: ComputedEvaluation;
  record: StageRecord | undefined;
  evaluation: RunEvaluation;
  run: RunRecord;
  rules: HouseRules;
  locked: boolean;
  send: Send;
  /** One below the other, with a button for the next one that waits: where nothing else is read. */
  alone?: boolean;
}

/** What an input is taken to be until something is typed. */
function presumedText(input: Input, kind: string): string | undefined {
  const half = kind.endsWith("plus-minus");
  if (input.is === "purity") return half ? input.presumed.plusMinus : input.presumed.percent;
  if (input.is === "pipette" || input.is === "flask" || input.is === "graduated") return input.presumed;
  if (input.is === "given") return half ? input.presumed?.plusMinus : input.presumed?.value;
  return undefined;
}

/** What holds for all trials of a stage: purities, what was stated or measured once, and results of earlier stages. */
export function StageReadings({
  stage,
  record,
  evaluation,
  run,
  rules,
  locked,
  send,
  alone = false,
}: StageReadingsProps) {
  const [chosen, setChosen] = useState<FieldState | null>(null);
  const shelf = useContext(ShelfContext);
  const [taking, setTaking] = useState<Input | null>(null);
  const { definition } = stage;
  const stageFields = stage.stageFields.filter(({ field }) => !field.hidden && !field.many);
  const earlierOnes = definition.inputs.flatMap((input) => {
    const earlier = input.is === "result" ? evaluation.stages.find((s) => s.key === input.stage) : undefined;
    // A closed stage shows its result on its bead already.
    // What a stage only handed on is on no bead, though.
    const handedOn = input.is === "result" && input.result !== undefined;
    return input.is === "result" && earlier && earlier.kind !== "conclude" && (!earlier.done || handedOn)
      ? [{ input, earlier }]
      : [];
  });
  const read = definition.inputs.filter((input) =>
    stageFields.some(({ field }) => field.symbol === input.symbol),
  );
  if (earlierOnes.length + read.length === 0) return null;
  const waiting = stageFields.find(({ field, present }) => !present && !field.optional);
  const asked =
    run.status === "open" ? (
      <ConfirmVolumes
        definition={definition}
        observations={record?.observations ?? []}
        stageKey={stage.key}
        fields={stageFields}
        send={send}
        onChange={setChosen}
      />
    ) : null;
  return (
    <>
      <Box
        sx={{
          display: "flex",
          flexDirection: alone ? "column" : "row",
          flexWrap: alone ? "nowrap" : "wrap",
          alignItems: alone ? "flex-start" : "center",
          columnGap: 3,
          rowGap: 0.5,
          color: colors.inkSoft,
        }}
      >
        {earlierOnes.map(({ input, earlier }) => (
          <Box key={input.symbol}>
            {input.label}{" "}
            <Box
              component="span"
              sx={{
                fontFamily: shownResult(earlier, input.result) ? fonts.reading : undefined,
                color: colors.ink,
              }}
            >
              {shownResult(earlier, input.result)?.text ?? "not known yet"}
            </Box>
            {earlier.shown && earlier.implausible.length === 0 && " (its set is not closed yet)"}
          </Box>
        ))}
        {read.map((input) => (
          <StageInput
            key={input.symbol}
            input={input}
            states={stageFields.filter(({ field }) => field.symbol === input.symbol)}
            locked={locked}
            run={run}
            target={"accept" in definition && definition.accept?.symbol === input.symbol}
            fromShelf={bottlesFor(input, shelf).length > 0}
            all={stage.stageFields.filter(({ field }) => field.symbol === input.symbol)}
            onChoose={setChosen}
            onTake={() => setTaking(input)}
          />
        ))}
        {alone && !locked && waiting && (
          <Button variant="contained" size="large" onClick={() => setChosen(waiting)} sx={{ mt: 1 }}>
            Record: {waiting.field.label}
          </Button>
        )}
        {taking && (
          <TakeDialog
            input={taking}
            bottles={bottlesFor(taking, shelf)}
            stageKey={stage.key}
            replaces={stage.stageFields.some(
              ({ field, present }) =>
                field.symbol === taking.symbol && present !== null && !isPreselected(present),
            )}
            send={send}
            onClose={() => setTaking(null)}
          />
        )}
        {chosen && (
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
            stage={definition}
            rules={rules}
            send={send}
            onClose={() => setChosen(null)}
          />
        )}
      </Box>
      {asked}
    </>
  );
}

interface StageInputProps {
  input: Input;
  states: readonly FieldState[];
  locked: boolean;
  run: RunRecord;
  /** True where the result is held against it. */
  target: boolean;
  /** True where a bottle of it stands on the shelf. */
  fromShelf: boolean;
  /** All fields of the input, those with it that nobody types. */
  all: readonly FieldState[];
  onChoose: (state: FieldState) => void;
  onTake: () => void;
}

/** One thing read once: its label and its readings, each a button that opens it to be typed or corrected. */
function StageInput(props: StageInputProps) {
  const { input, states, locked, run, target, fromShelf, all, onChoose, onTake } = props;
  const used = bottleUsed(all, run);
  const label = used && concentrationOf(used);
  const main = states.find(({ field }) => !field.kind.endsWith("plus-minus"));
  const read = main?.present != null;
  const preselectedNow = main?.present != null && isPreselected(main.present);
  const presumed = presumedText(input, "value") !== undefined;
  // Of two readings each is named; what the label of the whole says already is left out.
  const oneOf = ({ field }: FieldState) =>
    states.length > 1 &&
    !field.kind.endsWith("plus-minus") &&
    (input.is === "mass" || input.is === "delivered")
      ? `${field.label.replace(`${input.label}: `, "")}:`
      : "";
  return (
    <Box sx={{ display: "flex", alignItems: "center", flexWrap: "wrap", columnGap: 1 }}>
      <span>{input.label}</span>
      {states.map((state) => {
        const { field, present } = state;
        if (label && field.kind.endsWith("plus-minus")) {
          return (
            <span key={fieldKey(field)} style={{ fontFamily: fonts.reading, color: colors.ink }}>
              {label.plusMinus && `± ${label.plusMinus}`}
            </span>
          );
        }
        const half = field.kind.endsWith("plus-minus");
        // What a bottle brings keeps guard digits; it is shown as its label has it.
        // The ± of a presumed value is that value's: one that was typed has its own, or none.
        const usual = half && read ? undefined : presumedText(input, field.kind);
        const value = half ? (present?.text ?? usual) : (label?.value ?? present?.text ?? usual);
        if (field.kind === "glass.piece" && !present) return null;
        // No value, no ±.
        if (half && !present && !read && !presumed) return null;
        // A target or a limit is what it is.
        const shown = value ?? (half ? (read && !target ? "not stated" : "0") : "type it");
        const name = half ? `Half width of ${input.label.toLowerCase()}` : oneOf(state) || input.label;
        return (
          <Box
            key={fieldKey(field)}
            component="span"
            sx={{ display: "inline-flex", alignItems: "center", gap: 0.5 }}
          >
            {half ? "±" : field.kind === "glass.piece" ? "pipette no." : oneOf(state)}
            {locked ? (
              <span style={{ fontFamily: fonts.reading, color: colors.ink }}>{value ?? "–"}</span>
            ) : (
              <Button
                size="small"
                onClick={() => onChoose(state)}
                aria-label={`${name.replace(/:$/, "")} ${shown} ${field.unit}, change`}
                sx={{
                  fontFamily: value === undefined && !half ? undefined : fonts.reading,
                  fontWeight: 500,
                  minWidth: 0,
                  px: 0.75,
                  textDecoration: "underline dotted",
                }}
              >
                {shown}
              </Button>
            )}
          </Box>
        );
      })}
      <span>
        {main?.field.unit}
        {label?.meaning === "k = 2" ? " (k = 2)" : ""}
        {!read && presumed ? ", presumed" : ""}
      </span>
      {used && <FromBottle used={used} />}
      {used && preselectedNow && <span>(preselected)</span>}
      {fromShelf && !locked && (
        <Button size="small" onClick={onTake} aria-label={`${input.label}: take from the shelf`}>
          {read ? "another bottle" : "from the shelf"}
        </Button>
      )}
    </Box>
  );
}
