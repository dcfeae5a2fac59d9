import { Bug } from "../result";
import { molarMass } from "../chemistry";
import { unitOf } from "../quantity";
import type { Stoichiometry } from "./evaluate";
import { type BinaryOperator, type Expression, fold, type FunctionName } from "./expression";
import type { Relation } from "./parse";
import { type Phrase } from "../text";

/** A cell that holds a symbol's number, in that unit. */
export interface Cell {
  readonly address: string;
  readonly unit: string;
}

/** One line of a sheet: what is read holds its number, what is computed its formula. */
export interface SheetRow {
  readonly symbol: string;
  readonly label: Phrase;
  readonly address: string;
  readonly unit: string;
  readonly content: number | string;
}

const functionNames: Record<FunctionName, string> = {
  sqrt: "SQRT",
  ln: "LN",
  log10: "LOG10",
  exp: "EXP",
  abs: "ABS",
  mean: "AVERAGE",
  min: "MIN",
  max: "MAX",
};

interface Piece {
  readonly text: string;
  /** How tightly it binds: 1 sums, 2 products, 3 powers, 4 whole. */
  readonly binds: number;
}

const strength: Record<BinaryOperator, number> = { "+": 1, "-": 1, "*": 2, "/": 2, "^": 3 };
const whole = (text: string): Piece => ({ text, binds: 4 });
const wrapped = ({ text, binds }: Piece, needed: number) => (binds < needed ? `(${text})` : text);

/** A number times its unit's factor, written as people do: B4/1000 for milliliters. */
function inBaseUnits(text: string, unit: string, inverse = false): Piece {
  const { factor } = unitOf(unit);
  const by = inverse ? 1 / factor : factor;
  if (by === 1) return whole(text);
  const under = Number((1 / by).toPrecision(15));
  return {
    text: Number.isInteger(under) ? `${text}/${under}` : `${text}*${Number(by.toPrecision(15))}`,
    binds: 2,
  };
}

function formula(
  expression: Expression,
  cellOf: (symbol: string) => Cell,
  stoichiometry: Stoichiometry,
): Piece {
  return fold<Piece>(expression, {
    leaf: (leaf) => {
      switch (leaf.type) {
        case "number":
          return inBaseUnits(leaf.text, leaf.unit ?? "1");
        case "symbol": {
          const { address, unit } = cellOf(leaf.name);
          return inBaseUnits(address, unit);
        }
        case "molar-mass":
          return whole(String(Number(molarMass(leaf.formula).value.toPrecision(12))));
        case "ratio": {
          const [of, per] = stoichiometry.ratio(leaf.of, leaf.per);
          return per === 1 ? whole(String(of)) : { text: `${of}/${per}`, binds: 2 };
        }
        case "equivalents":
          return whole(String(stoichiometry.equivalents(leaf.of)));
      }
    },
    // A spreadsheet's minus binds tighter than its power, even one further in: all but a whole is put in brackets.
    negate: (a) => whole(`(-${wrapped(a, 4)})`),
    call: (name, args) => whole(`${functionNames[name]}(${args.map(({ text }) => text).join(",")})`),
    binary: (operator, a, b) => {
      const binds = strength[operator];
      const left = wrapped(a, operator === "^" ? 4 : binds);
      return {
        text: `${left}${operator}${wrapped(b, binds + (operator === "+" || operator === "*" ? 0 : 1))}`,
        binds,
      };
    },
  });
}

/**
 * Fifth reader: a formula such as `=(B4*B5/204.222)/(B6/1000)` for a cell that shows the value in `unit`, over cells that
 * hold the symbols in their own units.
 */
export function spreadsheetFormula(
  expression: Expression,
  unit: string,
  cellOf: (symbol: string) => Cell,
  stoichiometry: Stoichiometry,
): string {
  const piece = formula(expression, cellOf, stoichiometry);
  if (unitOf(unit).factor === 1) return `=${piece.text}`;
  return `=${inBaseUnits(wrapped(piece, 3), unit, true).text}`;
}

/**
 * A trial as rows of a sheet, inputs first and then a row for each relation, numbers in column C. Every computed cell is a
 * formula over those above, so that a person can follow it and change a reading.
 */
export function spreadsheetRows(
  inputs: readonly {
    readonly symbol: string;
    readonly label: Phrase;
    readonly unit: string;
    readonly value: number;
  }[],
  lines: readonly (Relation & { readonly title: Phrase; readonly unit: string })[],
  stoichiometry: Stoichiometry,
  firstRow = 2,
): SheetRow[] {
  const cells = new Map<string, Cell>();
  const place = (symbol: string, unit: string) => {
    const address = `C${firstRow + cells.size}`;
    cells.set(symbol, { address, unit });
    return address;
  };
  const cellOf = (symbol: string): Cell => {
    const cell = cells.get(symbol);
    if (!cell) throw new Bug(`Symbol ${symbol} has no cell`);
    return cell;
  };
  const read = inputs.map(({ symbol, label, unit, value }) => ({
    symbol,
    label,
    unit,
    address: place(symbol, unit),
    content: value,
  }));
  const computed = lines.map(({ symbol, title, unit, expression }) => {
    const content = spreadsheetFormula(expression, unit, cellOf, stoichiometry);
    return { symbol, label: title, unit, address: place(symbol, unit), content };
  });
  return [...read, ...computed];
}
