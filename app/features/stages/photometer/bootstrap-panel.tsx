import Typography from "@mui/material/Typography";
import { halfWidthReadOff } from "~/core/calibration";
import { decimalsFor, toDecimals } from "~/core/quantity";
import type { CalibrationEvaluation, UnknownEvaluation } from "~/core/stages";
import { capitalized, unitText } from "~/core/text";
import { counting, trialWords } from "~/core/record";
import type { BootstrapFound, BootstrapRequest } from "~/workers/bootstrap";
import { fonts } from "../../../theme/theme";
import { SecondWay } from "../../../ui/second-way";
import { useWorker } from "../../../ui/use-worker";
import { useSay } from "../../../words/text";

const draws = 10_000;

interface BootstrapPanelProps {
  stage: UnknownEvaluation;
  calibration: CalibrationEvaluation;
}

/** The ± of an amount read off, checked a second way: the residuals drawn again, ten thousand lines. */
export function BootstrapPanel({ stage, calibration }: BootstrapPanelProps) {
  const say = useSay();
  const { now, start, cancel } = useWorker<BootstrapRequest, BootstrapFound>();
  const sample = stage.trials.find((t) => t.off && !t.record.struck);
  const { line, choice } = calibration;
  if (!line || !sample?.off) return null;
  const begin = () => {
    const request: BootstrapRequest = {
      points: line.points.map(({ x, y }) => ({ x, y })),
      model: choice.model,
      weighting: choice.weighting,
      readings: counting(sample.readings).map((y) => y - (calibration.deducted ?? 0)),
      draws,
      seed: 20_261_125,
    };
    start(
      () => new Worker(new URL("../../../../workers/bootstrap.ts", import.meta.url), { type: "module" }),
      request,
    );
  };
  const unit = calibration.definition.axis.unit;
  const { x, u } = sample.off;
  const half = halfWidthReadOff(sample.off, line.fit);
  const show = (v: number) => toDecimals(v, decimalsFor(u, 2));
  return (
    <SecondWay
      what={say`${capitalized(trialWords(sample.record, "flask"))}, read off ten thousand lines through resampled residuals.`}
      state={now}
      counts={say`Lines drawn`}
      begin={say`Draw ten thousand lines`}
      again={say`Draw again`}
      order={6}
      onStart={begin}
      onCancel={cancel}
    >
      {now.state === "done" && (
        <Typography data-testid="bootstrap" sx={{ my: 1 }}>
          {say`95 % by the formula`}{" "}
          <span style={{ fontFamily: fonts.reading }}>{say`${show(x - half)} to ${show(x + half)}`}</span>
          {say`, by the redrawn lines`}{" "}
          <span style={{ fontFamily: fonts.reading }}>
            {say`${show(now.found.found.interval[0])} to ${show(now.found.found.interval[1])} ${unit === "1" ? "" : unitText(unit)}`}
          </span>{" "}
          {say`(they know no Student’s t, so they are narrower where readings are few).`}
        </Typography>
      )}
    </SecondWay>
  );
}
