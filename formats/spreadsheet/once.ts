import { inUnit, type Quantity } from "~/core/quantity";
import type { Cell } from "~/core/relation";
import { type CompiledLine, resultQuantity } from "~/core/stages";
import { writeResult } from "./budget";
import {
  absolute,
  fittedOf,
  named,
  onceInputs,
  onceLine,
  relationFormula,
  type StageSheet,
} from "./stage-sheet";

/** Relations below each other, a line each, over what is had once; their cells by letter. */
export function relationLines(
  into: StageSheet,
  lines: readonly CompiledLine[],
  symbols: ReadonlyMap<string, Quantity>,
): ReadonlyMap<string, Cell> {
  const cells = new Map<string, Cell>(into.once);
  const told = lines.filter(({ symbol }) => symbols.has(symbol));
  if (told.length > 0) into.sheet.line("head", ["Letter", "Follows", "Value", "Unit"]);
  for (const line of told) {
    const q = symbols.get(line.symbol);
    const formula = relationFormula(into, line, cells);
    if (!q) continue;
    const value = { readings: [], value: inUnit(q, line.unit), unit: line.unit };
    const address = onceLine(
      into,
      { symbol: line.symbol, label: line.title },
      { ...value, formula: formula === null ? null : () => formula },
    );
    cells.set(line.symbol, { address: absolute(address), unit: line.unit });
    if (!into.compiled.definition.result.symbol.includes(line.symbol)) named(into, line.symbol, address);
  }
  if (told.length > 0) into.sheet.row++;
  return cells;
}

/** What an engine yields once for the stage, as numbers; symbols that have a cell already are left. */
export function fittedLines(into: StageSheet, symbols: ReadonlyMap<string, Quantity>): void {
  const fitted = fittedOf(into).filter(({ symbol }) => symbols.has(symbol) && !into.once.has(symbol));
  if (fitted.length === 0) return;
  into.sheet.line("head", [
    "Letter",
    "Fitted by Steady Bead: does not follow changed readings",
    "Value",
    "Unit",
  ]);
  for (const { symbol, unit } of fitted) {
    const q = symbols.get(symbol);
    if (!q) continue;
    const value = { readings: [], formula: null, value: inUnit(q, unit), unit };
    into.once.set(symbol, { address: absolute(onceLine(into, { symbol, label: "" }, value)), unit });
  }
  into.sheet.row++;
}

/** The results of what is had once, each with its ±. */
export function onceResults(into: StageSheet, cells: ReadonlyMap<string, Cell>): void {
  const { stage, compiled } = into;
  const quantity = resultQuantity(stage);
  if (!quantity) return;
  const results = [
    { ...compiled.definition.result, quantity },
    ...stage.also.map(({ definition, quantity: q }) => ({ ...definition, quantity: q })),
  ];
  for (const { symbol, name, unit, quantity: q } of results) {
    const cell = cells.get(symbol);
    const scale =
      cell && cell.unit !== unit
        ? inUnit({ ...q, value: 1 }, unit) / inUnit({ ...q, value: 1 }, cell.unit)
        : 1;
    const formula = cell
      ? `${cell.address}${scale === 1 ? "" : `*${Number(scale.toPrecision(15))}`}`
      : String(inUnit(q, unit));
    writeResult(into, { symbol, name, unit, quantity: q, formula });
  }
}

/** A stage whose result is had once. */
export function writeOnce(into: StageSheet, symbols: ReadonlyMap<string, Quantity>): void {
  onceInputs(into, symbols);
  fittedLines(into, symbols);
  onceResults(into, relationLines(into, into.compiled.lines, symbols));
}
