import Box from "@mui/material/Box";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import { useState } from "react";
import { withPoint, msg, type Phrase } from "~/core/text";
import type { CalibrationStage } from "~/core/method";
import { relationColumns } from "./columns";
import { Rows } from "./rows";
import { type Localized, useSay } from "../../../words/text";

interface PhotometerPartProps {
  stage: CalibrationStage;
  onChange: (stage: CalibrationStage) => void;
}

const models = [
  ["line", msg`straight line`],
  ["origin", msg`through the origin`],
  ["quadratic", msg`quadratic`],
] as const;
const weightings = [
  ["none", msg`unweighted`],
  ["1/s²", "1/s²"],
  ["1/x", "1/x"],
  ["1/x²", "1/x²"],
] as const;

const text = (label: string, value: string, change: (value: string) => void, help?: string) => (
  <TextField
    size="small"
    label={label}
    value={value}
    helperText={help}
    onChange={(event) => change(event.target.value)}
  />
);
const choice = (
  say: Localized,
  label: string,
  value: string,
  choices: readonly (readonly [string, Phrase])[],
  change: (value: string) => void,
) => (
  <TextField select size="small" label={label} value={value} onChange={(event) => change(event.target.value)}>
    {choices.map(([key, words]) => (
      <MenuItem key={key} value={key}>
        {say(words)}
      </MenuItem>
    ))}
  </TextField>
);

/** What belongs to a calibration alone: the amount in each flask, the usual series, the line that is drawn at first. */
export function PhotometerPart({ stage, onChange }: PhotometerPartProps) {
  const say = useSay();
  const { axis, line, series } = stage;
  const [values, setValues] = useState(series.values.join(", "));
  const [strongest, setStrongest] = useState(String(stage.strongest));
  return (
    <>
      <Rows
        name={say`Amount in a flask`}
        rows={axis.relations.map((r) => ({ ...r }))}
        columnsOf={() => relationColumns}
        fresh={{ relation: "", title: "", unit: axis.unit }}
        onChange={(rows) =>
          onChange({
            ...stage,
            axis: {
              ...axis,
              relations: rows.map(({ relation = "", title = "", unit = "" }) => ({ relation, title, unit })),
            },
          })
        }
      />
      <Box sx={{ display: "grid", gap: 1.5, gridTemplateColumns: { xs: "1fr", sm: "1fr 1fr 1fr" } }}>
        {text(say`Axis, its letter`, axis.symbol, (symbol) =>
          onChange({ ...stage, axis: { ...axis, symbol } }),
        )}
        {text(say`Axis, what it is`, axis.name, (name) => onChange({ ...stage, axis: { ...axis, name } }))}
        {text(say`Axis, unit`, axis.unit, (unit) => onChange({ ...stage, axis: { ...axis, unit } }))}
        {text(say`Series, its letter`, series.symbol, (symbol) =>
          onChange({ ...stage, series: { ...series, symbol } }),
        )}
        {text(
          say`Series, from dilute to strong`,
          values,
          (typed) => {
            setValues(typed);
            const list = typed.split(/[,;\s]+/).filter(Boolean);
            onChange({ ...stage, series: { ...series, values: list } });
          },
          say`separated by commas`,
        )}
        {text(
          say`The strongest reads about`,
          strongest,
          (typed) => {
            setStrongest(typed);
            onChange({ ...stage, strongest: Number(withPoint(typed)) });
          },
          say`absorbance`,
        )}
        {choice(say, say`Line at first`, line.model, models, (model) =>
          onChange({ ...stage, line: { ...line, model: model as CalibrationStage["line"]["model"] } }),
        )}
        {choice(say, say`Weights at first`, line.weighting, weightings, (weighting) =>
          onChange({
            ...stage,
            line: { ...line, weighting: weighting as CalibrationStage["line"]["weighting"] },
          }),
        )}
      </Box>
    </>
  );
}
