import { type Input, takenOver } from "~/core/inputs";
import { perOf, unitOfInput } from "~/core/method";
import { inUnit, isUnit, type Quantity } from "~/core/quantity";
import { type Cell, spreadsheetFormula } from "~/core/relation";
import {
  type CompiledLine,
  type CompiledMethod,
  type CompiledStage,
  compiledStage,
  type ComputedEvaluation,
  type FieldState,
  fittedSymbols,
} from "~/core/stages";
import type { RunRecord } from "~/core/run";
import { inEnglish, type Phrase } from "~/core/text";
import { fromReadings, type SheetReading } from "./inputs";
import { type CellName, Sheet } from "./sheet";

/** Results of stages that are written already: where they stand, for the stages that take them over. */
export type Placed = Map<string, { readonly reference: string; readonly unit: string }>;

export const placedKey = (stage: string, symbol: string): string => `${stage} ${symbol}`;

/** A sheet of a stage while it is written. */
export interface StageSheet {
  readonly sheet: Sheet;
  readonly record: RunRecord;
  readonly method: CompiledMethod;
  readonly compiled: CompiledStage;
  readonly stage: ComputedEvaluation;
  readonly placed: Placed;
  readonly names: CellName[];
  /** Cells of what is had once for the whole stage, by symbol. */
  readonly once: Map<string, Cell>;
  /** Lines of calibrations that are written already, by the key of their stage. */
  readonly lines: Map<string, LineCells>;
}

/** Where the coefficients of a calibration function stand, and what is taken off each reading. */
export interface LineCells {
  readonly intercept: string;
  readonly slope: string;
  readonly curvature: string | null;
  readonly deducted: string | null;
}

/** Letters of a symbol as a name takes them: stage and letter, joined by an underscore. */
function nameFor({ compiled, names }: StageSheet, symbol: string): string | null {
  const plain = `${compiled.definition.key}_${symbol}`.replace(/[^\p{L}\p{N}_]/gu, "_");
  const name = /^\p{L}/u.test(plain) ? plain : `_${plain}`;
  return names.some((there) => there.name.toLowerCase() === name.toLowerCase()) ? null : name;
}

/** Gives a cell the name of its letter. */
export function named(into: StageSheet, symbol: string, address: string): void {
  const name = nameFor(into, symbol);
  if (name !== null) into.names.push({ name, sheet: into.sheet, address });
}

/** Symbols that an engine yields, with the unit that they are told in. */
export const fittedOf = ({ compiled }: StageSheet): readonly { symbol: string; unit: string }[] =>
  fittedSymbols(compiled.definition).map(({ symbol, unit }) => ({ symbol, unit: isUnit(unit) ? unit : "1" }));

/** The number that multiplies what was read so that it becomes the value: of a volume to 20 °C, of a mass without the buoyancy of air. */
function correction(value: number, plain: number): string {
  const factor = plain === 0 ? 1 : value / plain;
  return Math.abs(factor - 1) < 1e-12 ? "" : `*${Number(factor.toPrecision(14))}`;
}

/** A value cell over cells of its readings, with its number as it was computed. */
export interface ValueOf {
  readonly readings: readonly SheetReading[];
  /** Nothing where the value is what was read, or is typed. */
  readonly formula: ((at: (kind: string) => string) => string) | null;
  readonly value: number;
  readonly unit: string;
}

/** How an input is told in a sheet: its readings, and how its value follows; null while it has none. */
export function valueOf(
  into: StageSheet,
  input: Input,
  quantity: Quantity | undefined,
  fields: readonly FieldState[],
): ValueOf | null {
  if (!quantity) return null;
  const unit = unitOfInput(input, into.method.method);
  const value = inUnit(quantity, unit);
  const taken = takenOver(input);
  if (taken && taken.readBy === undefined) {
    const main = into.method.method.stages.find(({ key }) => key === taken.stage)?.result.symbol ?? "";
    const there = into.placed.get(placedKey(taken.stage, taken.result ?? main));
    const formula = there && there.unit === unit ? () => there.reference : null;
    return { readings: [], formula, value, unit };
  }
  const read = fromReadings(input, fields);
  if (!read) return { readings: [], formula: null, value, unit };
  const factor = correction(value, read.value);
  if (read.readings.length === 1 && factor === "" && read.value === value)
    return { readings: read.readings, formula: null, value, unit };
  return {
    readings: read.readings,
    formula: (at) => (factor === "" ? read.formula(at) : `(${read.formula(at)})${factor}`),
    value,
    unit,
  };
}

