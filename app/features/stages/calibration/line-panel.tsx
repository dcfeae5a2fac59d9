import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { type LineView, type CalibrationEvaluation, plusMinusWords } from "~/core/stages";
import type { LineAdvice } from "~/core/calibration";
import { decimalsFor, toDecimals, toSignificant } from "~/core/quantity";
import { together } from "../../../ui/number-text";
import { useRunInHand } from "../../../entry/run-context";
import { colors, fonts } from "../../../theme/theme";
import { Sheet } from "../../../ui/sheet";
import { useSay } from "../../../words/text";
import { msg, type Phrase, unitText } from "~/core/text";

const models = [
  { value: "line", label: msg`straight line`, fit: msg`Fit a straight line` },
  { value: "origin", label: msg`through the origin`, fit: msg`Fit through the origin` },
  { value: "quadratic", label: msg`quadratic`, fit: msg`Fit a quadratic` },
];
const weightings = [
  { value: "none", label: msg`unweighted` },
  { value: "1/s²", label: msg`1/s², by scatter` },
  { value: "1/x", label: "1/x" },
  { value: "1/x²", label: "1/x²" },
];
const zeros = [
  { value: "in", label: msg`part of the line` },
  { value: "out", label: msg`left out` },
];

interface LinePanelProps {
  stage: CalibrationEvaluation;
}

/** The line: what it is, what the data say of it, and what can be chosen instead. */
export function LinePanel({ stage }: LinePanelProps) {
  const say = useSay();
  const { locked, send } = useRunInHand();
  const { line, choice, levels, definition, problem } = stage;
  const choose = (name: "model" | "weighting" | "zero", value: string) =>
    void send({ intent: "choose", stageKey: stage.key, name, value });
  const unit = definition.axis.unit === "1" ? "" : ` ${say(unitText(definition.axis.unit))}`;
  const hasZero = levels.some((l) => l.x === 0);
  const select = (
    label: string,
    name: "model" | "weighting" | "zero",
    value: string,
    choices: readonly { value: string; label: Phrase }[],
  ) => (
    <TextField
      select
      size="small"
      label={label}
      value={value}
      disabled={locked}
      onChange={(event) => choose(name, event.target.value)}
    >
      {choices.map((c) => (
        <MenuItem key={c.value} value={c.value}>
          {say(c.label)}
        </MenuItem>
      ))}
    </TextField>
  );
  return (
    <Sheet component="section" aria-labelledby="line-title" sx={{ order: { xs: 5, md: 0 }, minWidth: 0 }}>
      <Typography id="line-title" variant="h2" sx={{ mb: 1 }}>
        {say`The line`}
      </Typography>
      <Box
        sx={{
          display: "grid",
          gap: 1.25,
          gridTemplateColumns: "repeat(auto-fit, minmax(150px, 1fr))",
          mb: 1.25,
        }}
      >
        {select(say`Line`, "model", choice.model, models)}
        {select(say`Weights`, "weighting", choice.weighting, weightings)}
        {hasZero && select(say`Zero standard`, "zero", choice.zero ? "in" : "out", zeros)}
      </Box>
      {problem && (
        <Typography role="alert" sx={{ color: colors.brick, fontWeight: 600 }}>
          {say(problem)}.
        </Typography>
      )}
      {line && (
        <>
          <Numbers stage={stage} unit={unit} />
          <Advice advice={line.advice} choose={choose} />
          <OffPoints line={line} />
        </>
      )}
    </Sheet>
  );
}

function OffPoints({ line }: { readonly line: LineView }) {
  const say = useSay();
  return (
    line.points.some((p) => p.off) && (
      <Typography sx={{ color: colors.brick, mt: 0.5 }}>
        {say`Circled: farther from the line than chance explains (|t| above ${line.offBeyond.toFixed(1)}). Check the flask and the cuvette; strike it out only with a reason.`}
      </Typography>
    )
  );
}

interface NumbersProps {
  stage: CalibrationEvaluation;
  unit: string;
}

