import type { Input } from "~/core/inputs";
import { perOf } from "~/core/method";
import { inUnit, type Quantity } from "~/core/quantity";
import { type Cell, evaluateRelations } from "~/core/relation";
import { membersOf, resultQuantity, type ReplicateEvaluation, type TrialEvaluation } from "~/core/stages";
import { inEnglish } from "~/core/text";
import { type SheetResult, writeResult } from "./budget";
import { addressOf, type SheetCell } from "./sheet";
import { fittedOf, onceInputs, relationFormula, type StageSheet, valueOf } from "./stage-sheet";

/** How the number that an engine yields is told in a trial's row: by columns of its own, and a formula over them. */
export interface EngineColumns {
  readonly heads: readonly string[];
  /** Numbers for the columns of a trial, and the formula of the value over their addresses; null where it is a plain number. */
  readonly of: (trial: TrialEvaluation) => {
    readonly numbers: readonly number[];
    readonly formula: ((addresses: readonly string[]) => string) | null;
  };
}

/** Engines by the symbol that they yield. */
export type Engines = ReadonlyMap<string, EngineColumns>;

/** A column of the table of trials. */
interface Column {
  readonly symbol: string;
  readonly head: string;
  readonly unit: string;
}

interface Written {
  /** Cell of each symbol in the row of each trial. */
  readonly rows: ReadonlyMap<string, ReadonlyMap<string, Cell>>;
  readonly first: number;
  readonly last: number;
  readonly columns: ReadonlyMap<string, number>;
}

/** Columns of the table in the order of the working: what is read of each flask, what an engine yields, what follows. */
function columnsOf(into: StageSheet, trials: readonly TrialEvaluation[], engines: Engines) {
  const { compiled } = into;
  const perTrial = compiled.definition.inputs.filter((input) => perOf(input) === "trial");
  const columns: Column[] = [];
  for (const input of perTrial) {
    const found = trials.flatMap((t) => valueOf(into, input, t.symbols.get(input.symbol), t.fields) ?? []);
    const engine = engines.get(input.symbol);
    const kinds = new Map(
      found.flatMap((v) =>
        v.formula && v.readings.length > 0 ? v.readings.map((r) => [r.kind, r] as const) : [],
      ),
    );
    for (const [kind, { label, unit }] of kinds)
      columns.push({ symbol: `${input.symbol}:${kind}`, head: inEnglish(label), unit });
    engine?.heads.forEach((head, i) => columns.push({ symbol: `${input.symbol}:${i}`, head, unit: "" }));
    const unit = found[0]?.unit ?? "1";
    columns.push({ symbol: input.symbol, head: inEnglish(input.label), unit });
  }
  for (const { symbol, unit } of fittedOf(into))
    columns.push({ symbol, head: "Fitted by Steady Bead: does not follow changed readings", unit });
  for (const { symbol, title, unit } of compiled.lines)
    columns.push({ symbol, head: inEnglish(title), unit });
  return columns;
}

/** A row of the table while it is written. */
interface TrialRow {
  readonly into: StageSheet;
  readonly trial: TrialEvaluation;
  readonly row: number;
  readonly columns: ReadonlyMap<string, number>;
  /** Cells of the letters that have one already. */
  readonly cells: Map<string, Cell>;
}

function putLetter(
  { into, row, columns, cells }: TrialRow,
  { symbol, unit }: { readonly symbol: string; readonly unit: string },
  cell: { readonly value: number; readonly formula?: string | null; readonly decimals?: number | undefined },
): void {
  const column = columns.get(symbol);
  if (column === undefined) return;
  const { value, formula, decimals } = cell;
  const content =
    formula == null
      ? ({ value, look: "read", ...(decimals === undefined ? {} : { decimals }) } as const)
      : ({ value, formula, look: "computed" } as const);
  cells.set(symbol, { address: into.sheet.put(row, column, content), unit });
}

