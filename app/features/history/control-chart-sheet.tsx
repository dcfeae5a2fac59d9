import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { Link, useNavigate } from "react-router";
import {
  type ControlBasis,
  type ControlChart,
  controlChart,
  controlRuleWords,
  enough,
} from "~/core/judgement";
import { toDecimals, toSignificant, withUnit } from "~/core/quantity";
import { listed, msg, type Phrase, withPoint } from "~/core/text";
import type { ResultName, TimedResult } from "~/protocol/history";
import { colors } from "../../theme/theme";
import { Chart } from "../../ui/chart/chart";
import { Sheet } from "../../ui/sheet";
import { useSay } from "../../words/text";
import { controlOption, decimalsFor } from "./control-option";
import { useAsked } from "./use-asked";

interface ControlChartSheetProps {
  readonly result: ResultName;
  readonly values: readonly TimedResult[];
}

const numberOf = (text: string): number | null => {
  const plain = withPoint(text.trim());
  return plain !== "" && Number.isFinite(Number(plain)) ? Number(plain) : null;
};

/** For the limits: what is stated, where mean and s both are; else the first values. */
function basisOf(search: URLSearchParams): { readonly basis: ControlBasis; readonly problem: Phrase | null } {
  const text = (name: string) => search.get(name)?.trim() ?? "";
  const [mean, s] = [numberOf(text("mean")), numberOf(text("s"))];
  const first = text("first") === "" ? enough : Number(text("first"));
  const usable = Number.isInteger(first) && first >= 2;
  const chosen = { first: usable ? first : enough };
  if (mean !== null && s !== null) return { basis: { mean, s }, problem: null };
  if (text("mean") !== "" || text("s") !== "")
    return { basis: chosen, problem: msg`Enter both mean and s, as numbers, or neither` };
  return {
    basis: chosen,
    problem: usable
      ? null
      : msg`Enter how many values as a whole number, 2 or more: the first ${enough} are used`,
  };
}

/** One result over time, with its mean, its limits, and where a rule says that something has changed. */
export function ControlChartSheet({ result, values }: ControlChartSheetProps) {
  const say = useSay();
  const navigate = useNavigate();
  const { search } = useAsked();
  const { basis, problem } = basisOf(search);
  const found = controlChart(
    values.map(({ value }) => value),
    basis,
  );
  return (
    <Sheet component="section" aria-labelledby="control-chart" sx={{ mb: 2 }}>
      <Box sx={{ display: "flex", gap: 2, flexWrap: "wrap", alignItems: "flex-start", mb: 1 }}>
        <Box sx={{ flex: "1 1 320px" }}>
          <Typography id="control-chart" variant="h2">
            {say`Control chart: ${result.name}`}
          </Typography>
          {found.ok && <Limits chart={found.value} unit={result.unit} />}
        </Box>
        <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap" }}>
          <LimitField name="first" label={say`Limits from the first`} placeholder={String(enough)} />
          <LimitField name="mean" label={say`or mean`} placeholder="" />
          <LimitField name="s" label={say`and s`} placeholder="" />
        </Box>
      </Box>
      {problem && <Alert severity="warning">{say(problem)}.</Alert>}
      {found.ok ? (
        <>
          <Chart
            label={say`Control chart of ${result.name}, ${values.length} values`}
            height={300}
            fileName={`control chart ${result.name}`}
            option={controlOption(found.value, values, result, say)}
            onPoint={(at) => {
              const point = values[at];
              if (point) void navigate(`/runs/${point.id}`);
            }}
          />
          <Fired chart={found.value} values={values} unit={result.unit} />
        </>
      ) : (
        <Typography color="textSecondary">{say(found.problem.message)}.</Typography>
      )}
    </Sheet>
  );
}

function Limits({
  chart: { mean, s, from, provisional },
  unit,
}: {
  readonly chart: ControlChart;
  readonly unit: string;
}) {
  const say = useSay();
  const text = (value: number) => withUnit(toDecimals(value, decimalsFor(s)), unit);
  return (
    <>
      <Typography>
        {say(
          msg`Mean ${text(mean)}, s = ${withUnit(toSignificant(s, 2), unit)}; limits at 3 s: ${text(mean - 3 * s)} to ${text(mean + 3 * s)}.`,
        )}{" "}
        {from === null
          ? say`Mean and s as stated.`
          : say`From the first ${from} values: s is their mean moving range / 1.128.`}
      </Typography>
      {provisional && (
        <Typography sx={{ color: colors.amberDeep, fontWeight: 600 }}>
          {say`Provisional: limits need ${enough} values.`}
        </Typography>
      )}
    </>
  );
}

/** A number of the limits, which takes effect when the field is left or by Enter. */
function LimitField({
  name,
  label,
  placeholder,
}: {
  readonly name: string;
  readonly label: string;
  readonly placeholder: string;
}) {
  const { search, ask } = useAsked();
  const [typed, setTyped] = useState<string | null>(null);
  const there = search.get(name) ?? "";
  const take = () => {
    if (typed !== null && typed !== there) ask({ [name]: typed, page: search.get("page") });
    setTyped(null);
  };
  return (
    <TextField
      size="small"
      label={label}
      placeholder={placeholder}
      value={typed ?? there}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={take}
      onKeyDown={(event) => {
        if (event.key === "Enter") take();
      }}
      slotProps={{ inputLabel: { shrink: true }, htmlInput: { inputMode: "decimal", maxLength: 40 } }}
      sx={{ width: 140 }}
    />
  );
}

/** Points at which a rule fires, newest first; each opens its run. */
function Fired({
  chart,
  values,
  unit,
}: {
  readonly chart: ControlChart;
  readonly values: readonly TimedResult[];
  readonly unit: string;
}) {
  const say = useSay();
  const fired = chart.points.flatMap(({ value, fired: rules }, at) => {
    const run = values[at];
    return rules.length > 0 && run ? [{ run, value, rules }] : [];
  });
  if (fired.length === 0) return <Typography sx={{ mt: 1 }}>{say`No rule fires.`}</Typography>;
  return (
    <Box component="ul" aria-label={say`Points at which a rule fires`} sx={{ m: 0, mt: 1, pl: 2.5 }}>
      {fired
        .toReversed()
        .slice(0, 12)
        .map(({ run, value, rules }) => (
          <li key={run.id}>
            <Link to={`/runs/${run.id}`} style={{ color: colors.teal, fontWeight: 600 }}>
              {run.title}
            </Link>{" "}
            {say(withUnit(toDecimals(value, decimalsFor(chart.s)), unit))}:{" "}
            {say(listed(rules.map((rule) => controlRuleWords[rule])))}
          </li>
        ))}
      {fired.length > 12 && <li>{say`and ${fired.length - 12} earlier ones`}</li>}
    </Box>
  );
}
