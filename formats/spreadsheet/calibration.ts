import { perOf } from "~/core/method";
import { inUnit, unitOf } from "~/core/quantity";
import type { Cell } from "~/core/relation";
import {
  type CalibrationEvaluation,
  type CompiledCalibration,
  type LevelEvaluation,
  type LineView,
} from "~/core/stages";
import { inEnglish } from "~/core/text";
import { addressOf } from "./sheet";
import { fittedLines, onceResults, relationLines } from "./once";
import { absolute, onceInputs, onceLine, relationFormula, type StageSheet, valueOf } from "./stage-sheet";

/** The flasks of a series: what was taken for each, and the amount in it as a formula; its cell by the flask. */
function levelRows(into: StageSheet, stage: CalibrationEvaluation): ReadonlyMap<string, string> {
  const { sheet } = into;
  const compiled = into.compiled as CompiledCalibration;
  const inputs = compiled.definition.inputs.filter((i) => perOf(i) === "trial" && i.is !== "absorbance");
  const columns = [
    ...inputs.map(({ symbol, label }) => ({ symbol, head: inEnglish(label), unit: "" })),
    ...compiled.axis.map(({ symbol, title, unit }) => ({ symbol, head: inEnglish(title), unit })),
  ];
  sheet.line("head", ["Flask", "Left out", ...columns.map(({ head }) => head)]);
  sheet.line("label", [
    "",
    "",
    ...columns.map(({ symbol, unit }) => (unit === "" ? symbol : `${symbol}, ${unit}`)),
  ]);
  return new Map(
    stage.levels.flatMap((level) => {
      const { row } = sheet;
      const cells = new Map<string, Cell>(into.once);
      sheet.put(row, 1, { value: inEnglish(level.name), look: "label" });
      if (level.leftOut !== null) sheet.put(row, 2, { value: inEnglish(level.leftOut), look: "note" });
      inputs.forEach((input, i) => {
        const told = valueOf(into, input, level.symbols.get(input.symbol), level.fields);
        if (!told) return;
        const [only] = told.readings;
        // Where a value is not what was read, the reading stands in its formula as a number.
        const read = (kind: string) => String(told.readings.find((r) => r.kind === kind)?.value ?? 0);
        const cell = told.formula
          ? ({ value: told.value, formula: told.formula(read), look: "computed" } as const)
          : ({ value: told.value, look: "read", ...(only ? { decimals: only.decimals } : {}) } as const);
        cells.set(input.symbol, { address: sheet.put(row, i + 3, cell), unit: told.unit });
      });
      compiled.axis.forEach((line, i) => {
        const q = level.symbols.get(line.symbol);
        const formula = q && relationFormula(into, line, cells);
        if (!q || !formula) return;
        const address = sheet.put(row, inputs.length + i + 3, {
          value: inUnit(q, line.unit),
          formula,
          look: "computed",
        });
        cells.set(line.symbol, { address, unit: line.unit });
      });
      sheet.row++;
      const { symbol, unit } = compiled.definition.axis;
      const cell = cells.get(symbol);
      const scale = cell ? unitOf(cell.unit).factor / unitOf(unit).factor : 1;
      return cell
        ? [
            [
              level.id,
              scale === 1 ? cell.address : `${cell.address}*${Number(scale.toPrecision(15))}`,
            ] as const,
          ]
        : [];
    }),
  );
}

interface PointRanges {
  readonly x: string;
  readonly y: string;
  readonly weight: string;
}

/** How much a point counts, as a formula over its amount; null where that follows from the scatter of its flask. */
function weightFormula(line: LineView, x: string, least: string): string | null {
  switch (line.fit.weighting) {
    case "none":
      return "1";
    case "1/x":
      return `1/MAX(${x},${least})`;
    case "1/x²":
      return `1/MAX(${x},${least})^2`;
    case "1/s²":
      return null;
  }
}

/** Every reading of the standards as a point of the line. */
function pointRows(
  into: StageSheet,
  stage: CalibrationEvaluation,
  line: LineView,
  amounts: ReadonlyMap<string, string>,
  deducted: string | null,
): PointRanges {
  const { sheet } = into;
  sheet.line("head", ["Point", "Include", "Amount x", "Absorbance as read", "Absorbance y", "Weight"]);
  const points = stage.levels.flatMap((level) => level.readings.map((reading) => ({ level, reading })));
  const used = new Map(line.points.map((point) => [point.readingId, point]));
  const first = sheet.row;
  const last = first + points.length - 1;
  const range = (column: number) =>
    `${absolute(addressOf(first, column))}:${absolute(addressOf(last, column))}`;
  // Weights by the amount take the weakest standard that counts as the least.
  const least = String(Math.min(...line.points.map(({ x }) => x).filter((x) => x > 0)));
  for (const { level, reading } of points)
    pointRow(into, { level, reading, point: used.get(reading.id) }, { line, amounts, deducted, least });
  sheet.row++;
  return { x: range(3), y: range(5), weight: `${range(2)}*${range(6)}` };
}

