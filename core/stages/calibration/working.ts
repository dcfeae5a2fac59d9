import { type Quantity, printedUnit, withUnit, toSignificant } from "../../quantity";
import type { CalibrationStage } from "../../method";
import type { StageWorking } from "../tools";
import { fittedUnit } from "../table";
import { symbolTex, numberTex } from "../../relation";
import { counting } from "../../record";
import type { HouseRules } from "../../rules";
import { lineStep, withPlusMinus, step, causes, type Board, type WorkingStep } from "../shared/board";
import type { CalibrationEvaluation } from "../shared/evaluation";
import type { CompiledCalibration } from "./compile";
import { msg, type Phrase } from "../../text";

/** How the amount in one standard follows from what was taken for it: the strongest, as an example. */
function levelSteps(
  board: Board,
  { axis }: CompiledCalibration,
  stage: CalibrationEvaluation,
): WorkingStep[] {
  const level = stage.levels.findLast((l) => l.leftOut === null && l.amount);
  if (!level) return [];
  const own: Board = {
    ...board,
    symbols: level.symbols,
    fields: level.fields,
    name: level.name,
    compiled: { ...board.compiled, lines: axis },
  };
  return axis.flatMap((line) =>
    lineStep(own, { ...line, title: msg`${line.title}, as in ${level.name}` }).map((step) => ({
      ...step,
      id: `level-${step.id}`,
    })),
  );
}

/** How the line was calculated: the readings that it rests on, its intercept and its slope. */
function fitSteps(
  { line, definition, symbols, levels, deducted }: CalibrationEvaluation,
  rules: HouseRules,
): WorkingStep[] {
  if (!line) return [];
  const { fit } = line;
  const used = levels.filter((l) => l.leftOut === null && counting(l.readings).length > 0).length;
  const { intercept, slope, cut } = definition.line;
  const axis = symbolTex(definition.axis.symbol);
  const law = {
    line: `A = ${symbolTex(intercept)} + ${symbolTex(slope)} ${axis}`,
    origin: `A = ${symbolTex(slope)} ${axis}`,
    quadratic: `A = ${symbolTex(intercept)} + ${symbolTex(slope)} ${axis} + q ${axis}^{2}`,
  }[fit.model];
  const weights = fit.weighting === "none" ? "unweighted" : msg`weighted ${fit.weighting}`;
  const one = parameterSteps(symbols, definition, rules);
  return [
    ...(deducted === null
      ? []
      : [
          step({
            id: "blank",
            title: msg`The blank is subtracted from every reading, standards and unknowns alike`,
            formula: `A = A_read - ${deducted.toFixed(4)}`,
            names: "A = A_{\\mathrm{read}} - A_{\\mathrm{blank}}",
            value: `A_{\\mathrm{blank}} = ${deducted.toFixed(4)}`,
            valueText: deducted.toFixed(4),
          }),
        ]),
    step({
      id: "line",
      title: msg`Line by least squares through ${fit.points.length} readings of ${used} standards, ${weights}`,
      formula: { line: "A = a + b x", origin: "A = b x", quadratic: "A = a + b x + q x²" }[fit.model],
      names: law,
      value: `s_{A} = ${numberTex(toSignificant(fit.residualSd, 3), "")}`,
      valueText: msg`scatter about the line ${toSignificant(fit.residualSd, 3)}`,
    }),
    ...(fit.model === "origin" ? [] : one(intercept, msg`Intercept`)),
    ...one(slope, msg`Slope`),
    ...(cut === undefined ? [] : one(cut, msg`Intercept with the axis`)),
  ];
}

/** A step for each parameter of the line, with what its ± rests on. */
function parameterSteps(
  symbols: ReadonlyMap<string, Quantity>,
  definition: CalibrationStage,
  rules: HouseRules,
) {
  return (symbol: string, title: Phrase): WorkingStep[] => {
    const q = symbols.get(symbol);
    if (!q) return [];
    const unit = fittedUnit(definition, symbol) ?? "1";
    const text = withPlusMinus(q, unit, rules);
    return [
      step({
        id: symbol,
        title,
        value: `${symbolTex(symbol)} = ${numberTex(text, printedUnit(unit))}`,
        valueText: withUnit(text.replace("\\pm", "±"), unit),
        inputs: [
          {
            key: symbol,
            label: msg`what its ± rests on`,
            origin: { kind: "readings", fields: [], causes: causes(q, unit) },
          },
        ],
      }),
    ];
  };
}

/** How the line was calculated: the amount of one standard, then the fit. */
export const calibrationWorking: StageWorking<CompiledCalibration, CalibrationEvaluation> = {
  fitted: (board, compiled, stage) => [
    ...levelSteps(board, compiled, stage),
    ...fitSteps(stage, board.record.houseRules),
  ],
};
