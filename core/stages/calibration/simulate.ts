import { flask, readCuvette } from "../bench/photometer";
import { success, type Result } from "../../result";
import { follow, type TrueLine, type Bench } from "../bench/bench";
import type { Input } from "../../inputs";
import type { StageRecord } from "../../record";
import type { CompiledCalibration } from "./compile";
import type { CalibrationStage } from "../../method";

/** The line that a method's strongest standard tells; a standard addition starts from a third of it. */
export function trueLine({ strongest, line }: CalibrationStage, top: number): TrueLine {
  const intercept = line.cut === undefined ? 0 : strongest / 3;
  return { intercept, slope: (strongest - intercept) / top, top };
}

/** About what a flask of the series reads, by the amount that is typed for it; of none, what nothing added reads. */
export function usualAbsorbance(definition: CalibrationStage, typed: string | null): number {
  const strongest = Number(definition.series.values.at(-1));
  const line = trueLine(definition, strongest > 0 ? strongest : 1);
  return line.intercept + line.slope * Number(typed ?? 0);
}

/** The standards and the blank, read by the true line; what the stage's result truly is, base units. */
export function performCalibration(
  stage: CompiledCalibration,
  record: StageRecord,
  shared: ReadonlyMap<string, number>,
  bench: Bench,
): Result<number> {
  const { definition, axis } = stage;
  const { series, line, key } = definition;
  const symbolOf = (is: Input["is"]) => definition.inputs.find((i) => i.is === is)?.symbol ?? "";
  const flasks = series.values.map((value, i) =>
    flask(stage, i + 1, { [series.symbol]: Number(value) }, bench),
  );
  const amounts = flasks.map(
    ({ truths }) =>
      follow({ lines: axis }, new Map([...shared, ...truths]), bench).get(definition.axis.symbol) ?? NaN,
  );
  const known = trueLine(definition, Math.max(...amounts));
  bench.lines.set(key, known);
  const blank = symbolOf("blank");
  if (blank !== "") record.observations.push(...readCuvette(blank, key, 0, bench));
  const symbol = symbolOf("absorbance");
  flasks.forEach(({ trial }, i) => {
    const read = readCuvette(symbol, trial.id, known.intercept + known.slope * (amounts[i] ?? NaN), bench);
    record.trials.push({ ...trial, observations: [...trial.observations, ...read] });
  });
  const fitted = new Map([...shared, [line.intercept, known.intercept], [line.slope, known.slope]]);
  if (line.cut !== undefined) fitted.set(line.cut, known.intercept / known.slope);
  const all = follow(stage, fitted, bench);
  bench.earlier.set(key, all);
  return success(all.get(definition.result.symbol) ?? NaN);
}
