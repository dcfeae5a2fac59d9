import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import { useState } from "react";
import { useSay } from "../../../words/text";
import { withPoint } from "~/core/text";
import {
  type AcceptValue,
  acceptedIn,
  against,
  type Against,
  withAcceptance,
  withTolerance,
} from "./acceptance";
import type { StagePart } from "./stage-parts";

/** What a result is held against: a known or target value with what is allowed, or a limit; and what follows when it is off. */
export function AcceptPart({ stage, onChange }: StagePart) {
  const say = useSay();
  const { accept } = stage;
  const kind = against(accept);
  const value = accept?.against === "value" ? accept : null;
  return (
    <>
      <TextField
        select
        size="small"
        label={say`Result is held against`}
        value={kind}
        onChange={(event) => onChange(withAcceptance(stage, event.target.value as Against))}
      >
        <MenuItem value="nothing">{say`nothing`}</MenuItem>
        <MenuItem value="value">{say`a known or target value`}</MenuItem>
        <MenuItem value="at most">{say`a limit: at most`}</MenuItem>
        <MenuItem value="at least">{say`a limit: at least`}</MenuItem>
      </TextField>
      {accept && (
        <TextField
          select
          size="small"
          label={say`That is stated as`}
          value={accept.symbol}
          onChange={(event) => onChange({ accept: { ...accept, symbol: event.target.value } })}
        >
          {acceptedIn(stage).map(({ symbol, label }) => (
            <MenuItem key={symbol} value={symbol}>
              {say`${label ?? ""} (${symbol ?? ""})`}
            </MenuItem>
          ))}
        </TextField>
      )}
      {value && <AllowedDifference value={value} unit={stage.results[0]?.unit ?? ""} onChange={onChange} />}
    </>
  );
}

interface AllowedDifferenceProps {
  readonly value: AcceptValue;
  /** Unit of the result. */
  readonly unit: string;
  readonly onChange: StagePart["onChange"];
}

/** How far off is allowed, and what follows when it is more. */
function AllowedDifference({ value, unit, onChange }: AllowedDifferenceProps) {
  const say = useSay();
  const { tolerancePercent, toleranceAbsolute, whenOff } = value;
  const [tolerance, setTolerance] = useState(String(tolerancePercent ?? toleranceAbsolute ?? ""));
  const [inUnit, setInUnit] = useState(toleranceAbsolute !== undefined);
  const wrong = tolerance.trim() !== "" && !(Number(withPoint(tolerance)) > 0);
  const tolerate = (text: string, absolute: boolean) => {
    setTolerance(text);
    setInUnit(absolute);
    onChange({ accept: withTolerance(value, text, absolute) });
  };
  return (
    <>
      <TextField
        size="small"
        label={say`Allowed difference`}
        value={tolerance}
        error={wrong}
        helperText={wrong ? say`Type a number above zero, or nothing` : say`empty: the error alone is shown`}
        onChange={(event) => tolerate(event.target.value, inUnit)}
      />
      <TextField
        select
        size="small"
        label={say`in`}
        value={inUnit ? "unit" : "percent"}
        onChange={(event) => tolerate(tolerance, event.target.value === "unit")}
      >
        <MenuItem value="percent">{say`percent`}</MenuItem>
        <MenuItem value="unit">{unit || say`the unit of the result`}</MenuItem>
      </TextField>
      <TextField
        select
        size="small"
        label={say`When it is off`}
        value={whenOff}
        onChange={(event) =>
          onChange({ accept: { ...value, whenOff: event.target.value === "dilution" ? "dilution" : "tell" } })
        }
      >
        <MenuItem value="tell">{say`tell it`}</MenuItem>
        <MenuItem value="dilution">{say`titrate again, then make a new dilution`}</MenuItem>
      </TextField>
    </>
  );
}
