import type { SampleEvaluation, TrialEvaluation, UnknownEvaluation } from "~/core/stages";
import type { StageSheet } from "./stage-sheet";
import { type EngineColumns, type Engines, writeReplicates } from "./trials";

/** The amount at which the function of an absorbance has it. */
const solved = (
  y: string,
  {
    intercept,
    slope,
    curvature,
  }: { readonly intercept: string; readonly slope: string; readonly curvature: string | null },
) =>
  curvature === null
    ? `(${y}-${intercept})/${slope}`
    : `(-${slope}+SQRT(${slope}^2-4*${curvature}*(${intercept}-${y})))/(2*${curvature})`;

/** How an unknown is read off the line of its calibration: the mean of its readings that count, less the blank, through the line. */
function readOff(into: StageSheet, stage: UnknownEvaluation): EngineColumns | null {
  const line = into.lines.get(stage.lineOf);
  if (!line) return null;
  const sheets = into.placed.get(`line of ${stage.lineOf}`)?.reference;
  const counted = (trial: TrialEvaluation) =>
    (trial as SampleEvaluation).readings.filter(({ struck }) => !struck).map(({ absorbance }) => absorbance);
  const most = Math.max(0, ...stage.trials.map((trial) => counted(trial).length));
  const there = (address: string) => `${sheets ?? ""}${address}`;
  return {
    heads: Array.from({ length: most }, (_, i) => `Absorbance ${i + 1}`),
    of: (trial) => ({
      numbers: counted(trial),
      formula: (addresses) => {
        const mean = `AVERAGE(${addresses.join(",")})`;
        const y = line.deducted === null ? mean : `(${mean}-${there(line.deducted)})`;
        const { intercept, slope, curvature } = line;
        return solved(y, {
          intercept: there(intercept),
          slope: there(slope),
          curvature: curvature && there(curvature),
        });
      },
    }),
  };
}

/** Unknown flasks, read off the line. */
export function writeUnknown(into: StageSheet, stage: UnknownEvaluation): void {
  const engine = readOff(into, stage);
  const symbols = stage.definition.inputs.flatMap((input) => (input.is === "read-off" ? [input.symbol] : []));
  const engines: Engines = new Map(engine ? symbols.map((symbol) => [symbol, engine]) : []);
  writeReplicates(into, stage, engines);
}
