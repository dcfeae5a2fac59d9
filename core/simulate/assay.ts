import { type CompiledAssay, perOf } from "../method";
import type { Input } from "../inputs";
import type { StageRecord, TrialRecord } from "../record";
import { type Bench, follow, now, perform } from "./bench";
import {
  excesses,
  fastest,
  presumedRate,
  quietPhotometer,
  readAbsorbances,
  solveFor,
  trueCourse,
  trueLine,
} from "./photometer";

/** A flask of a photometer's stage: what is taken for it, and what its amount truly is. */
function flask(
  { definition }: CompiledAssay,
  number: number,
  amounts: Readonly<Record<string, number>>,
  bench: Bench,
): { trial: TrialRecord; truths: Map<string, number> } {
  const id = `${definition.key}-trial-${number}`;
  const place = { stage: definition.key, trial: id };
  const own = definition.inputs.filter((input) => perOf(input) === "trial");
  const aimed = Object.fromEntries(
    Object.entries(amounts).map(([symbol, amount]) => [`${definition.key}.${symbol}`, amount]),
  );
  const { truth } = bench.options;
  const aiming: Bench = {
    ...bench,
    options: { ...bench.options, truth: { ...truth, spread: 0, amounts: { ...truth.amounts, ...aimed } } },
  };
  const { observations, truths } = perform({ definition, lines: [] }, own, id, place, aiming);
  bench.clock = aiming.clock;
  return { trial: { id, number, label: null, kind: "fine", struck: null, observations }, truths };
}

/** One stage on the photometer, with the readings of its cuvettes; what its result truly is, in base units. */
export function performAssay(
  stage: CompiledAssay,
  record: StageRecord,
  shared: ReadonlyMap<string, number>,
  bench: Bench,
): number {
  const { definition } = stage;
  const { photometer = quietPhotometer, readings: count = 3 } = bench.options;
  const { random } = bench.world;
  const symbolOf = (is: Input["is"]) => definition.inputs.find((i) => i.is === is)?.symbol ?? "";
  const read = (symbol: string, holder: string, truth: number) =>
    readAbsorbances(
      symbol,
      holder,
      Array.from({ length: count }, () => photometer(truth, random)),
      () => now(bench),
    );
  const keep = (trial: TrialRecord, symbol: string, truth: number) =>
    record.trials.push({
      ...trial,
      observations: [...trial.observations, ...read(symbol, trial.id, truth)],
    });
  const result = definition.result.symbol;
  const followed = (extra: readonly (readonly [string, number])[], own: ReadonlyMap<string, number>) =>
    follow(stage, new Map([...shared, ...own, ...extra]), bench);

  if (definition.kind === "calibration") {
    const { series, axis, line } = definition;
    const flasks = series.values.map((value, i) =>
      flask(stage, i + 1, { [series.symbol]: Number(value) }, bench),
    );
    const amounts = flasks.map(
      ({ truths }) =>
        follow({ definition, lines: stage.axis }, new Map([...shared, ...truths]), bench).get(axis.symbol) ??
        NaN,
    );
    const known = trueLine(definition, Math.max(...amounts));
    bench.lines.set(definition.key, known);
    const blank = symbolOf("blank");
    if (blank !== "") record.observations.push(...read(blank, definition.key, 0));
    flasks.forEach(({ trial }, i) =>
      keep(trial, symbolOf("absorbance"), known.intercept + known.slope * (amounts[i] ?? NaN)),
    );
    const cut = line.cut === undefined ? [] : ([[line.cut, known.intercept / known.slope]] as const);
    const all = followed([[line.intercept, known.intercept], [line.slope, known.slope], ...cut], new Map());
    bench.earlier.set(definition.key, all);
    return all.get(result) ?? NaN;
  }

  if (definition.kind === "unknown") {
    const input = definition.inputs.find((i) => i.is === "read-off");
    const known = bench.lines.get(input?.stage ?? "");
    if (!input || !known) throw new Error("An unknown needs a line");
    let target: number | null = null;
    for (const number of [1, 2]) {
      const { trial, truths } = flask(stage, number, {}, bench);
      const found = (x: number) => followed([[input.symbol, x]], truths).get(result) ?? NaN;
      target ??= found(0.55 * known.top);
      const x = solveFor(found, target, 2 * known.top);
      keep(trial, input.reading, known.intercept + known.slope * x);
      bench.earlier.set(definition.key, followed([[input.symbol, x]], truths));
    }
    return target ?? NaN;
  }

  const target = presumedRate(definition);
  excesses.forEach((excess, i) => {
    const amounts = definition.rate.excess === undefined ? {} : { [definition.rate.excess]: excess };
    const { trial, truths } = flask(stage, i + 1, amounts, bench);
    const k = solveFor(
      (x) => followed([[definition.rate.symbol, x]], truths).get(result) ?? NaN,
      target,
      fastest,
    );
    record.trials.push(trial);
    record.traces = [...(record.traces ?? []), trueCourse(trial.id, k, photometer, random, now(bench))];
  });
  return target;
}