/** What was read of an input in a flask, and its value over that. */
function putInput(at: TrialRow, input: Input, engines: Engines): void {
  const { into, trial, row, columns } = at;
  const told = valueOf(into, input, trial.symbols.get(input.symbol), trial.fields);
  if (!told) return;
  const put = (key: string | number, cell: SheetCell) =>
    into.sheet.put(row, columns.get(`${input.symbol}:${key}`) ?? 1, cell);
  const engine = engines.get(input.symbol)?.of(trial);
  const places = engine?.numbers.map((value, i) => put(i, { value, look: "read" })) ?? [];
  const read = new Map(
    told.formula
      ? told.readings.map(({ kind, value, decimals }) => [
          kind as string,
          put(kind, { value, look: "read", decimals }),
        ])
      : [],
  );
  const formula = engine?.formula?.(places) ?? told.formula?.((kind) => read.get(kind) ?? "0");
  const decimals = told.formula ? undefined : told.readings[0]?.decimals;
  putLetter(
    at,
    { symbol: input.symbol, unit: told.unit },
    { value: told.value, formula: formula ?? null, decimals },
  );
}

/** The row of one trial: what was read, and formulas over it. */
function trialRow(
  into: StageSheet,
  trial: TrialEvaluation,
  columns: ReadonlyMap<string, number>,
  engines: Engines,
): ReadonlyMap<string, Cell> {
  const at: TrialRow = { into, trial, row: into.sheet.row, columns, cells: new Map(into.once) };
  const { definition, lines } = into.compiled;
  for (const input of definition.inputs) if (perOf(input) === "trial") putInput(at, input, engines);
  for (const letter of fittedOf(into)) {
    const q = trial.symbols.get(letter.symbol);
    if (q) putLetter(at, letter, { value: inUnit(q, letter.unit) });
  }
  for (const line of lines) {
    const q = trial.symbols.get(line.symbol);
    const formula = q && relationFormula(into, line, at.cells);
    if (q && formula) putLetter(at, line, { value: inUnit(q, line.unit), formula });
  }
  return at.cells;
}

/** The table of all trials, those that do not count among them. */
function writeTrials(into: StageSheet, stage: ReplicateEvaluation, engines: Engines): Written {
  const { sheet } = into;
  const members = new Set(membersOf(stage).map(({ id }) => id));
  const columns = columnsOf(into, stage.trials, engines);
  const places = new Map(columns.map(({ symbol }, i) => [symbol, i + 3]));
  sheet.line("head", ["Trial", "Include", ...columns.map(({ head }) => head)]);
  sheet.line("label", ["", "1 or 0", ...columns.map(({ symbol }) => symbol.replace(/:.*$/, ""))]);
  sheet.line("label", ["", "", ...columns.map(({ unit }) => (unit === "1" ? "" : unit))]);
  const first = sheet.row;
  const rows = new Map(
    stage.trials.map((trial) => {
      const { row } = sheet;
      sheet.put(row, 1, { value: inEnglish(trial.name), look: "label" });
      sheet.put(row, 2, { value: members.has(trial.id) ? 1 : 0, look: "chosen" });
      const cells = trialRow(into, trial, places, engines);
      if (trial.record.struck)
        sheet.put(row, columns.length + 3, {
          value: `struck out: ${trial.record.struck.reason}`,
          look: "note",
        });
      sheet.row++;
      return [trial.id, cells] as const;
    }),
  );
  return { rows, first, last: sheet.row - 1, columns: places };
}

