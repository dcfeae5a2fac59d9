import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { v7 as newId } from "uuid";
import type { RunChange } from "~/core/change";
import { takenOver } from "~/core/inputs";
import { inputOf } from "~/core/method";
import { type ObservationKind, presentObservation } from "~/core/record";
import {
  type HeldAgainst,
  type Holdable,
  heldNow,
  heldSymbol,
  isHoldable,
  methodOf,
  type RunRecord,
} from "~/core/run";
import { msg, type Phrase, unitText, withPoint } from "~/core/text";
import { useRunInHand } from "../../entry/run-context";
import { isTaken } from "../../live/post";
import { FormDialog } from "../../ui/form-dialog";
import { type Localized, useSay } from "../../words/text";

/** What can be held against a result, as it is called at first. */
const kinds = [
  { key: "known", label: msg`Known value`, against: "value" },
  { key: "target", label: msg`Target`, against: "value" },
  { key: "at most", label: msg`Limit`, against: "limit" },
  { key: "at least", label: msg`Limit`, against: "limit" },
] as const;
type Kind = (typeof kinds)[number]["key"] | "nothing";

const kindWords: Readonly<Record<Kind, Phrase>> = {
  nothing: msg`nothing but what the method says`,
  known: msg`a known value: percent error and recovery`,
  target: msg`a target`,
  "at most": msg`a limit: at most`,
  "at least": msg`a limit: at least`,
};

/** Tolerances that are usual, in percent. */
const usual = ["1", "5", "10"];

interface Form {
  readonly kind: Kind;
  readonly value: string;
  readonly plusMinus: string;
  readonly tolerance: string;
  readonly in: "percent" | "unit";
}

/** What a stage is held against by choice, with the value that stands. */
function formOf(record: RunRecord, stageKey: string): Form {
  const stage = methodOf(record).stages.find(({ key }) => key === stageKey);
  const held = stage && isHoldable(stage) ? heldNow(stage) : null;
  const symbol = stage && isHoldable(stage) ? heldSymbol(stage) : "";
  const there = record.stages.find(({ key }) => key === stageKey)?.observations ?? [];
  const text = (kind: ObservationKind) => presentObservation(there, symbol, kind)?.text ?? "";
  const kind: Kind =
    held === null
      ? "known"
      : held.against === "limit"
        ? held.bound
        : held.label === "Target"
          ? "target"
          : "known";
  return {
    kind,
    value: text("given"),
    plusMinus: text("given.plus-minus"),
    tolerance: held?.against === "value" ? held.tolerance : "5",
    in: held?.against === "value" ? held.in : "percent",
  };
}

/** The reading that states it, or corrects what was stated. */
function statement(
  record: RunRecord,
  stageKey: string,
  kind: "given" | "given.plus-minus",
  typed: string,
): RunChange[] {
  const stage = record.method.stages.find(({ key }) => key === stageKey);
  if (!stage || !isHoldable(stage)) return [];
  const symbol = heldSymbol(stage);
  const there = record.stages.find(({ key }) => key === stageKey)?.observations ?? [];
  const standing = presentObservation(there, symbol, kind);
  const text = typed.trim();
  if (text === "" || standing?.text === text) return [];
  const reason = standing ? "stated anew" : null;
  const supersedes = standing?.id ?? null;
  return [{ intent: "observe", id: newId(), stageKey, trial: null, symbol, kind, text, supersedes, reason }];
}

interface Wrong {
  readonly at: keyof Form;
  readonly message: Phrase;
}

const kindOf = (form: Form) => kinds.find(({ key }) => key === form.kind);

/** The stage that yields what a result is held against, where it is not stated; null where it is. */
function yieldedBy({ method }: RunRecord, stage: Holdable): string | null {
  const input = inputOf(stage, heldSymbol(stage));
  const from = input ? takenOver(input)?.stage : undefined;
  return method.stages.find(({ key }) => key === from)?.title ?? null;
}

/** What is wrong with what was typed; null where nothing is. */
function wrongIn(form: Form, stated: boolean): Wrong | null {
  const kind = kindOf(form);
  if (!kind) return null;
  if (stated && form.value.trim() === "") return { at: "value", message: msg`Type the value` };
  const tolerance = withPoint(form.tolerance.trim());
  const isNumber = /^\d+(\.\d+)?$/.test(tolerance) && Number(tolerance) > 0;
  return kind.against === "value" && tolerance !== "" && !isNumber
    ? { at: "tolerance", message: msg`Type a number above zero, or nothing` }
    : null;
}

