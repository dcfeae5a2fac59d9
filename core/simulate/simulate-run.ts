import type { Place } from "../measure";
import { randomStream } from "../montecarlo";
import { unitOf } from "../quantity";
import { evaluateNumber, solveForTiter } from "../relation";
import { failure, type Result, success } from "../result";
import {
  type CompiledAssay,
  compiledMethod,
  compiledStage,
  type CompiledStage,
  type CompiledTitration,
  evaluateRun,
  type HouseRules,
  type Input,
  massDecimals,
  type Method,
  type Observation,
  type ObservationKind,
  perOf,
  type RunRecord,
  replicatesNeeded,
  type StageRecord,
  type TrialRecord,
  unitOfInput,
} from "../run";
import { presumedOf, quantityOfInput, type Read } from "../run/input-kinds";
import {
  excesses,
  type Photometer,
  presumedRate,
  quietPhotometer,
  readAbsorbances,
  solveFor,
  trueCourse,
  trueLine,
  type TrueLine,
} from "./simulate-assay";
import { World } from "./world";

/** How a hand and an eye go wrong beyond what the glass and the balance do. Volumes in mL. */
export interface BenchErrors {
  /** Scatter of the end point from trial to trial, one standard deviation. */
  readonly endPointMl: number;
  /** Size of a drop: a trial ends with up to one drop too many. */
  readonly dropMl: number;
  /** Part of the trials in which two digits of the final reading are swapped in writing. */
  readonly blunders: number;
}

export const carefulHands: BenchErrors = { endPointMl: 0.02, dropMl: 0, blunders: 0 };

export interface Truth {
  /** The true result of each titration stage, in its unit, by key. What is made once follows from its readings. */
  readonly results: Readonly<Record<string, number>>;
  /** What is aimed at for a reading, by `stage.symbol`: a mass in g, a volume in mL, a temperature in °C, a stated value. */
  readonly amounts?: Readonly<Record<string, number>>;
  /** How far masses and delivered volumes differ from trial to trial, as a part of what is aimed at; 5 % where not said. */
  readonly spread?: number;
}

export interface SimulateOptions {
  readonly method: Method;
  readonly houseRules: HouseRules;
  readonly truth: Truth;
  readonly errors?: BenchErrors;
  readonly seed: number;
  /** Trials at most in a stage; a stage goes on until its set is closed. */
  readonly mostTrials?: number;
  /** How a true absorbance is shown; a quiet instrument where nothing is said. */
  readonly photometer?: Photometer;
  /** Readings of each cuvette; three where nothing is said. */
  readonly readings?: number;
}

export interface SimulatedRun {
  readonly record: RunRecord;
  /** What each stage's main result truly is, in base units. */
  readonly truths: ReadonlyMap<string, number>;
}

const startedAt = "2026-11-02T08:00:00.000Z";

interface Bench {
  readonly world: World;
  readonly options: SimulateOptions;
  readonly errors: BenchErrors;
  /** True results of the stages that are done, by stage and symbol. */
  readonly earlier: Map<string, ReadonlyMap<string, number>>;
  /** True lines of the calibrations that are done. */
  readonly lines: Map<string, TrueLine>;
  clock: number;
}

const now = (bench: Bench) => new Date(Date.parse(startedAt) + 60_000 * bench.clock++).toISOString();

type Texts = Partial<Record<ObservationKind, string>>;

const between = (bench: Bench, low: number, high: number) =>
  low + (high - low) * bench.world.random.uniform();

function observe(bench: Bench, holder: string, input: Input, texts: Texts): Observation[] {
  return (Object.entries(texts) as [ObservationKind, string][]).map(([kind, text]) => ({
    id: `${holder}/${input.symbol}/${kind}`,
    symbol: input.symbol,
    kind,
    text,
    value: text,
    unit:
      kind === "drops" ? "drops" : kind.startsWith("purity") ? "%" : unitOfInput(input, bench.options.method),
    source: "typed",
    person: "simulated bench",
    at: now(bench),
    supersedes: null,
    reason: null,
  }));
}

