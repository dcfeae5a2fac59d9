import { type ElementShare, elementShares, prettyEquation } from "../chemistry";
import { plusMinus } from "../judgement";
import { type Quantity, standardUncertainty, toDecimals, unitOf, decimalsFor, inUnit } from "../quantity";
import { type Expression, namesTex, numberTex, symbolTex, typeset } from "../relation";
import { type CompiledLine, compiledMethod, type CompiledStage } from "./compile";
import type { FieldState, RunEvaluation, TitrationEvaluation, TrialEvaluation } from "./evaluation";
import { type Input, inputOf, type Method } from "./method";
import type { RunRecord } from "./record";
import { massDecimals } from "./rules";
import { plusMinusWords, showQuantity } from "./show";
import { listed, trialWords } from "./words";

/** Where a number in a working comes from: what opens when one asks. */
export type Origin =
  | {
      readonly kind: "readings";
      readonly fields: readonly FieldState[];
      readonly causes: readonly CauseLine[];
    }
  | { readonly kind: "stage"; readonly stageKey: string; readonly title: string; readonly text: string }
  | { readonly kind: "elements"; readonly formula: string; readonly elements: readonly ElementShare[] }
  | { readonly kind: "equation"; readonly text: string };

/** One cause of a quantity's uncertainty, with what it contributes in the quantity's unit. */
export interface CauseLine {
  readonly label: string;
  readonly contribution: string;
  readonly unit: string;
}

export interface WorkingInput {
  readonly key: string;
  /** What the link says: "the two weighings", "where 0.10214 comes from". */
  readonly label: string;
  readonly origin: Origin;
}

/** One line on the board: a heading, names, numbers, value. TeX throughout, and the value in plain text too. */
export interface WorkingStep {
  readonly id: string;
  readonly title: string;
  readonly names: string;
  readonly numbers: string;
  readonly value: string;
  readonly valueText: string;
  readonly inputs: readonly WorkingInput[];
}

export interface Working {
  readonly stage: TitrationEvaluation;
  readonly trial: TrialEvaluation;
  readonly steps: readonly WorkingStep[];
}

/** A quantity on its way through a working: a digit beyond what its ± justifies, since rounding comes at the end. */
function guarded(q: Quantity, unit: string): string {
  const u = standardUncertainty(q) / unitOf(unit).factor;
  const value = inUnit(q, unit);
  return toDecimals(value, u > 0 ? decimalsFor(u, 3) : decimalsFor(value, 6));
}

function causes(q: Quantity, unit: string): CauseLine[] {
  return [...q.sensitivities.values()]
    .map(({ leaf, by }) => ({ label: leaf.label, size: Math.abs(by * leaf.u) / unitOf(unit).factor }))
    .sort((a, b) => b.size - a.size)
    .map(({ label, size }) => ({ label, contribution: toDecimals(size, decimalsFor(size, 2)), unit }));
}

interface Board {
  readonly record: RunRecord;
  readonly evaluation: RunEvaluation;
  readonly compiled: CompiledStage;
  readonly stage: TitrationEvaluation;
  readonly trial: TrialEvaluation;
}

/** How an input is written with its number: the digits of what was read, or its rounded value. */
function inputNumber({ record }: Board, input: Input, q: Quantity): { text: string; unit: string } {
  switch (input.is) {
    case "mass":
      return { text: toDecimals(q.value, massDecimals(record.houseRules)), unit: "g" };
    case "titer":
      return { text: toDecimals(inUnit(q, "mL"), record.houseRules.burette.decimals), unit: "mL" };
    case "pipette":
      return { text: toDecimals(inUnit(q, "mL"), 2), unit: "mL" };
    case "purity":
      return { text: guarded(q, "1"), unit: "" };
    case "result": {
      const stage = record.method.stages.find((s) => s.key === input.stage);
      const unit = stage?.kind === "titration" ? stage.result.unit : "1";
      return { text: guarded(q, unit), unit };
    }
  }
}

function numbersTex(board: Board, expression: Expression): string {
  const { compiled, trial, record } = board;
  return typeset(expression, (e) => {
    if (e.type === "symbol") {
      const q = trial.symbols.get(e.name);
      if (!q) return symbolTex(e.name);
      const input = inputOf(compiled.definition, e.name);
      if (input) {
        const { text, unit } = inputNumber(board, input, q);
        return numberTex(text, unit);
      }
      const unit = compiled.lines.find((line) => line.symbol === e.name)?.unit ?? "1";
      return numberTex(guarded(q, unit), unit);
    }
    if (e.type === "molar-mass") {
      const shares = elementShares(e.formula);
      const value = shares.reduce((sum, { count, weight }) => sum + count * weight, 0);
      return numberTex(toDecimals(value, 3), "g/mol");
    }
    const [of, per] = compiledMethod(record.method).ratio(e.of, e.per);
    return `\\dfrac{${of}}{${per}}`;
  });
}

