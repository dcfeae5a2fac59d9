import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import ToggleButton from "@mui/material/ToggleButton";
import ToggleButtonGroup from "@mui/material/ToggleButtonGroup";
import Typography from "@mui/material/Typography";
import { useMemo, useState } from "react";
import { plusMinus } from "~/core/judgement";
import type { IsothermFit, Law } from "~/core/adsorption";
import { toSignificant, unitOf } from "~/core/quantity";
import { type IsothermEvaluation, lawWords, type RunEvaluation } from "~/core/stages";
import { capitalized, msg, type Phrase } from "~/core/text";
import { useRunInHand } from "../../../entry/run-context";
import { colors, fonts } from "../../../theme/theme";
import { Chart } from "../../../ui/chart/chart";
import { sentence, together } from "../../../ui/number-text";
import { Sheet } from "../../../ui/sheet";
import { useSay } from "../../../words/text";
import { StageFrame } from "../photometer/stage-frame";
import { WayOn } from "../photometer/way-on";
import { withHalf } from "../../curves/end-words";
import { Accepted, Footing, Implausible } from "../shared/footing";
import { type Drawn, isothermOption } from "./isotherm-option";

interface IsothermStageProps {
  readonly stage: IsothermEvaluation;
  readonly evaluation: RunEvaluation;
}

const table = {
  borderCollapse: "collapse",
  width: 1,
  "& th, & td": { textAlign: "left", py: 0.4, pr: 1.5, verticalAlign: "top" },
  "& th": { color: colors.inkSoft, fontWeight: 500, fontSize: "0.9rem" },
  "& td": { borderTop: `1px solid ${colors.line}` },
} as const;
const reading = { fontFamily: fonts.reading, whiteSpace: { xs: "normal", sm: "nowrap" } } as const;

/** Both laws through all bottles: on one plot, side by side as line and as fit, and which describes what was titrated. */
export function IsothermStageView({ stage, evaluation }: IsothermStageProps) {
  const say = useSay();
  const { record } = useRunInHand();
  const used = stage.bottles.filter(({ leftOut }) => leftOut === null).length;
  return (
    <StageFrame stage={stage} evaluation={evaluation} columns={[7, 5]} readings={false}>
      <Box sx={{ display: "grid", gap: 2, minWidth: 0 }}>
        {used > 1 && <Isotherms stage={stage} title={record.title} />}
        {stage.cautions.map(({ message }) => (
          <Alert key={say(message)} severity="warning" sx={{ py: 0 }}>
            {together(say(message))}.
          </Alert>
        ))}
        <Bottles stage={stage} />
      </Box>
      <Box sx={{ display: "grid", gap: 2, minWidth: 0 }}>
        <Result stage={stage} evaluation={evaluation} />
        {stage.fits.length > 0 && <Laws stage={stage} />}
      </Box>
    </StageFrame>
  );
}

function Isotherms({ stage, title }: { readonly stage: IsothermEvaluation; readonly title: string }) {
  const say = useSay();
  const [drawn, setDrawn] = useState<Drawn>("uptake");
  const option = useMemo(() => isothermOption(stage, drawn, say), [stage, drawn, say]);
  return (
    <Sheet component="section" aria-label={say`Isotherm`} sx={{ display: "grid", gap: 1, minWidth: 0 }}>
      <ToggleButtonGroup
        exclusive
        size="small"
        value={drawn}
        aria-label={say`How it is drawn`}
        onChange={(_event, next: Drawn | null) => next && setDrawn(next)}
      >
        <ToggleButton value="uptake">{say`q against c`}</ToggleButton>
        <ToggleButton value="freundlich">{say`log q against log c`}</ToggleButton>
        <ToggleButton value="langmuir">{say`c/q against c`}</ToggleButton>
      </ToggleButtonGroup>
      <Chart
        label={say`Taken up by a gram against the concentration at equilibrium, ${stage.bottles.length} bottles`}
        option={option}
        height={370}
        fileName={`${title} ${say`isotherm`}`}
      />
    </Sheet>
  );
}

function Bottles({ stage }: { readonly stage: IsothermEvaluation }) {
  const say = useSay();
  const [best] = stage.fits.toSorted((a, b) => a.chiSquare - b.chiSquare);
  const used = stage.bottles.filter(({ leftOut }) => leftOut === null);
  if (stage.bottles.length === 0)
    return <Typography color="textSecondary">{say`No bottle is titrated yet.`}</Typography>;
  return (
    <Sheet component="section" aria-label={say`Bottles`}>
      <Box component="table" sx={table}>
        <thead>
          <tr>
            <th>{say`Bottle`}</th>
            <th>{say`At equilibrium`}</th>
            <th>{say`Taken up`}</th>
            <th>{best ? say`off ${lawWords[best.law]}, in its ±` : ""}</th>
          </tr>
        </thead>
        <tbody>
          {stage.bottles.map((view) => {
            const z = best?.standardized[used.indexOf(view)];
            return (
              <tr key={say(view.name)}>
                <td>{say(view.name)}</td>
                <Box component="td" sx={reading}>
                  {say(view.shown.concentration.text)}
                </Box>
                <Box component="td" sx={reading}>
                  {say(view.shown.uptake.text)}
                </Box>
                <Box component="td" sx={reading}>
                  {view.leftOut === null ? (z === undefined ? "" : z.toFixed(1)) : say`left out`}
                </Box>
              </tr>
            );
          })}
        </tbody>
      </Box>
    </Sheet>
  );
}