/** What is typed for an input other than the titer, when the amount is aimed at; nothing for what is not read. */
function textsFor(input: Input, stageKey: string, bench: Bench): Texts {
  const { truth, houseRules } = bench.options;
  const usual = presumedOf(input)["volume.taken"];
  const aim = truth.amounts?.[`${stageKey}.${input.symbol}`];
  const spread = perOf(input) === "trial" ? (truth.spread ?? 0.05) : 0;
  const varied = (value: number) => value * (1 + spread * between(bench, -1, 1));
  switch (input.is) {
    case "mass": {
      const decimals = massDecimals(houseRules);
      const middle = input.expect ? (input.expect[0] + input.expect[1]) / 2 : 1;
      const mass = varied(aim ?? middle);
      if (input.weighing === "tared") return { "mass.tared": mass.toFixed(decimals) };
      const vessel = between(bench, 8, 12);
      const [light, heavy] = [vessel.toFixed(decimals), (vessel + mass).toFixed(decimals)];
      return input.weighing === "addition"
        ? { "mass.before": light, "mass.after": heavy }
        : { "mass.before": heavy, "mass.after": light };
    }
    case "pipette":
    case "flask":
      return { "volume.taken": aim === undefined ? (usual ?? "25.00") : aim.toFixed(2) };
    case "graduated":
      return { "volume.taken": (aim ?? Number(usual ?? input.capacityMl / 2)).toFixed(1) };
    case "drops":
      return { drops: Math.round(aim ?? 20).toFixed(0) };
    case "delivered": {
      const initial = between(bench, 0, 2).toFixed(houseRules.burette.decimals);
      const volume = varied(aim ?? 20);
      return {
        "burette.initial": initial,
        "burette.final": (Number(initial) + volume).toFixed(houseRules.burette.decimals),
      };
    }
    case "temperature":
      return { temperature: (aim ?? 25).toFixed(1) };
    case "pH":
      return { pH: (aim ?? 4.8).toFixed(2) };
    case "given":
      return aim === undefined ? {} : { given: String(aim) };
    default:
      return {};
  }
}

function reader(texts: Texts): Read {
  return (kind) => {
    const text = texts[kind];
    return text === undefined ? null : Number(text);
  };
}

interface Performed {
  readonly observations: Observation[];
  /** What the symbols truly are, in base units. */
  readonly truths: Map<string, number>;
}

/** Reads all inputs of one holder but the titer, and notes what they truly are. */
function perform(
  { definition }: CompiledStage,
  inputs: readonly Input[],
  holder: string,
  place: Place,
  bench: Bench,
): Performed {
  const { method, houseRules } = bench.options;
  const performed: Performed = { observations: [], truths: new Map() };
  for (const input of inputs) {
    if (input.is === "titer") continue;
    if (input.is === "result") {
      const stage = method.stages.find((s) => s.key === input.stage);
      const main = stage && stage.kind !== "conclude" ? stage.result.symbol : "";
      const there = bench.earlier.get(input.stage)?.get(input.result ?? main);
      if (there !== undefined) performed.truths.set(input.symbol, there);
      continue;
    }
    const texts = textsFor(input, definition.key, bench);
    const quantity = quantityOfInput(input, reader(texts), place, houseRules);
    if (!quantity) continue;
    performed.observations.push(...observe(bench, holder, input, texts));
    performed.truths.set(input.symbol, bench.world.truth(quantity));
  }
  return performed;
}

/** All symbols that follow from the true inputs. */
function follow({ lines }: CompiledStage, truths: Map<string, number>, bench: Bench): Map<string, number> {
  const numbers = new Map(truths);
  const { stoichiometry } = compiledMethod(bench.options.method);
  const scope = { numbers, stoichiometry, molarMassOf: bench.world.molarMassOf };
  for (const { symbol, expression } of lines) numbers.set(symbol, evaluateNumber(expression, scope));
  return numbers;
}

/** Two neighboring digits the other way round, as a hand writes what it did not hear well. */
function blundered(text: string, bench: Bench): string {
  const digits = [...text.matchAll(/\d(?=\.?\d)/g)].map((match) => match.index);
  const at = digits[Math.floor(between(bench, 0, digits.length))] ?? 0;
  const next = text.charAt(at + 1) === "." ? at + 2 : at + 1;
  const turned = [...text];
  [turned[at], turned[next]] = [text.charAt(next), text.charAt(at)];
  return turned.join("");
}

/** The readings of the burette for a titer that is truly `trueMl`, with the errors of glass, eye and hand. */
function titrate(
  input: Extract<Input, { is: "titer" }>,
  trueMl: number,
  place: Place,
  bench: Bench,
): Result<Texts> {
  const { houseRules } = bench.options;
  const { decimals, capacityMl } = houseRules.burette;
  const { errors, world } = bench;
  const hand = errors.endPointMl * world.random.normal() + errors.dropMl * world.random.uniform();
  const delivered = trueMl + hand;
  const room = capacityMl - delivered - 0.5;
  if (room < 0) return failure(`The burette of ${capacityMl} mL does not hold ${delivered.toFixed(1)} mL`);
  const initial = between(bench, 0, Math.min(2, room)).toFixed(decimals);
  // What the scale shows for this volume: the truth less the departures that belong to a reading of about this size.
  const near: Texts = {
    "burette.initial": initial,
    "burette.final": (Number(initial) + delivered).toFixed(decimals + 4),
  };
  const stated = quantityOfInput(input, reader(near), place, houseRules);
  if (!stated) return failure("A titer must be more than zero");
  const departure = (world.truth(stated) - stated.value) / unitOf("mL").factor;
  const final = (Number(initial) + delivered - departure).toFixed(decimals);
  const slips = errors.blunders > 0 && world.random.uniform() < errors.blunders;
  const written = slips ? blundered(final, bench) : final;
  const readable = Number(written) > Number(initial) && Number(written) <= capacityMl;
  return success({ "burette.initial": initial, "burette.final": readable ? written : final });
}

