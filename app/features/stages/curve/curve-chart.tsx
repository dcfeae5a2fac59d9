import Box from "@mui/material/Box";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import { useMemo, useState } from "react";
import { acids } from "~/catalog/constants/acids";
import type { CurveTheory } from "~/core/curves";
import type { CurveEvaluation, CurveStageEvaluation } from "~/core/stages";
import { msg, type Phrase } from "~/core/text";
import { Chart } from "../../../ui/chart/chart";
import { Sheet } from "../../../ui/sheet";
import { useSay } from "../../../words/text";
import { curveOption, type CurveShown } from "./curve-option";
import { curveInputOf } from "./use-curve-entry";

interface CurveChartProps {
  readonly stage: CurveStageEvaluation;
  readonly curve: CurveEvaluation;
  readonly title: string;
  readonly band: CurveShown["band"];
}

/** What can be laid over a curve: the example of the method, and any acid of the table over a curve of pH. */
function theories({
  definition,
}: CurveStageEvaluation): ReadonlyMap<string, NonNullable<CurveShown["theory"]>> {
  const { theory } = definition.curve;
  const own: [string, { name: Phrase; curve: CurveTheory }] = [
    "method",
    { name: msg`theory of the method’s example`, curve: theory },
  ];
  if (theory.is !== "acid") return new Map([own]);
  const others = acids
    .filter(({ charge }) => charge === 0)
    .map((acid): [string, { name: Phrase; curve: CurveTheory }] => [
      acid.key,
      { name: acid.name, curve: { is: "acid", pKas: acid.steps.map(({ pKa }) => pKa) } },
    ]);
  return new Map([own, ...others]);
}

/** The curve, drawn as one goes, with its derivative or what is left over beneath. */
export function CurveChart({ stage, curve, title, band }: CurveChartProps) {
  const say = useSay();
  const [readings, setReadings] = useState(false);
  const [over, setOver] = useState("");
  const [beneath, setBeneath] = useState<CurveShown["beneath"]>("derivative");
  const known = useMemo(() => theories(stage), [stage]);
  const option = useMemo(
    () => curveOption(stage, curve, { readings, beneath, band, theory: known.get(over) ?? null }, say),
    [stage, curve, readings, beneath, band, known, over, say],
  );
  const count = curve.points.length;
  const ended = curve.ends.some(({ taken }) => taken);
  return (
    <Sheet component="section" aria-label={say`Curve`} sx={{ display: "grid", gap: 1, minWidth: 0 }}>
      <Chart
        label={say`Curve of ${curveInputOf(stage).label}, ${count} points`}
        option={option}
        height={400}
        fileName={`${title} ${say(curve.name)}`}
      />
      <Box sx={{ display: "flex", gap: 1.25, flexWrap: "wrap" }}>
        <Select
          label={say`Axis`}
          value={readings ? "readings" : "volumes"}
          options={[
            ["volumes", say`volume added`],
            ["readings", say`reading of the burette`],
          ]}
          onChoose={(value) => setReadings(value === "readings")}
        />
        <Select
          label={say`Beneath`}
          value={beneath}
          options={[
            ["derivative", say`change per mL`],
            ["smoothed", say`change per mL, smoothed`],
            ["residuals", say`residuals`],
          ]}
          onChoose={(value) => setBeneath(value as CurveShown["beneath"])}
        />
        {ended && (
          <Select
            label={say`Laid over it`}
            value={over}
            options={[
              ["", say`nothing but the fit`],
              ...[...known].map(([key, { name }]) => [key, say(name)] as const),
            ]}
            onChoose={setOver}
          />
        )}
      </Box>
    </Sheet>
  );
}

interface SelectProps {
  readonly label: string;
  readonly value: string;
  readonly options: readonly (readonly [value: string, words: string])[];
  readonly onChoose: (value: string) => void;
}

const Select = ({ label, value, options, onChoose }: SelectProps) => (
  <TextField
    select
    size="small"
    label={label}
    value={value}
    onChange={(event) => onChoose(event.target.value)}
    slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
    fullWidth={false}
    sx={{ flex: "1 1 150px" }}
  >
    {options.map(([key, words]) => (
      <MenuItem key={key} value={key}>
        {words}
      </MenuItem>
    ))}
  </TextField>
);
