import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import LinearProgress from "@mui/material/LinearProgress";
import Typography from "@mui/material/Typography";
import { useEffect, useRef, useState } from "react";
import { decimalsFor, studentT, toDecimals } from "~/core/quantity";
import {
  type CalibrationEvaluation,
  counting,
  capitalized,
  flaskWords,
  type UnknownEvaluation,
} from "~/core/run";
import type { BootstrapMessage, BootstrapRequest } from "~/workers/bootstrap";
import { colors, fonts } from "../../theme/theme";
import { Sheet } from "../../ui/sheet";

type State =
  | { readonly state: "idle" }
  | { readonly state: "running"; readonly part: number }
  | { readonly state: "done"; readonly found: Extract<BootstrapMessage, { kind: "done" }> }
  | { readonly state: "failed"; readonly message: string };

const draws = 10_000;

/** The ± of an amount read off, checked a second way in a worker: the residuals drawn again, ten thousand lines. */
export function BootstrapPanel({
  stage,
  calibration,
}: {
  stage: UnknownEvaluation;
  calibration: CalibrationEvaluation;
}) {
  const [now, setNow] = useState<State>({ state: "idle" });
  const worker = useRef<Worker | null>(null);
  const sample = stage.trials.find((t) => t.off && !t.record.struck);
  const { line, choice } = calibration;
  useEffect(() => () => worker.current?.terminate(), []);
  if (!line || !sample?.off) return null;
  const start = () => {
    worker.current?.terminate();
    const fresh = new Worker(new URL("../../../workers/bootstrap.ts", import.meta.url), { type: "module" });
    worker.current = fresh;
    setNow({ state: "running", part: 0 });
    fresh.addEventListener("message", ({ data }: MessageEvent<BootstrapMessage>) => {
      if (data.kind === "progress") return setNow({ state: "running", part: data.part });
      fresh.terminate();
      setNow(
        data.kind === "done" ? { state: "done", found: data } : { state: "failed", message: data.message },
      );
    });
    fresh.addEventListener("error", () =>
      setNow({ state: "failed", message: "The drawing did not start: reload the page and try again" }),
    );
    const request: BootstrapRequest = {
      points: line.points.map(({ x, y }) => ({ x, y })),
      model: choice.model,
      weighting: choice.weighting,
      readings: counting(sample.readings),
      draws,
      seed: 20_261_125,
    };
    fresh.postMessage(request);
  };
  const cancel = () => {
    worker.current?.terminate();
    setNow({ state: "idle" });
  };
  const unit = calibration.definition.axis.unit;
  const { x, u } = sample.off;
  const half = studentT(0.95, Math.max(1, line.fit.degreesOfFreedom)) * u;
  const decimals = decimalsFor(u, 2);
  const show = (v: number) => toDecimals(v, decimals);
  return (
    <Sheet component="section" aria-labelledby="bootstrap-title" sx={{ order: { xs: 6, md: 0 } }}>
      <Typography id="bootstrap-title" variant="h2">
        The ± a second way
      </Typography>
      <Typography color="textSecondary" sx={{ mb: 1 }}>
        {capitalized(flaskWords(sample.name))}, read off ten thousand lines through redrawn residuals.
      </Typography>
      <Box aria-live="polite">
        {now.state === "running" && (
          <LinearProgress
            variant="determinate"
            value={100 * now.part}
            aria-label="Lines drawn"
            sx={{ height: 10, borderRadius: 5, mb: 1 }}
          />
        )}
        {now.state === "failed" && <Typography sx={{ color: colors.brick }}>{now.message}.</Typography>}
        {now.state === "done" && (
          <Typography data-testid="bootstrap" sx={{ mb: 1 }}>
            95 % by the formula{" "}
            <span style={{ fontFamily: fonts.reading }}>
              {show(x - half)} to {show(x + half)}
            </span>
            , by the redrawn lines{" "}
            <span style={{ fontFamily: fonts.reading }}>
              {show(now.found.found.interval[0])} to {show(now.found.found.interval[1])}{" "}
              {unit === "1" ? "" : unit}
            </span>{" "}
            (they know no Student’s t, so they are narrower where readings are few).
          </Typography>
        )}
      </Box>
      {now.state === "running" ? (
        <Button variant="outlined" onClick={cancel}>
          Cancel
        </Button>
      ) : (
        <Button variant="outlined" onClick={start}>
          {now.state === "done" ? "Draw again" : "Draw ten thousand lines"}
        </Button>
      )}
    </Sheet>
  );
}
