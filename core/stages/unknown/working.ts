import type { CompiledStage } from "../compiled";
import type { StageWorking } from "../tools";
import { step, guarded, causes, type Board, type WorkingStep } from "../shared/board";
import { toDecimals, toSignificant, withUnit } from "../../quantity";
import { counting } from "../../record";
import { symbolTex, numberTex } from "../../relation";
import type { SampleEvaluation, CalibrationEvaluation, UnknownEvaluation } from "../shared/evaluation";
import { msg } from "../../text";

/** How the amount of an unknown was read off the line. */
function readOffSteps(
  board: Board,
  trial: SampleEvaluation,
  calibration: CalibrationEvaluation | undefined,
): WorkingStep[] {
  const input = board.compiled.definition.inputs.find((i) => i.is === "read-off");
  const q = input && trial.symbols.get(input.symbol);
  const fit = calibration?.line?.fit;
  if (!input || !q || !fit || !trial.off) return [];
  const { definition } = calibration;
  const unit = definition.axis.unit;
  const [a, b, c] = fit.coefficients;
  const [sa, sb, x] = [definition.line.intercept, definition.line.slope, input.symbol].map(symbolTex);
  const readings = counting(trial.readings);
  const mean = toDecimals(trial.off.y, 4);
  const digits = (v: number) => toSignificant(v, 5);
  const minus = (v: number) => (v < 0 ? `+ ${digits(-v)}` : `- ${digits(v)}`);
  const written = {
    line: [`\\dfrac{\\bar{A} - ${sa}}{${sb}}`, `\\dfrac{${mean} ${minus(a)}}{${digits(b)}}`],
    origin: [`\\dfrac{\\bar{A}}{${sb}}`, `\\dfrac{${mean}}{${digits(b)}}`],
    quadratic: [
      `\\dfrac{-${sb} + \\sqrt{${sb}^{2} + 4 q (\\bar{A} - ${sa})}}{2 q}`,
      `\\dfrac{-${digits(b)} + \\sqrt{${digits(b)}^{2} + 4 (${digits(c)}) (${mean} ${minus(a)})}}{2 (${digits(c)})}`,
    ],
  }[fit.model];
  return [
    meanStep(board, readings, mean),
    step({
      id: input.symbol,
      title: msg`${input.label}, read off the line`,
      formula: `${input.symbol} = (A - a) / b`,
      names: `${x} = ${written[0] ?? ""}`,
      numbers: `= ${written[1] ?? ""}`,
      value: `= ${numberTex(guarded(q, unit), unit)}`,
      valueText: withUnit(guarded(q, unit), unit),
      inputs: [
        {
          key: "line",
          label: msg`the line of ${definition.title.toLowerCase()}`,
          origin: {
            kind: "stage",
            stageKey: definition.key,
            title: definition.title,
            text: calibration.shown?.text ?? "",
          },
        },
        {
          key: input.symbol,
          label: msg`what its ± rests on`,
          origin: { kind: "readings", fields: [], causes: causes(q, unit) },
        },
      ],
    }),
  ];
}

function meanStep(board: Board, readings: number[], mean: string) {
  return step({
    id: "mean-absorbance",
    title: msg`Mean absorbance of ${board.name}`,
    formula: msg`mean of ${readings.map((r) => toDecimals(r, 3)).join(", ")}`,
    names: "\\bar{A} = \\dfrac{1}{m} \\sum_i A_i",
    numbers: `= \\dfrac{${readings.map((r) => toDecimals(r, 3)).join(" + ")}}{${readings.length}}`,
    value: `= ${mean}`,
    valueText: mean,
  });
}

export const unknownWorking: StageWorking<CompiledStage, UnknownEvaluation> = {
  fitted: (board, _compiled, stage, trialId) => {
    const line = board.evaluation.stages.find((s) => s.key === stage.lineOf);
    const sample = stage.trials.find(({ id }) => id === trialId);
    return sample ? readOffSteps(board, sample, line?.kind === "calibration" ? line : undefined) : [];
  },
};