const captionOf = ({ label, unit }: SheetReading) => (unit === "" ? label : `${label}, ${unit}`);

/** One line for something that is had once: letter, what it is, value, unit, and what it was read by. */
export function onceLine(
  { sheet }: StageSheet,
  { symbol, label }: { readonly symbol: string; readonly label: Phrase },
  { readings, formula, value, unit }: ValueOf,
): string {
  const { row } = sheet;
  const at = new Map<string, string>();
  const shown = formula === null && readings.length === 1 ? [] : readings;
  shown.forEach((reading, i) => {
    const column = 5 + 2 * i;
    sheet.put(row, column, { value: captionOf(reading), look: "label" });
    const { value: read, decimals } = reading;
    at.set(reading.kind, sheet.put(row, column + 1, { value: read, look: "read", decimals }));
  });
  sheet.put(row, 1, { value: symbol, look: "label" });
  sheet.put(row, 2, { value: inEnglish(label), look: "label" });
  const content = formula
    ? ({ value, formula: formula((kind) => at.get(kind) ?? "0"), look: "computed" } as const)
    : ({ value, look: "read", ...(readings[0] ? { decimals: readings[0].decimals } : {}) } as const);
  const address = sheet.put(row, 3, content);
  sheet.put(row, 4, { value: unit === "1" ? "" : unit, look: "label" });
  sheet.row++;
  return address;
}

/** What is read once for the whole stage. */
export function onceInputs(into: StageSheet, symbols: ReadonlyMap<string, Quantity>): void {
  const { compiled, stage } = into;
  const inputs = compiled.definition.inputs.filter((input) => perOf(input) === "run");
  const told = inputs.flatMap((input) => {
    const value = valueOf(into, input, symbols.get(input.symbol), stage.stageFields);
    return value ? [{ input, value }] : [];
  });
  if (told.length === 0) return;
  into.sheet.line("head", ["Letter", "Read once", "Value", "Unit", "Read as"]);
  for (const { input, value } of told) {
    const address = onceLine(into, input, value);
    into.once.set(input.symbol, { address: absolute(address), unit: value.unit });
    named(into, input.symbol, address);
  }
  into.sheet.row++;
}

/** An address that stays when its formula is copied. */
export const absolute = (address: string): string => address.replace(/^([A-Z]+)(\d+)$/, "$$$1$$$2");

/** The formula of a relation over cells; null where one of its letters has no cell. */
export function relationFormula(
  { method }: StageSheet,
  { expression, unit }: CompiledLine,
  cells: ReadonlyMap<string, Cell>,
): string | null {
  let whole = true;
  const formula = spreadsheetFormula(
    expression,
    unit,
    (symbol) => {
      const cell = cells.get(symbol);
      whole &&= cell !== undefined;
      return cell ?? { address: "A1", unit: "1" };
    },
    method.stoichiometry,
  );
  return whole ? formula.slice(1) : null;
}

/** A stage's sheet before anything stands on it. */
export function beginSheet(
  parts: Omit<StageSheet, "sheet" | "compiled" | "once">,
  name: string,
): StageSheet | null {
  const compiled = compiledStage(parts.method, parts.stage.key);
  if (!compiled) return null;
  const sheet = new Sheet(name);
  sheet.line("title", [compiled.definition.title]);
  sheet.row++;
  return { ...parts, sheet, compiled, once: new Map() };
}
