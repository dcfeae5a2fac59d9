import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { v7 as newId } from "uuid";
import { bufferPH, buffers, calibrateElectrode, soundOffLine, soundSlope } from "~/core/measure";
import { presentObservation } from "~/core/record";
import type { CurveStageEvaluation } from "~/core/stages";
import { msg, type Phrase, withPoint } from "~/core/text";
import { useRunInHand } from "../../../entry/run-context";
import { isTaken } from "../../../live/post";
import { colors, fonts } from "../../../theme/theme";
import { FormDialog } from "../../../ui/form-dialog";
import { useSay } from "../../../words/text";
import { calibrationIn, type Meter } from "./use-meter";

interface BuffersDialogProps {
  readonly stage: CurveStageEvaluation;
  readonly meter: Meter;
  readonly onClose: () => void;
}

const isNumber = (text: string) => /^[+-]?\d+([.,]\d+)?$/.test(text.trim());

/** What was read in the buffers, and what follows from it; `use` writes it into the run. */
function useCalibration({ stage, meter, onClose }: BuffersDialogProps) {
  const say = useSay();
  const { record, send } = useRunInHand();
  const celsius = Number(record.houseRules.temperature.labC);
  const [texts, setTexts] = useState<Readonly<Record<string, string>>>({});
  const [problem, setProblem] = useState<Phrase | null>(null);
  const read = buffers.flatMap((buffer) => {
    const text = texts[buffer.name] ?? "";
    return isNumber(text) ? [{ pH: bufferPH(buffer, celsius), mV: Number(withPoint(text)) }] : [];
  });
  const found = read.length >= 2 ? calibrateElectrode(read, celsius) : null;
  const close = () => {
    meter.act?.buffer(null);
    meter.unsettle();
    onClose();
  };
  const use = async () => {
    const wrong = Object.values(texts).find((text) => text.trim() !== "" && !isNumber(text));
    if (wrong !== undefined) return setProblem(msg`"${wrong}" is no number of millivolts`);
    if (!found) return setProblem(msg`Read two buffers at least`);
    if (!found.ok) return setProblem(found.problem.message);
    const { symbol } = calibrationIn(record, stage);
    if (symbol === null) return;
    const observations = record.stages.find((s) => s.key === stage.key)?.observations ?? [];
    const values = [
      ["meter.slope", found.value.slopePercent.toFixed(1)],
      ["meter.offset", found.value.offsetMv.toFixed(1)],
    ] as const;
    for (const [kind, text] of values) {
      const present = presentObservation(observations, symbol, kind);
      if (present?.text === text) continue;
      const answer = await send({
        ...{ intent: "observe", id: newId(), stageKey: stage.key, trial: null, symbol, kind, text },
        ...{ supersedes: present?.id ?? null, reason: present ? say`calibrated again` : null },
        source: meter.act ? "instrument" : "typed",
      });
      if (!isTaken(answer)) return setProblem(answer.message);
    }
    close();
  };
  const type = (name: string, text: string) => {
    setProblem(null);
    setTexts((now) => ({ ...now, [name]: text }));
  };
  return { celsius, texts, type, found, problem, use, close };
}

/** Two buffers or three: what the electrode shows in each, and from that its slope and its potential at pH 7. */
export function BuffersDialog(props: BuffersDialogProps) {
  const say = useSay();
  const { celsius, texts, type, found, problem, use, close } = useCalibration(props);
  // There is one electrode: dipped into another buffer it is out of the one before.
  const [dipped, setDipped] = useState<string | null>(null);
  return (
    <FormDialog
      title={say`Calibrate the electrode`}
      submit={say`Use this calibration`}
      onSubmit={() => void use()}
      onClose={close}
    >
      <Typography color="textSecondary">
        {say`Rinse, dab, dip; wait until it is steady. Buffers as they are at ${celsius} °C.`}
      </Typography>
      <Box sx={{ display: "grid", gap: 1 }}>
        {buffers.map((buffer) => (
          <BufferRow
            key={buffer.name}
            name={buffer.name}
            pH={bufferPH(buffer, celsius)}
            text={texts[buffer.name] ?? ""}
            meter={props.meter}
            first={buffer === buffers[0]}
            dipped={dipped === buffer.name}
            onDip={(into) => setDipped(into ? buffer.name : null)}
            onText={(text) => type(buffer.name, text)}
          />
        ))}
      </Box>
      {found?.ok && <Outcome {...found.value} />}
      {found && !found.ok && (
        <Typography sx={{ color: colors.brick }}>{say(found.problem.message)}.</Typography>
      )}
      {problem && (
        <Typography role="alert" sx={{ color: colors.brick, fontWeight: 600 }}>
          {say(problem)}.
        </Typography>
      )}
    </FormDialog>
  );
}

function Outcome({
  slopePercent,
  offsetMv,
  offLine,
}: {
  readonly slopePercent: number;
  readonly offsetMv: number;
  readonly offLine: number;
}) {
  const say = useSay();
  const [least, most] = soundSlope;
  const sound = slopePercent >= least && slopePercent <= most;
  return (
    <Box aria-live="polite">
      <Typography
        sx={{ fontWeight: 650, color: sound ? colors.tealDeep : colors.brick }}
        data-testid="calibration"
      >
        {say`Slope ${slopePercent.toFixed(1)} % of theory, ${offsetMv.toFixed(1)} mV at pH 7`}
      </Typography>
      {!sound && (
        <Typography sx={{ color: colors.brick }}>
          {say`Outside ${least} to ${most} %: fresh buffers, or another electrode.`}
        </Typography>
      )}
      {offLine > soundOffLine && (
        <Typography sx={{ color: colors.amberDeep }}>
          {say`A buffer lies ${offLine.toFixed(2)} pH off the line: is it fresh?`}
        </Typography>
      )}
    </Box>
  );
}

interface BufferRowProps {
  readonly name: string;
  readonly pH: number;
  readonly text: string;
  readonly meter: Meter;
  readonly first: boolean;
  /** Whether the electrode is in it. */
  readonly dipped: boolean;
  readonly onDip: (into: boolean) => void;
  readonly onText: (text: string) => void;
}

/** One buffer: its potential typed, or taken from the simulated electrode that is dipped into it. */
function BufferRow({ name, pH, text, meter, first, dipped, onDip, onText }: BufferRowProps) {
  const say = useSay();
  const { act, reading } = meter;
  return (
    <Box sx={{ display: "flex", gap: 1, alignItems: "center", flexWrap: "wrap" }}>
      <TextField
        size="small"
        label={say`Buffer ${name} (pH ${pH.toFixed(2)}), mV`}
        value={text}
        autoFocus={first}
        onChange={(event) => onText(event.target.value)}
        slotProps={{ htmlInput: { inputMode: "decimal", style: { fontFamily: fonts.reading } } }}
        sx={{ flex: "1 1 210px" }}
      />
      {act && (
        <Button
          size="small"
          onClick={() => {
            if (dipped) onText(act.mV().toFixed(1));
            else {
              act.buffer(pH);
              // What the buffer before showed is no reading of this one.
              meter.unsettle();
            }
            onDip(!dipped);
          }}
          disabled={dipped && !reading?.stable}
        >
          {dipped ? (reading?.stable ? say`Take it` : say`on its way …`) : say`Dip into it`}
        </Button>
      )}
    </Box>
  );
}
