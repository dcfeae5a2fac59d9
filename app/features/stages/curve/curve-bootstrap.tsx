import Typography from "@mui/material/Typography";
import { bestFit, type CurveReading } from "~/core/curves";
import type { CurveEvaluation } from "~/core/stages";
import { joined, msg, unitText } from "~/core/text";
import type { CurveFitFound, CurveFitRequest } from "~/workers/curve-fit";
import { fonts } from "../../../theme/theme";
import { SecondWay } from "../../../ui/second-way";
import { useWorker } from "../../../ui/use-worker";
import { useSay } from "../../../words/text";

const draws = 300;

interface CurveBootstrapProps {
  readonly curve: CurveEvaluation;
  readonly reading: CurveReading;
}

/** The ± of a fitted curve, checked a second way: its residuals drawn again onto it, three hundred fits, in the worker. */
export function CurveBootstrap({ curve, reading }: CurveBootstrapProps) {
  const say = useSay();
  const { now, start, cancel } = useWorker<CurveFitRequest, CurveFitFound>();
  const best = bestFit(reading);
  const taken = curve.ends.findLast((end) => end.ways.some(({ way }) => way === "fit"));
  const end = taken?.ways.find(({ way }) => way === "fit");
  if (!best || !end) return null;
  const begin = () =>
    start(
      () => new Worker(new URL("../../../../workers/curve-fit.ts", import.meta.url), { type: "module" }),
      { points: curve.points, reading, best, setting: curve.setting, draws, seed: 20_261_130 },
    );
  const range = ([low, high]: readonly [number, number], digits: number) =>
    msg`${low.toFixed(digits)} to ${high.toFixed(digits)}`;
  const found = now.state === "done" ? now.found.found : null;
  return (
    <SecondWay
      what={say`The whole curve fitted three hundred times, with its residuals drawn again onto it.`}
      state={now}
      counts={say`Curves fitted`}
      begin={say`Fit three hundred curves`}
      again={say`Fit again`}
      order={6}
      onStart={begin}
      onCancel={cancel}
    >
      {found && (
        <Typography data-testid="curve-bootstrap" sx={{ my: 1 }}>
          {say`Last equivalence point, 95 % by the fit`}{" "}
          <span style={{ fontFamily: fonts.reading }}>
            {say(range([end.volume - end.half, end.volume + end.half], 3))}
          </span>
          {say`, by the redrawn curves`}{" "}
          <span style={{ fontFamily: fonts.reading }}>{say(range(found.end, 3))}</span> {say(unitText("mL"))}.{" "}
          {say`Constants ${joined(
            found.pKas.map(
              (interval, i) =>
                msg`${range([best.fit.pKas[i]!.value - 1.96 * best.fit.pKas[i]!.u, best.fit.pKas[i]!.value + 1.96 * best.fit.pKas[i]!.u], 3)} and ${range(interval, 3)}`,
            ),
            "; ",
          )}.`}
        </Typography>
      )}
    </SecondWay>
  );
}
