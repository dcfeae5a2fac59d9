import { shownResult, type FieldState, type RunEvaluation, type ComputedEvaluation } from "./evaluation";
import { fittedUnit } from "../table";
import { plusMinus } from "../../judgement";
import type { HouseRules } from "../../rules";
import type { CompiledMethod, CompiledLine, CompiledStage } from "../compiled";
import { type ElementShare, elementShares, prettyEquation } from "../../chemistry";
import {
  decimalsFor,
  inUnit,
  type Quantity,
  standardUncertainty,
  toDecimals,
  unitOf,
  toSignificant,
  withUnit,
} from "../../quantity";
import { type Expression, leavesOf, numberTex, symbolTex, typeset, namesTex } from "../../relation";
import { type Method, unitOfInput, inputOf } from "../../method";
import { decimalsOfInput, type Input, differenceOf, quotientOf } from "../../inputs";
import type { RunRecord } from "../../run";
import { uncapitalized, msg, type Phrase } from "../../text";

/** Where a number in a working comes from: what opens when one asks. */
export type Origin =
  | {
      readonly kind: "readings";
      readonly fields: readonly FieldState[];
      readonly causes: readonly CauseLine[];
    }
  | { readonly kind: "stage"; readonly stageKey: string; readonly title: Phrase; readonly text: Phrase }
  | { readonly kind: "elements"; readonly formula: string; readonly elements: readonly ElementShare[] }
  | { readonly kind: "equation"; readonly text: Phrase };

/** One cause of a quantity's uncertainty, with what it contributes in the quantity's unit. */
export interface CauseLine {
  readonly label: Phrase;
  readonly contribution: string;
  readonly unit: string;
}

export interface WorkingInput {
  readonly key: string;
  /** What the link says: "the two weighings", "where 0.10214 comes from". */
  readonly label: Phrase;
  readonly origin: Origin;
}

/** One line on the board: a heading, names, numbers, value. TeX throughout, and the value in plain text too. */
export interface WorkingStep {
  readonly id: string;
  readonly title: Phrase;
  /** The same as plain text, as a method's author writes it; empty where the value says it all. */
  readonly formula: Phrase;
  readonly names: string;
  readonly numbers: string;
  readonly value: string;
  readonly valueText: Phrase;
  readonly inputs: readonly WorkingInput[];
}

/** A quantity on its way through a working: a digit beyond what its ± justifies, since rounding comes at the end. */
export function guarded(q: Quantity, unit: string): string {
  const u = standardUncertainty(q) / unitOf(unit).factor;
  const value = inUnit(q, unit);
  return toDecimals(value, u > 0 ? decimalsFor(u, 3) : decimalsFor(value, 6));
}

export function causes(q: Quantity, unit: string): CauseLine[] {
  return [...q.sensitivities.values()]
    .map(({ leaf, by }) => ({ label: leaf.label, size: Math.abs(by * leaf.u) / unitOf(unit).factor }))
    .sort((a, b) => b.size - a.size)
    .map(({ label, size }) => ({ label, contribution: toDecimals(size, decimalsFor(size, 2)), unit }));
}

/** All that the lines of one working are written from. */
export interface Board {
  readonly record: RunRecord;
  readonly method: CompiledMethod;
  readonly evaluation: RunEvaluation;
  readonly compiled: CompiledStage;
  readonly stage: ComputedEvaluation;
  /** What the steps are written with: of one trial, or of what is made once. */
  readonly symbols: ReadonlyMap<string, Quantity>;
  readonly fields: readonly FieldState[];
  /** Whose titer it is, as a heading says. */
  readonly name: Phrase;
}

/** How an input is written with its number: the digits of what was read, or its rounded value. */
function inputNumber({ record, method }: Board, input: Input, q: Quantity): { text: string; unit: string } {
  const unit = unitOfInput(input, method.method);
  const shownUnit = unit === "1" ? "" : unit;
  if (input.is === "constant") return { text: input.value, unit: shownUnit };
  const decimals = decimalsOfInput(input, record.houseRules);
  return {
    text: decimals === null ? guarded(q, unit) : toDecimals(inUnit(q, unit), decimals),
    unit: shownUnit,
  };
}

export function numbersTex(board: Board, expression: Expression): string {
  const { compiled, symbols, method } = board;
  return typeset(expression, (e) => {
    if (e.type === "symbol") {
      const q = symbols.get(e.name);
      if (!q) return symbolTex(e.name);
      const input = inputOf(compiled.definition, e.name);
      if (input) {
        const { text, unit } = inputNumber(board, input, q);
        return numberTex(text, unit);
      }
      const unit =
        compiled.lines.find((line) => line.symbol === e.name)?.unit ??
        fittedUnit(compiled.definition, e.name) ??
        "1";
      return numberTex(guarded(q, unit), unit);
    }
    if (e.type === "molar-mass") {
      const shares = elementShares(e.formula);
      const value = shares.reduce((sum, { count, weight }) => sum + count * weight, 0);
      return numberTex(toDecimals(value, 3), "g/mol");
    }
    const { stoichiometry } = method;
    if (e.type === "equivalents") return String(stoichiometry.equivalents(e.of));
    const [of, per] = stoichiometry.ratio(e.of, e.per);
    return `\\dfrac{${of}}{${per}}`;
  });
}