function pointRow(
  { sheet }: StageSheet,
  {
    level,
    reading,
    point,
  }: {
    readonly level: LevelEvaluation;
    readonly reading: LevelEvaluation["readings"][number];
    readonly point: LineView["points"][number] | undefined;
  },
  {
    line,
    amounts,
    deducted,
    least,
  }: {
    readonly line: LineView;
    readonly amounts: ReadonlyMap<string, string>;
    readonly deducted: string | null;
    readonly least: string;
  },
): void {
  const { row } = sheet;
  sheet.put(row, 1, { value: inEnglish(level.name), look: "label" });
  sheet.put(row, 2, { value: point ? 1 : 0, look: "chosen" });
  const amount = amounts.get(level.id);
  const x = sheet.put(row, 3, {
    value: level.x ?? 0,
    ...(amount === undefined ? {} : { formula: amount }),
    look: "computed",
  });
  const read = sheet.put(row, 4, { value: reading.absorbance, look: "read" });
  const value = point?.y ?? reading.absorbance;
  sheet.put(row, 5, { value, formula: deducted === null ? read : `${read}-${deducted}`, look: "computed" });
  const weight = weightFormula(line, x, least);
  const number = point?.weight ?? 0;
  sheet.put(
    row,
    6,
    weight === null ? { value: number, look: "read" } : { value: number, formula: weight, look: "computed" },
  );
  sheet.row++;
}

/** Slope and intercept by weighted sums of products: Draper and Smith, Applied Regression Analysis, ch. 1 (from memory). */
function lineFormulas(
  { fit }: LineView,
  { x, y, weight }: PointRanges,
): readonly [slope: string, intercept: string] | null {
  const sum = (...factors: readonly string[]) => `SUMPRODUCT(${[weight, ...factors].join("*")})`;
  if (fit.model === "quadratic") return null;
  if (fit.model === "origin") return [`${sum(x, y)}/${sum(x, x)}`, "0"];
  const slope = `(${sum()}*${sum(x, y)}-${sum(x)}*${sum(y)})/(${sum()}*${sum(x, x)}-${sum(x)}^2)`;
  const intercept = `(${sum(y)}*${sum(x, x)}-${sum(x)}*${sum(x, y)})/(${sum()}*${sum(x, x)}-${sum(x)}^2)`;
  return [slope, intercept];
}

/** The standards, the points, and the line through them; where the line stands is remembered for those that read off it. */
export function writeCalibration(into: StageSheet, stage: CalibrationEvaluation): void {
  const { sheet, compiled } = into;
  onceInputs(into, stage.symbols);
  const amounts = levelRows(into, stage);
  sheet.row++;
  const { line } = stage;
  if (!line) return;
  const own = (symbol: string, label: string, value: number, formula: string | null, unit = "1") =>
    absolute(
      onceLine(
        into,
        { symbol, label },
        { readings: [], formula: formula === null ? null : () => formula, value, unit },
      ),
    );
  const deducted =
    stage.deducted === null ? null : own("A_0", "Blank, deducted from each reading", stage.deducted, null);
  const ranges = pointRows(into, stage, line, amounts, deducted);
  const formulas = lineFormulas(line, ranges);
  const [a, b, c] = line.fit.coefficients;
  sheet.line("head", ["Letter", "Line", "Value", "Unit"]);
  const slope = own("b", "Slope, per unit of the axis", b, formulas?.[0] ?? null);
  const intercept = own("a", "Intercept", a, formulas?.[1] ?? null);
  const curvature =
    line.fit.model === "quadratic" ? own("c", "Curvature, per unit of the axis squared", c, null) : null;
  into.lines.set(stage.key, { intercept, slope, curvature, deducted });
  const { definition } = compiled as CompiledCalibration;
  const factor = unitOf(definition.axis.unit).factor;
  into.once.set(definition.line.intercept, { address: intercept, unit: "1" });
  // Relations take the slope per base unit.
  const perBase =
    factor === 1
      ? slope
      : own("", "Slope per base unit", b / factor, `${slope}/${Number(factor.toPrecision(15))}`);
  into.once.set(definition.line.slope, { address: perBase, unit: "1" });
  const { cut } = definition.line;
  if (cut !== undefined && stage.symbols.has(cut) && curvature === null)
    into.once.set(cut, {
      address: own(
        cut,
        "Where the line meets the axis",
        a / b,
        `${intercept}/${slope}`,
        definition.axis.unit,
      ),
      unit: definition.axis.unit,
    });
  sheet.row++;
  fittedLines(into, stage.symbols);
  onceResults(into, relationLines(into, compiled.lines, stage.symbols));
}