function Numbers({ stage, unit }: NumbersProps) {
  const say = useSay();
  const { rules } = useRunInHand();
  const { line, also, shown, definition } = stage;
  if (!line) return null;
  const { fit, limits } = line;
  const withError = (i: 0 | 1 | 2) => {
    const [value, error] = [fit.coefficients[i], fit.standardErrors[i]];
    if (error === 0) return toSignificant(value, 4);
    const decimals = decimalsFor(error, 2);
    return [toDecimals(value, decimals), toDecimals(error, decimals)] as const;
  };
  const errorRow = (name: string, i: 0 | 1 | 2, per: string): [string, string] => {
    const found = withError(i);
    return typeof found === "string"
      ? [name, `${found}${per}`]
      : [name, say`${found[0]}${per}, standard error ${found[1]}`];
  };
  const limit = (l: typeof limits.line) =>
    l ? say`${toSignificant(l.detection, 2)} and ${toSignificant(l.quantitation, 2)}${unitText(unit)}` : null;
  const rows: [string, string | null][] = [
    errorRow(say`Slope`, 1, unit === "" ? "" : say` per${unitText(unit)}`),
    ...(fit.model === "origin" ? [] : [errorRow(say`Intercept`, 0, "")]),
    ...(fit.model === "quadratic" ? [errorRow(say`Square term`, 2, "")] : []),
    [say`Residual standard deviation`, fit.degreesOfFreedom > 0 ? toSignificant(fit.residualSd, 2) : null],
    [say`Detection and quantitation limits (from the line)`, limit(limits.line)],
    [say`Detection and quantitation limits (from the blanks)`, limit(limits.blanks)],
    [definition.result.name, shown ? say`${shown.text} (${plusMinusWords[rules.plusMinus]})` : null],
    ...also
      .filter((a) => !definition.inputs.some((i) => i.symbol === a.definition.symbol))
      .map((a): [string, string] => [say(a.definition.name), say(a.shown.text)]),
    [say`Held against`, stage.acceptance && say(stage.acceptance.text)],
    [say`R² (no proof of linearity)`, fit.rSquared.toFixed(5)],
  ];
  return <NumberRows rows={rows} />;
}

function NumberRows({ rows }: { readonly rows: readonly (readonly [string, string | null])[] }) {
  return (
    <Box
      component="dl"
      data-testid="line-numbers"
      sx={{
        display: "grid",
        gridTemplateColumns: { xs: "1fr", sm: "auto 1fr" },
        columnGap: 1.5,
        rowGap: 0.35,
        m: 0,
        mb: 1,
        alignItems: "baseline",
      }}
    >
      {rows.map(([name, value]) =>
        value === null ? null : (
          <Box key={name} sx={{ display: "contents" }}>
            <Box component="dt" sx={{ color: colors.inkSoft }}>
              {name}
            </Box>
            <Box component="dd" sx={{ m: 0, fontFamily: fonts.reading, fontSize: "0.95rem" }}>
              {value}
            </Box>
          </Box>
        ),
      )}
    </Box>
  );
}

interface AdviceProps {
  advice: readonly LineAdvice[];
  choose: (name: "model" | "weighting", value: string) => void;
}

function Advice({ advice, choose }: AdviceProps) {
  const say = useSay();
  const { locked } = useRunInHand();
  return (
    <Box
      component="ul"
      aria-label={say`What the data say`}
      data-testid="line-advice"
      sx={{ listStyle: "none", p: 0, m: 0, display: "grid", gap: 0.75 }}
    >
      {advice.map(({ about, good, text, model, weighting }) => (
        <Box
          component="li"
          key={about}
          sx={{
            pl: 1.25,
            borderLeft: `4px solid ${good ? colors.teal : colors.amber}`,
            color: good ? colors.tealDeep : colors.amberDeep,
          }}
        >
          {good ? "✓ " : ""}
          {together(say(text))}.
          {!locked && (model ?? weighting) && (
            <Button
              size="small"
              variant="outlined"
              sx={{ display: "block", mt: 0.5 }}
              onClick={() => (model ? choose("model", model) : choose("weighting", weighting ?? "none"))}
            >
              {model
                ? say(models.find((m) => m.value === model)?.fit ?? "")
                : say`Weigh by ${weighting ?? ""}`}
            </Button>
          )}
        </Box>
      ))}
    </Box>
  );
}