/** The equations that hold a species, each on its own line of a scheme. */
function equationsWith(method: Method, species: readonly string[]): string {
  const sources = method.equations.map(({ equation }) => equation);
  const holding = sources.filter((source) => species.some((s) => source.includes(s)));
  const both = sources.find((source) => species.every((s) => source.includes(s)));
  return (both ? [both] : holding).map(prettyEquation).join("; ");
}

const readingLabels: Partial<Record<Input["is"], Phrase>> = {
  pipette: msg`the aliquot`,
  graduated: msg`the volume taken`,
  flask: msg`the flask`,
  drops: msg`the drops`,
  purity: msg`the purity`,
  temperature: msg`the temperature`,
};

/** The leaves of an expression that have a story of their own, each with where it comes from. */
export function expressionInputs(board: Board, expression: Expression): WorkingInput[] {
  return leavesOf(expression).flatMap((leaf): WorkingInput[] => {
    switch (leaf.type) {
      case "number":
        return [];
      case "molar-mass":
        return [
          {
            key: `M(${leaf.formula})`,
            label: msg`the molar mass`,
            origin: { kind: "elements", formula: leaf.formula, elements: elementShares(leaf.formula) },
          },
        ];
      case "ratio":
        return [
          {
            key: `ratio(${leaf.of}, ${leaf.per})`,
            label: msg`the equation`,
            origin: { kind: "equation", text: equationsWith(board.method.method, [leaf.of, leaf.per]) },
          },
        ];
      case "equivalents":
        return [
          {
            key: `equivalents(${leaf.of})`,
            label: msg`the equation`,
            origin: { kind: "equation", text: equationsWith(board.method.method, [leaf.of]) },
          },
        ];
      case "symbol":
        return symbolInputs(board, leaf.name);
    }
  });
}

function symbolInputs(board: Board, name: string): WorkingInput[] {
  const { compiled, symbols, fields: all, evaluation } = board;
  const input = inputOf(compiled.definition, name);
  const q = symbols.get(name);
  if (!input || !q) return [];
  if (input.is === "result") {
    const earlier = evaluation.stages.find((s) => s.key === input.stage);
    const text = earlier ? (shownResult(earlier, input.result)?.text ?? "") : "";
    const { text: number } = inputNumber(board, input, q);
    return [
      {
        key: name,
        label: msg`where ${number} comes from`,
        origin: { kind: "stage", stageKey: input.stage, title: earlier?.definition.title ?? "", text },
      },
    ];
  }
  // A mass, a titer, and a volume that was weighed or counted have a step of their own, which opens to their readings.
  if (differenceOf(input) || quotientOf(input)) return [];
  const fields = all.filter(({ field }) => field.symbol === name);
  const label = readingLabels[input.is] ?? uncapitalized(input.label);
  const unit = unitOfInput(input, board.method.method);
  return [{ key: name, label, origin: { kind: "readings", fields, causes: causes(q, unit) } }];
}

/** A step of which only some lines are written. */
export const step = (part: Partial<WorkingStep> & Pick<WorkingStep, "id" | "title">): WorkingStep => ({
  formula: "",
  names: "",
  numbers: "",
  value: "",
  valueText: "",
  inputs: [],
  ...part,
});

/** A value with the house's ± to two figures. */
export function withPlusMinus(q: Quantity, unit: string, { plusMinus: style }: HouseRules): string {
  const half = plusMinus(q, style) / unitOf(unit).factor;
  return half > 0 ? `${guarded(q, unit)} \\pm ${toSignificant(half, 2)}` : toSignificant(inUnit(q, unit), 6);
}

/** One relation with names, then with numbers. */
export function lineStep(board: Board, line: CompiledLine): WorkingStep[] {
  const q = board.symbols.get(line.symbol);
  if (!q) return [];
  const value = guarded(q, line.unit);
  return [
    {
      id: line.symbol,
      title: line.title,
      formula: line.source,
      names: `${symbolTex(line.symbol)} = ${typeset(line.expression, namesTex)}`,
      numbers: `= ${numbersTex(board, line.expression)}`,
      value: `= ${numberTex(value, line.unit)}`,
      valueText: withUnit(value, line.unit),
      inputs: expressionInputs(board, line.expression),
    },
  ];
}