function Result({ stage, evaluation }: IsothermStageProps) {
  const say = useSay();
  const { shown, definition, also, shares, problem } = stage;
  const own: ReadonlySet<string> = new Set([
    ...definition.isotherm.freundlich,
    ...definition.isotherm.langmuir,
  ]);
  const causes = shares
    .filter((s) => s.part >= 0.01)
    .slice(0, 3)
    .map((s) => say`${s.label} ${Math.round(100 * s.part)} %`);
  return (
    <Sheet
      component="section"
      aria-label={say`Result`}
      sx={stage.done ? { borderColor: colors.teal, borderWidth: 2 } : {}}
    >
      <Typography data-testid="verdict" sx={{ fontWeight: 700, color: colors.tealDeep, mb: 0.5 }}>
        {together(say(capitalized(stage.next)))}.
      </Typography>
      <Typography color="textSecondary">{definition.result.name}</Typography>
      <Box data-testid="result" sx={{ fontFamily: fonts.reading, fontSize: "1.6rem", lineHeight: 1.25 }}>
        {say(shown?.text ?? "–")}
      </Box>
      {causes.length > 0 && (
        <Typography variant="body2" color="textSecondary">{say`${causes.join(", ")} of its ±.`}</Typography>
      )}
      {also
        .filter(({ definition: { symbol } }) => !own.has(symbol))
        .map(({ definition: { symbol, name }, shown: other }) => (
          <Typography key={symbol}>
            {say(name)}: <span style={{ fontFamily: fonts.reading }}>{say(other.text)}</span>
          </Typography>
        ))}
      <Footing stage={stage} />
      <Accepted stage={stage} />
      <Implausible stage={stage} />
      {problem && <Typography sx={{ color: colors.brick }}>{together(sentence(say(problem)))}</Typography>}
      {stage.done && <WayOn stage={stage} evaluation={evaluation} />}
    </Sheet>
  );
}

const parameterNames: Readonly<Record<Law, readonly [Phrase, Phrase]>> = {
  freundlich: [msg`K, mmol/g at 1 mol/L`, "1/n"],
  langmuir: [msg`capacity, mmol/g`, msg`b, L/mol`],
};

const parameterUnits: Readonly<Record<Law, readonly [string, string]>> = {
  freundlich: ["mmol/g", "1"],
  langmuir: ["mmol/g", "L/mol"],
};

/** Each law as the class draws it and as the titers have it, with what speaks for it. */
function Laws({ stage }: { readonly stage: IsothermEvaluation }) {
  const say = useSay();
  return (
    <Sheet component="section" aria-label={say`Both laws`} sx={{ display: "grid", gap: 1.5 }}>
      <Typography variant="h2">{say`Both laws`}</Typography>
      {stage.fits.map((fit) => (
        <LawTable key={fit.law} fit={fit} stage={stage} />
      ))}
      <Typography variant="body2" color="textSecondary">
        {say`The line gives every bottle the same weight after it was made straight; the fit asks what the titers may be off, which is in uptake and concentration alike. So they differ, most for the weakest acid.`}
      </Typography>
    </Sheet>
  );
}

function LawTable({ fit, stage }: { readonly fit: IsothermFit; readonly stage: IsothermEvaluation }) {
  const say = useSay();
  const { record } = useRunInHand();
  const line = stage.lines[fit.law];
  // With the scatter of the bottles, where that is more than their causes explain.
  const halfOf = (i: 0 | 1): number => {
    const q = stage.symbols.get(stage.definition.isotherm[fit.law][i]);
    return q ? plusMinus(q, record.houseRules.plusMinus) / unitOf(parameterUnits[fit.law][i]).factor : 0;
  };
  const taken = stage.better === fit.law;
  return (
    <Box component="table" sx={table}>
      <thead>
        <tr>
          <Box component="th" sx={{ "&&": { color: colors.ink, fontWeight: 650, fontSize: "1rem" } }}>
            {say(lawWords[fit.law])}
            {taken && say`, taken`}
          </Box>
          <th>{say`straight line`}</th>
          <th>{say`fit to the titers`}</th>
        </tr>
      </thead>
      <tbody>
        {fit.parameters.map(({ value }, i) => (
          <tr key={i}>
            <td>{say(parameterNames[fit.law][i as 0 | 1])}</td>
            <Box component="td" sx={reading}>
              {line ? toSignificant(line.parameters[i as 0 | 1], 3) : "–"}
            </Box>
            <Box component="td" sx={reading}>
              {withHalf(value, halfOf(i as 0 | 1))}
            </Box>
          </tr>
        ))}
        <tr>
          <td>χ²</td>
          <td />
          <Box component="td" sx={reading}>
            {say`${toSignificant(fit.chiSquare, 2)}, p ${fit.probability < 0.001 ? "<0.001" : toSignificant(fit.probability, 2)}`}
          </Box>
        </tr>
      </tbody>
    </Box>
  );
}