/** The row in which the relations are computed once more at the mean titer, where the house averages titers. */
function meanTiterRow(
  into: StageSheet,
  stage: ReplicateEvaluation,
  written: Written,
): ReadonlyMap<string, Cell> | null {
  if (!("meanTiterMl" in stage) || stage.meanTiterMl === null) return null;
  const { sheet, compiled } = into;
  const [like] = membersOf(stage);
  const column = written.columns.get(stage.titer);
  if (!like || column === undefined) return null;
  const { row } = sheet;
  const range = (at: number) => `${addressOf(written.first, at)}:${addressOf(written.last, at)}`;
  const cells = new Map<string, Cell>([...into.once, ...(written.rows.get(like.id) ?? [])]);
  sheet.put(row, 1, { value: "At the mean titer", look: "label" });
  const members = membersOf(stage).map((t) => t.symbols.get(stage.titer));
  const mean = members.reduce((sum, q) => sum + (q ? inUnit(q, "mL") : 0), 0) / members.length;
  const formula = `SUMPRODUCT(${range(2)},${range(column)})/SUM(${range(2)})`;
  cells.set(stage.titer, {
    address: sheet.put(row, column, { value: mean, formula, look: "computed" }),
    unit: "mL",
  });
  const titer = members[0];
  const typed = [...like.symbols].filter(
    ([symbol]) => !compiled.lines.some((line) => line.symbol === symbol),
  );
  const all = new Map([
    ...typed,
    ...(titer
      ? [[stage.titer, { ...titer, value: (mean * titer.value) / inUnit(titer, "mL") }] as const]
      : []),
  ]);
  const known = evaluateRelations(compiled.lines, all, into.method.stoichiometry);
  for (const line of compiled.lines) {
    const at = written.columns.get(line.symbol);
    const text = relationFormula(into, line, cells);
    if (at === undefined || text === null) continue;
    const q = known.get(line.symbol);
    const value = q ? inUnit(q, line.unit) : 0;
    cells.set(line.symbol, {
      address: sheet.put(row, at, { value, formula: text, look: "computed" }),
      unit: line.unit,
    });
  }
  sheet.row++;
  return cells;
}

/** A stage whose result is a mean over trials. */
export function writeReplicates(
  into: StageSheet,
  stage: ReplicateEvaluation,
  engines: Engines = new Map(),
): void {
  const { sheet, compiled } = into;
  const shared = stage.trials.find((t) => t.symbols.size > 0)?.symbols ?? new Map<string, Quantity>();
  onceInputs(into, shared);
  if (stage.trials.length === 0) return;
  const written = writeTrials(into, stage, engines);
  const mean = meanTiterRow(into, stage, written);
  sheet.row++;
  const members = membersOf(stage);
  const quantity = resultQuantity(stage);
  if (!quantity || members.length === 0) return;
  const results = [
    { ...compiled.definition.result, quantity },
    ...stage.also.map(({ definition, quantity: q }) => ({ ...definition, quantity: q })),
  ];
  for (const { symbol, name, unit, quantity: q } of results) {
    const column = written.columns.get(symbol);
    const told = unitOfColumn(into, symbol);
    if (column === undefined || told === null) {
      handedOn(into, { symbol, name, unit, quantity: q });
      continue;
    }
    const range = (at: number) =>
      `${addressOf(written.first, at)}:${addressOf(written.last, at)}`.replace(/([A-Z]+)(\d+)/g, "$$$1$$$2");
    const scale = factorBetween(q, told, unit);
    const plain = mean?.get(symbol)?.address ?? `SUMPRODUCT(${range(2)},${range(column)})/SUM(${range(2)})`;
    writeResult(into, {
      ...{ symbol, name, unit, quantity: q },
      formula: scale === 1 ? plain : `${plain}*${scale}`,
      mean: {
        members,
        values: scale === 1 ? range(column) : `(${range(column)}*${scale})`,
        include: range(2),
      },
    });
  }
}

/** The unit that a relation's column is told in; null for what no relation gives. */
const unitOfColumn = ({ compiled }: StageSheet, symbol: string): string | null =>
  compiled.lines.findLast((one) => one.symbol === symbol)?.unit ?? null;

const factorBetween = (q: Quantity, from: string, to: string): number =>
  from === to
    ? 1
    : Number((inUnit({ ...q, value: 1 }, to) / inUnit({ ...q, value: 1 }, from)).toPrecision(15));

/** A result that no column of the table holds, as one that is handed on or follows from another: its number. */
function handedOn(
  into: StageSheet,
  { symbol, name, unit, quantity }: Omit<SheetResult, "formula" | "mean">,
): void {
  const there = into.once.get(symbol);
  writeResult(into, {
    ...{ symbol, name, unit, quantity },
    formula: there && there.unit === unit ? there.address : String(inUnit(quantity, unit)),
  });
}
