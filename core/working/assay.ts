import { plusMinus } from "../judgement";
import { inUnit, printedUnit, type Quantity, toDecimals, toSignificant, unitOf, withUnit } from "../quantity";
import { numberTex, symbolTex } from "../relation";
import { orderWord } from "../kinetics";
import type { CalibrationEvaluation, CourseEvaluation, RateEvaluation, SampleEvaluation } from "../stages";
import { fittedUnit } from "../method";
import { counting } from "../record";
import type { HouseRules } from "../rules";
import { type Board, causes, guarded, type WorkingStep } from "./board";

/** A value with the house's ± to two figures. */
function withPlusMinus(q: Quantity, unit: string, { plusMinus: style }: HouseRules): string {
  const half = plusMinus(q, style) / unitOf(unit).factor;
  return half > 0 ? `${guarded(q, unit)} \\pm ${toSignificant(half, 2)}` : toSignificant(inUnit(q, unit), 6);
}

const step = (part: Partial<WorkingStep> & Pick<WorkingStep, "id" | "title">): WorkingStep => ({
  formula: "",
  names: "",
  numbers: "",
  value: "",
  valueText: "",
  inputs: [],
  ...part,
});

/** How the line came about: the readings that it rests on, its intercept and its slope. */
export function fitSteps(
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
  const weights = fit.weighting === "none" ? "all alike" : `weighted ${fit.weighting}`;
  const one = (symbol: string, title: string): WorkingStep[] => {
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
            label: "what its ± rests on",
            origin: { kind: "readings", fields: [], causes: causes(q, unit) },
          },
        ],
      }),
    ];
  };
  return [
    ...(deducted === null
      ? []
      : [
          step({
            id: "blank",
            title: "The blank is deducted from every reading, of standards and unknowns alike",
            formula: `A = A_read - ${deducted.toFixed(4)}`,
            names: "A = A_{\\mathrm{read}} - A_{\\mathrm{blank}}",
            value: `A_{\\mathrm{blank}} = ${deducted.toFixed(4)}`,
            valueText: deducted.toFixed(4),
          }),
        ]),
    step({
      id: "line",
      title: `Line by least squares through ${fit.points.length} readings of ${used} standards, ${weights}`,
      formula: { line: "A = a + b x", origin: "A = b x", quadratic: "A = a + b x + q x²" }[fit.model],
      names: law,
      value: `s_{A} = ${numberTex(toSignificant(fit.residualSd, 3), "")}`,
      valueText: `scatter about the line ${toSignificant(fit.residualSd, 3)}`,
    }),
    ...(fit.model === "origin" ? [] : one(intercept, "Intercept")),
    ...one(slope, "Slope"),
    ...(cut === undefined ? [] : one(cut, "Where the line meets the axis")),
  ];
}

/** How the amount of an unknown was read off the line. */
export function readOffSteps(
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
    step({
      id: "mean-absorbance",
      title: `Mean absorbance of ${board.name}`,
      formula: `mean of ${readings.map((r) => toDecimals(r, 3)).join(", ")}`,
      names: "\\bar{A} = \\dfrac{1}{m} \\sum_i A_i",
      numbers: `= \\dfrac{${readings.map((r) => toDecimals(r, 3)).join(" + ")}}{${readings.length}}`,
      value: `= ${mean}`,
      valueText: mean,
    }),
    step({
      id: input.symbol,
      title: `${input.label}, read off the line`,
      formula: `${input.symbol} = (A - a) / b`,
      names: `${x} = ${written[0] ?? ""}`,
      numbers: `= ${written[1] ?? ""}`,
      value: `= ${numberTex(guarded(q, unit), unit)}`,
      valueText: withUnit(guarded(q, unit), unit),
      inputs: [
        {
          key: "line",
          label: `the line of ${definition.title.toLowerCase()}`,
          origin: {
            kind: "stage",
            stageKey: definition.key,
            title: definition.title,
            text: calibration.shown?.text ?? "",
          },
        },
        {
          key: input.symbol,
          label: "what its ± rests on",
          origin: { kind: "readings", fields: [], causes: causes(q, unit) },
        },
      ],
    }),
  ];
}

/** How the rate constant of a course came about. */
export function rateSteps(
  trial: CourseEvaluation,
  { order, definition, endFitted }: RateEvaluation,
  rules: HouseRules,
): WorkingStep[] {
  const fit = trial.comparison?.fits[order];
  const q = trial.symbols.get(definition.rate.symbol);
  if (!fit || !q) return [];
  const k = symbolTex(definition.rate.symbol);
  const withEnd = endFitted && order !== 0;
  const above = withEnd ? "A - A_\\infty" : "A";
  const law = [
    `A = A_0 - ${k} t`,
    `${above} = A_0\\, e^{-${k} t}`,
    `\\dfrac{1}{${above}} = \\dfrac{1}{A_0} + ${k} t`,
  ][order];
  // Of another order than the first the constant itself is the result, in its own unit.
  const unit = order === 1 ? "1/s" : definition.result.unit;
  const value = withPlusMinus(q, unit, rules);
  return [
    step({
      id: definition.rate.symbol,
      title: `${orderWord(order)[0]?.toUpperCase()}${orderWord(order).slice(1)} order, by least squares on ${fit.residuals.length} absorbances`,
      formula: ["A = A0 - k t", "A = A0 exp(-k t)", "1/A = 1/A0 + k t"][order] ?? "",
      names: law ?? "",
      numbers: `A_0 = ${toSignificant(fit.initial, 4)}${withEnd ? `,\\; A_\\infty = ${toSignificant(fit.end, 3)}` : ""}`,
      value: `${k} = ${numberTex(value, unit)}`,
      valueText: withUnit(value.replace("\\pm", "±"), unit),
    }),
  ];
}
