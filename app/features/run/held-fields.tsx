import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField, { type TextFieldProps } from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { type ComputedStage, equivalentsOfResult, type Method } from "~/core/method";
import { askable } from "~/core/run";
import { unitText } from "~/core/text";
import { NormalityHelp } from "../../ui/normality-help";
import { useSay } from "../../words/text";
import { type HeldForm, kindOf, kindWords, resultAsked, usualTolerances } from "./held-form";
import type { StepProblem } from "./in-order";

interface HeldFieldsProps {
  readonly method: Method;
  readonly stage: ComputedStage;
  readonly form: HeldForm;
  readonly problem: StepProblem<keyof HeldForm> | null;
  /** The stage that yields the value; null where it is stated here. */
  readonly from: string | null;
  readonly onChange: (form: HeldForm) => void;
}

const decimalField = {
  htmlInput: { inputMode: "decimal", autoComplete: "off", maxLength: 40 },
} as const;

/** The fields of what a result is held against. */
export function HeldFields({ method, stage, form, problem, from, onChange }: HeldFieldsProps) {
  const say = useSay();
  const kind = kindOf(form);
  const field = (at: keyof HeldForm, hint = "") => ({
    value: form[at],
    error: problem?.at === at,
    helperText: problem?.at === at ? say(problem.message) : hint,
    onChange: (event: { readonly target: { readonly value: string } }) =>
      onChange({ ...form, [at]: event.target.value }),
  });
  const asked = resultAsked(stage, form);
  const unit = say(unitText(asked.unit));
  return (
    <>
      {kind && from === null && <ResultField stage={stage} {...field("result")} />}
      <TextField
        select
        label={say`${asked.name} is held against`}
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
      {kind && from === null && asked.unit === "mol/L" && (
        <NormalityHelp
          text={form.value}
          equivalents={asked === stage.result ? equivalentsOfResult(method, stage) : null}
          onTake={(value) => onChange({ ...form, value })}
        />
      )}
      {kind?.against === "value" && (
        <ToleranceFields
          tolerance={field("tolerance", say`empty: the error alone is shown`)}
          unit={unit}
          within={field("in")}
          onChoose={(percent) => onChange({ ...form, tolerance: percent, in: "percent" })}
        />
      )}
    </>
  );
}

/** Which of the results of a stage is asked for, where there are several. */
function ResultField({ stage, ...field }: { readonly stage: ComputedStage } & TextFieldProps) {
  const say = useSay();
  const results = askable(stage);
  if (results.length < 2) return null;
  return (
    <TextField
      select
      label={say`Result`}
      {...field}
      slotProps={{ select: { native: true }, inputLabel: { shrink: true } }}
    >
      {results.map(({ symbol, name, unit }, i) => (
        <option key={symbol} value={i === 0 ? "" : symbol}>
          {say`${name}, ${unitText(unit)}`}
        </option>
      ))}
    </TextField>
  );
}

interface ToleranceFieldsProps {
  readonly tolerance: TextFieldProps;
  readonly within: TextFieldProps;
  readonly unit: string;
  readonly onChoose: (percent: string) => void;
}

/** How far off a result may be, in percent or in its unit. */
function ToleranceFields({ tolerance, within, unit, onChoose }: ToleranceFieldsProps) {
  const say = useSay();
  return (
    <>
      <Box sx={{ display: "grid", gap: 1.5, gridTemplateColumns: "2fr 1fr" }}>
        <TextField label={say`Allowed`} {...tolerance} slotProps={decimalField} />
        <TextField select label={say`in`} {...within} slotProps={{ select: { native: true } }}>
          <option value="percent">%</option>
          <option value="unit">{unit}</option>
        </TextField>
      </Box>
      <UsualTolerances onChoose={onChoose} />
    </>
  );
}

function UsualTolerances({ onChoose }: { readonly onChoose: (percent: string) => void }) {
  return (
    <Box sx={{ display: "flex", gap: 1 }}>
      {usualTolerances.map((percent) => (
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
