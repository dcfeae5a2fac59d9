import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import FormControlLabel from "@mui/material/FormControlLabel";
import Switch from "@mui/material/Switch";
import { lazy, Suspense, useState } from "react";
import { steadyFor, steadyWithin } from "~/devices";
import { meterOf } from "~/core/inputs";
import type { CurveStageEvaluation } from "~/core/stages";
import { unitText } from "~/core/text";
import { colors, fonts } from "../../../theme/theme";
import { useSay } from "../../../words/text";
import type { CurveEntry } from "./use-curve-entry";
import type { Meter } from "./use-meter";

const BuffersDialog = lazy(() => import("./buffers-dialog").then((m) => ({ default: m.BuffersDialog })));

interface MeterPanelProps {
  readonly meter: Meter;
  readonly stage: CurveStageEvaluation;
  readonly entry: CurveEntry;
  /** True while points are being taken. */
  readonly taking: boolean;
  /** Points that were taken. */
  readonly count: number;
}

/** A meter that reads by itself: its display, whether it is steady and by which rule, and what can be done to beaker and bulb. */
export function MeterPanel({ meter, stage, entry, taking, count }: MeterPanelProps) {
  const say = useSay();
  const { state, message, connect } = meter;
  const [calibrating, setCalibrating] = useState(false);
  const hasBuffers = stage.definition.inputs.some(({ is }) => is === "meter");
  return (
    <Box sx={{ display: "grid", gap: 1 }}>
      {state !== "on" ? (
        <Box sx={{ color: colors.inkSoft }}>
          {state === "failed" && <Box sx={{ color: colors.brick }}>{say(message)}</Box>}
          <Button size="small" onClick={connect} disabled={state === "connecting"} sx={{ ml: -1 }}>
            {say`Connect the simulated meter`}
          </Button>
          {hasBuffers && (
            <Button size="small" onClick={() => setCalibrating(true)}>
              {say`Calibrate with buffers`}
            </Button>
          )}
        </Box>
      ) : (
        <Display
          {...{ meter, entry, taking, count }}
          onCalibrate={hasBuffers ? () => setCalibrating(true) : null}
        />
      )}
      {calibrating && (
        <Suspense fallback={null}>
          <BuffersDialog stage={stage} meter={meter} onClose={() => setCalibrating(false)} />
        </Suspense>
      )}
    </Box>
  );
}

interface DisplayProps extends Pick<MeterPanelProps, "meter" | "entry" | "taking"> {
  readonly onCalibrate: (() => void) | null;
  /** Points that were taken. */
  readonly count: number;
}

function Display({ meter, entry, taking, count, onCalibrate }: DisplayProps) {
  const say = useSay();
  const { reading } = meter;
  const { label, unit } = meterOf(entry.input);
  const steady = reading?.stable ?? false;
  const rule = say`steady: within ${steadyWithin[entry.input.reads]}${unit && say` ${unitText(unit)}`} for ${steadyFor} s`;
  return (
    <Box sx={{ bgcolor: colors.tealWash, borderRadius: "10px", p: 1.25, display: "grid", gap: 0.75 }}>
      <Box sx={{ display: "flex", alignItems: "center", gap: 1.5, flexWrap: "wrap" }}>
        <Box>
          <Box sx={{ fontSize: "0.85rem", color: colors.inkSoft }}>{say`Simulated meter, ${label}`}</Box>
          <Box
            sx={{ fontFamily: fonts.reading, fontSize: "1.6rem", minWidth: "4.5em" }}
            data-testid="meter-display"
          >
            {reading ? `${reading.text}${unit === "" ? "" : ` ${say(unitText(unit))}`}` : "–.––"}
          </Box>
        </Box>
        <Box sx={{ flex: "1 1 130px" }}>
          <Box data-testid="meter-state" sx={{ color: steady ? colors.tealDeep : colors.amberDeep }}>
            {steady ? say`● steady` : say`○ on its way`}
          </Box>
          <Box sx={{ fontSize: "0.8rem", color: colors.inkSoft }}>{rule}</Box>
        </Box>
        {taking && entry.advised !== null && entry.stateOf(entry.burette).is === "offered" && count > 0 && (
          <Button variant="outlined" onClick={entry.pour}>
            {say`Open the tap to ${entry.advised} ${unitText("mL")}`}
          </Button>
        )}
        {taking && (
          <Button
            variant={steady ? "contained" : "outlined"}
            disabled={!reading}
            onClick={() => reading && void entry.savePoint({ text: reading.text, unsteady: !reading.stable })}
          >
            {steady ? say`Take the reading` : say`Take it all the same`}
          </Button>
        )}
      </Box>
      <BeakerSwitches meter={meter} onCalibrate={onCalibrate} />
    </Box>
  );
}

/** What can be done to beaker, bulb and meter. */
function BeakerSwitches({ meter, onCalibrate }: Pick<DisplayProps, "meter" | "onCalibrate">) {
  const say = useSay();
  const { act, disconnect } = meter;
  const [stirred, setStirred] = useState(true);
  const [covered, setCovered] = useState(true);
  return (
    <Box sx={{ display: "flex", flexWrap: "wrap", alignItems: "center", columnGap: 1 }}>
      <Toggle
        label={say`stirred`}
        on={stirred}
        onSwitch={(on) => {
          setStirred(on);
          act?.stir(on);
        }}
      />
      <Toggle
        label={say`bulb covered`}
        on={covered}
        onSwitch={(on) => {
          setCovered(on);
          act?.cover(on);
        }}
      />
      {onCalibrate && (
        <Button size="small" onClick={onCalibrate}>
          {say`Calibrate with buffers`}
        </Button>
      )}
      <Button size="small" onClick={disconnect}>
        {say`Disconnect`}
      </Button>
    </Box>
  );
}

interface ToggleProps {
  readonly label: string;
  readonly on: boolean;
  readonly onSwitch: (on: boolean) => void;
}

const Toggle = ({ label, on, onSwitch }: ToggleProps) => (
  <FormControlLabel
    label={label}
    control={<Switch size="small" checked={on} onChange={(_event, next) => onSwitch(next)} />}
    sx={{ mr: 0.5 }}
  />
);