function equationWith(method: Method, of: string): string {
  const source = Object.values(method.equations).find((text) => text.includes(of));
  return source ? prettyEquation(source) : "";
}

/** The leaves of an expression that have a story of their own, each with where it comes from. */
function expressionInputs(board: Board, expression: Expression): WorkingInput[] {
  const { compiled, trial, record, evaluation, stage } = board;
  switch (expression.type) {
    case "binary":
      return [...expressionInputs(board, expression.left), ...expressionInputs(board, expression.right)];
    case "negate":
    case "call":
      return expressionInputs(board, expression.argument);
    case "number":
      return [];
    case "molar-mass":
      return [
        {
          key: `M(${expression.formula})`,
          label: "the molar mass",
          origin: {
            kind: "elements",
            formula: expression.formula,
            elements: elementShares(expression.formula),
          },
        },
      ];
    case "ratio":
      return [
        {
          key: `ratio(${expression.of}, ${expression.per})`,
          label: "the equation",
          origin: { kind: "equation", text: equationWith(record.method, expression.per) },
        },
      ];
    case "symbol": {
      const { name } = expression;
      const input = inputOf(compiled.definition, name);
      const q = trial.symbols.get(name);
      if (!input || !q) return [];
      if (input.is === "result") {
        const earlier = evaluation.stages.find((s) => s.key === input.stage);
        const text = earlier?.kind === "titration" ? (earlier.shown?.text ?? "") : "";
        const { text: number } = inputNumber(board, input, q);
        return [
          {
            key: name,
            label: `where ${number} comes from`,
            origin: { kind: "stage", stageKey: input.stage, title: earlier?.definition.title ?? "", text },
          },
        ];
      }
      // A mass and a titer have a step of their own, which opens to their readings.
      if (input.is === "mass" || input.is === "titer") return [];
      const unit = input.is === "pipette" ? "mL" : "1";
      const fields = [...trial.fields, ...stage.stageFields].filter(({ field }) => field.symbol === name);
      const label = input.is === "pipette" ? "the aliquot" : "the purity";
      return [{ key: name, label, origin: { kind: "readings", fields, causes: causes(q, unit) } }];
    }
  }
}

/** First steps: each mass and titer as a difference of two readings. */
function readingSteps(board: Board): WorkingStep[] {
  const { compiled, trial, record } = board;
  return compiled.definition.inputs.flatMap((input) => {
    const { symbol } = input;
    if (input.is !== "mass" && input.is !== "titer") return [];
    const q = trial.symbols.get(symbol);
    const fields = trial.fields.filter(({ field }) => field.symbol === symbol);
    const read = (kind: string) => fields.find(({ field }) => field.kind === kind)?.present?.value ?? "";
    if (!q) return [];
    const mass = input.is === "mass";
    const [first, second] = mass ? ["mass.before", "mass.after"] : ["burette.final", "burette.initial"];
    const [from, to] = mass ? ["before", "after"] : ["final", "initial"];
    const unit = mass ? "g" : "mL";
    const decimals = mass ? massDecimals(record.houseRules) : record.houseRules.burette.decimals;
    const value = toDecimals(inUnit(q, unit), decimals);
    const half = plusMinus(q, record.houseRules.plusMinus) / unitOf(unit).factor;
    const shownHalf = toDecimals(half, Math.min(decimalsFor(half, 1), decimals + 1));
    const base = symbolTex(symbol);
    return [
      {
        id: symbol,
        title: mass ? input.label : `Titer of ${trialWords(trial.name)}`,
        names: `${base} = ${base}_{\\mathrm{${from}}} - ${base}_{\\mathrm{${to}}}`,
        numbers: `= ${numberTex(read(first ?? ""), unit)} - ${numberTex(read(second ?? ""), unit)}`,
        value: `= ${numberTex(`${value} \\pm ${shownHalf}`, unit)}`,
        valueText: `${value} ± ${shownHalf} ${unit}`,
        inputs: [
          {
            key: symbol,
            label: mass ? "the two weighings" : "the two readings",
            origin: { kind: "readings" as const, fields, causes: causes(q, unit) },
          },
        ],
      },
    ];
  });
}

function lineStep(board: Board, line: CompiledLine): WorkingStep[] {
  const q = board.trial.symbols.get(line.symbol);
  if (!q) return [];
  const value = guarded(q, line.unit);
  return [
    {
      id: line.symbol,
      title: line.title,
      names: `${symbolTex(line.symbol)} = ${typeset(line.expression, namesTex)}`,
      numbers: `= ${numbersTex(board, line.expression)}`,
      value: `= ${numberTex(value, line.unit)}`,
      valueText: `${value} ${line.unit}`,
      inputs: expressionInputs(board, line.expression),
    },
  ];
}