interface MadeTrial {
  readonly trial: TrialRecord;
  /** All symbols of the trial as they truly are. */
  readonly truths: ReadonlyMap<string, number>;
}

function makeTrial(
  stage: CompiledTitration,
  shared: ReadonlyMap<string, number>,
  number: number,
  bench: Bench,
): Result<MadeTrial> {
  const { definition, lines, titer } = stage;
  const { truth, method } = bench.options;
  const id = `${definition.key}-trial-${number}`;
  const place = { stage: definition.key, trial: id };
  const inputs = definition.inputs.filter((input) => perOf(input) === "trial");
  const { observations, truths } = perform(stage, inputs, id, place, bench);
  const target = truth.results[definition.key];
  if (target === undefined) return failure(`No true result is given for ${definition.title}`);
  const solved = solveForTiter({
    relations: lines,
    stoichiometry: compiledMethod(method).stoichiometry,
    known: new Map([...shared, ...truths]),
    titer,
    target: definition.result.symbol,
    value: target * unitOf(definition.result.unit).factor,
    molarMassOf: bench.world.molarMassOf,
  });
  if (!solved.ok) return solved;
  const input = definition.inputs.find((i) => i.is === "titer");
  if (!input) return failure("This stage has no titer");
  const read = titrate(input, solved.value, place, bench);
  if (!read.ok) return read;
  const known = new Map([...shared, ...truths, [titer, solved.value * unitOf("mL").factor]]);
  const trial: TrialRecord = {
    id,
    number,
    label: null,
    kind: "fine",
    struck: null,
    observations: [...observations, ...observe(bench, id, input, read.value)],
  };
  return success({ trial, truths: follow(stage, known, bench) });
}

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
function performAssay(
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
    const k = solveFor((x) => followed([[definition.rate.symbol, x]], truths).get(result) ?? NaN, target, 10);
    record.trials.push(trial);
    record.traces = [...(record.traces ?? []), trueCourse(trial.id, k, photometer, random, now(bench))];
  });
  return target;
}

/**
 * A whole run of any method as a bench with a known truth would make it: glass, balance, solids and atomic weights are off
 * by draws from the very causes that the evaluation states, readings are rounded as they are read, and each stage goes on
 * until its set is closed. The same seed gives the same run. Says so when a titer cannot be had, as beyond the burette.
 */
export function simulateRun(options: SimulateOptions): Result<SimulatedRun> {
  const { method, houseRules, truth, errors = carefulHands, seed, mostTrials = 8 } = options;
  const compiled = compiledMethod(method);
  const bench: Bench = {
    world: new World(randomStream(seed)),
    options,
    errors,
    earlier: new Map(),
    lines: new Map(),
    clock: 0,
  };
  const truths = new Map<string, number>();
  const stages: StageRecord[] = [];
  const record = (): RunRecord => ({
    format: "steady-bead/run",
    formatVersion: 1,
    id: `simulated-${method.id}-${seed}`,
    title: `Simulated: ${method.title}`,
    sample: "made up",
    bench: "simulated bench",
    status: "open",
    startedAt,
    finishedAt: null,
    method,
    houseRules,
    stages,
  });
  for (const definition of method.stages) {
    const { key } = definition;
    const stageRecord: StageRecord = { id: key, key, observations: [], trials: [] };
    stages.push(stageRecord);
    const stage = compiledStage(compiled, key);
    if (!stage || definition.kind === "conclude") continue;
    const once = definition.inputs.filter((input) => perOf(input) === "run");
    const place = { stage: key, trial: key, once: true };
    const shared = perform(stage, once, key, place, bench);
    stageRecord.observations.push(...shared.observations);
    const assay = compiled.assays.get(key);
    if (assay) {
      truths.set(key, performAssay(assay, stageRecord, shared.truths, bench));
      continue;
    }
    if (!("titer" in stage)) {
      const made = follow(stage, shared.truths, bench);
      bench.earlier.set(key, made);
      truths.set(key, made.get(definition.result.symbol) ?? NaN);
      continue;
    }
    const least = replicatesNeeded(houseRules.agreement);
    for (let number = 1; number <= mostTrials; number++) {
      const made = makeTrial(stage as CompiledTitration, shared.truths, number, bench);
      if (!made.ok) return failure(`${definition.title}: ${made.problem.message}`);
      stageRecord.trials.push(made.value.trial);
      bench.earlier.set(key, made.value.truths);
      if (number < least) continue;
      const found = evaluateRun(record()).stages.find((s) => s.key === key);
      if (found?.kind === "titration" && found.done) break;
    }
    truths.set(key, (truth.results[key] ?? NaN) * unitOf(definition.result.unit).factor);
  }
  return success({ record: record(), truths });
}