/** The changes that hold the result of a stage against what was typed, each with the field that it is about. */
function changesFor(
  record: RunRecord,
  stage: Holdable,
  form: Form,
  say: Localized,
): readonly (readonly [keyof Form, RunChange])[] {
  const kind = kindOf(form);
  const stageKey = stage.key;
  if (!kind) return [["kind", { intent: "hold-against", stageKey, heldAgainst: null }]];
  const own = stage.inputs.find(({ symbol }) => symbol === stage.accept?.symbol)?.label;
  const label = own ?? say(kind.label);
  const heldAgainst: HeldAgainst =
    kind.against === "limit"
      ? { against: "limit", label, bound: kind.key }
      : { against: "value", label, tolerance: withPoint(form.tolerance.trim()), in: form.in };
  if (yieldedBy(record, stage) !== null) return [["kind", { intent: "hold-against", stageKey, heldAgainst }]];
  return [
    ["kind", { intent: "hold-against", stageKey, heldAgainst }],
    ...statement(record, stageKey, "given", form.value).map((c) => ["value", c] as const),
    ...statement(record, stageKey, "given.plus-minus", form.plusMinus).map((c) => ["plusMinus", c] as const),
  ];
}

interface HeldAgainstProps {
  readonly stageKey: string;
  readonly onClose: () => void;
}

/** A known or target value, or a limit, that the result of a stage is held against in this run. */
export function HeldAgainstDialog({ stageKey, onClose }: HeldAgainstProps) {
  const say = useSay();
  const { record, send } = useRunInHand();
  const [form, setForm] = useState(() => formOf(record, stageKey));
  const [problem, setProblem] = useState<Wrong | null>(null);
  const stage = record.method.stages.find(({ key }) => key === stageKey);
  if (!stage || !isHoldable(stage)) return null;
  const from = yieldedBy(record, stage);
  const submit = async () => {
    const wrong = wrongIn(form, from === null);
    if (wrong) return setProblem(wrong);
    for (const [at, change] of changesFor(record, stage, form, say)) {
      const answer = await send(change);
      if (!isTaken(answer)) return setProblem({ at, message: answer.message });
    }
    onClose();
  };
  return (
    <FormDialog
      title={say`${stage.title}: held against`}
      submit={say`Use in this run`}
      onSubmit={() => void submit()}
      onClose={onClose}
    >
      <HeldFields
        stage={stage}
        form={form}
        problem={problem}
        from={from}
        onChange={(next) => {
          setProblem(null);
          setForm(next);
        }}
      />
    </FormDialog>
  );
}

interface HeldFieldsProps {
  readonly stage: Holdable;
  readonly form: Form;
  readonly problem: Wrong | null;
  /** The stage that yields the value; null where it is stated here. */
  readonly from: string | null;
  readonly onChange: (form: Form) => void;
}

const decimalField = {
  htmlInput: { inputMode: "decimal", autoComplete: "off", maxLength: 40 },
} as const;

function HeldFields({ stage, form, problem, from, onChange }: HeldFieldsProps) {
  const say = useSay();
  const kind = kindOf(form);
  const field = (at: keyof Form, hint = "") => ({
    value: form[at],
    error: problem?.at === at,
    helperText: problem?.at === at ? say(problem.message) : hint,
    onChange: (event: { readonly target: { readonly value: string } }) =>
      onChange({ ...form, [at]: event.target.value }),
  });
  const unit = say(unitText(stage.result.unit));
  return (
    <>
      <TextField
        select
        label={say`${stage.result.name} is held against`}
        {...field("kind")}
        slotProps={{ select: { native: true } }}
      >
        {Object.entries(kindWords).map(([key, words]) => (
          <option key={key} value={key}>
            {say(words)}
          </option>
        ))}
      </TextField>
      {kind && from !== null && (
        <Typography color="textSecondary">{say`The value comes from "${from}".`}</Typography>
      )}
      {kind && from === null && (
        <Box sx={{ display: "grid", gap: 1.5, gridTemplateColumns: "2fr 1fr" }}>
          <TextField
            label={say`${kind.label}, ${unit}`}
            {...field("value")}
            autoFocus
            slotProps={decimalField}
          />
          <TextField label="±" {...field("plusMinus", say`half the width`)} slotProps={decimalField} />
        </Box>
      )}
      {kind?.against === "value" && (
        <>
          <Box sx={{ display: "grid", gap: 1.5, gridTemplateColumns: "2fr 1fr" }}>
            <TextField
              label={say`Allowed`}
              {...field("tolerance", say`empty: the error alone is shown`)}
              slotProps={decimalField}
            />
            <TextField select label={say`in`} {...field("in")} slotProps={{ select: { native: true } }}>
              <option value="percent">%</option>
              <option value="unit">{unit}</option>
            </TextField>
          </Box>
          <UsualTolerances onChoose={(percent) => onChange({ ...form, tolerance: percent, in: "percent" })} />
        </>
      )}
    </>
  );
}

function UsualTolerances({ onChoose }: { readonly onChoose: (percent: string) => void }) {
  return (
    <Box sx={{ display: "flex", gap: 1 }}>
      {usual.map((percent) => (
        <Button
          key={percent}
          size="small"
          variant="outlined"
          color="secondary"
          onClick={() => onChoose(percent)}
        >
          {percent} %
        </Button>
      ))}
    </Box>
  );
}