/** Last steps: the mean of the concordant trials, and its ± from what scatters and what is shared. */
function meanSteps({ stage, record }: Board): WorkingStep[] {
  const { combined, agreement, definition, trials, shown } = stage;
  if (!combined || !shown) return [];
  const { unit, symbol } = definition.result;
  const members = trials.filter((t) => agreement.members.includes(t.id));
  const style = record.houseRules.plusMinus;
  const values = members.map((t) => (t.result ? guarded(t.result, unit) : ""));
  const base = symbolTex(symbol);
  const n = members.length;
  const u = standardUncertainty(combined.quantity) / unitOf(unit).factor;
  const digits = decimalsFor(u, 2);
  const part = (x: number) => toDecimals(x / unitOf(unit).factor, digits + 1);
  const half = showQuantity(combined.quantity, unit, style);
  const from = {
    scatter: `the scatter of the trials, s/√${n} with s = ${part(combined.standardDeviation)}`,
    reading: "reading and weighing, since the trials scatter less than these alone would make them",
    "earlier work": "the repeatability known from earlier work",
  }[combined.repeatabilityFrom];
  const mean: WorkingStep = {
    id: "mean",
    title:
      n > 1
        ? `Mean of the concordant trials ${listed(members.map((t) => t.name))}`
        : "One trial stands for the mean",
    names: `\\bar{${base}} = \\dfrac{1}{n} \\sum_i ${base.includes("_") ? base.replace(/_\{?([^}]*)\}?$/, "_{$1, i}") : `${base}_i`}`,
    numbers: `= \\dfrac{${values.join(" + ")}}{${n}}~\\text{${unit}}`,
    value: `= ${numberTex(guarded(combined.quantity, unit), unit)}`,
    valueText: `${guarded(combined.quantity, unit)} ${unit}`,
    inputs: [],
  };
  const spread: WorkingStep = {
    id: "uncertainty",
    title: `Standard uncertainty: what scatters (${from}) and what all trials share`,
    names: `u = \\sqrt{u_{\\mathrm{rep}}^{2} + u_{\\mathrm{sys}}^{2}}`,
    numbers: `= \\sqrt{${part(combined.repeatability)}^{2} + ${part(combined.systematic)}^{2}}~\\text{${unit}}`,
    value: `= ${numberTex(toDecimals(u, digits), unit)}`,
    valueText: `${toDecimals(u, digits)} ${unit}`,
    inputs: [],
  };
  const result: WorkingStep = {
    id: "result",
    title: `${definition.result.name}, rounded once, with its ± (${plusMinusWords[style]})`,
    names: "",
    numbers: "",
    value: `\\bar{${base}} = ${numberTex(`${half.value} \\pm ${half.plusMinus}`, unit)}`,
    valueText: half.text,
    inputs: [],
  };
  return [mean, spread, result];
}

/**
 * The working of a stage's result, as a teacher would write it on the board: one trial from its readings to its result,
 * then the mean and its ±. Without a trial named, the first of the concordant set is shown. Null while none is complete.
 */
export function workingOf(
  record: RunRecord,
  evaluation: RunEvaluation,
  stageKey: string,
  trialId: string | null,
): Working | null {
  const stage = evaluation.stages.find((s) => s.key === stageKey);
  const compiled = compiledMethod(record.method).stages.get(stageKey);
  if (stage?.kind !== "titration" || !compiled) return null;
  const complete = stage.trials.filter((t) => t.result);
  const trial =
    complete.find((t) => t.id === trialId) ??
    complete.find((t) => stage.agreement.members.includes(t.id)) ??
    complete[0];
  if (!trial) return null;
  const board: Board = { record, evaluation, compiled, stage, trial };
  const steps = [
    ...readingSteps(board),
    ...compiled.lines.flatMap((line) => lineStep(board, line)),
    ...(stage.agreement.members.includes(trial.id) ? meanSteps(board) : []),
  ];
  return { stage, trial, steps };
}

/** What a stage's result stands on, from the first stage up to itself. */
export function standsOn(
  evaluation: RunEvaluation,
  method: Method,
  stageKey: string,
): { title: string; text: string }[] {
  const upTo = evaluation.stages.findIndex((s) => s.key === stageKey);
  return evaluation.stages.slice(0, upTo + 1).flatMap((s) => {
    if (s.kind !== "titration") return [];
    const purities = s.definition.inputs.flatMap((input) => {
      if (input.is !== "purity") return [];
      const present = (kind: string) =>
        s.stageFields.find(({ field }) => field.kind === kind)?.present?.value;
      const percent = present("purity") ?? input.presumed.percent;
      const half = present("purity.plus-minus") ?? input.presumed.plusMinus;
      const name = method.substances[input.of] ?? input.of;
      return [{ title: name.charAt(0).toUpperCase() + name.slice(1), text: `${percent} ± ${half} %` }];
    });
    return [...purities, { title: s.definition.result.name, text: s.shown?.text ?? "no result yet" }];
  });
}
