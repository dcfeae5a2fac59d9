import type { Place } from "../measure";
import { evaluateNumber } from "../relation";
import { buretteText, type HouseRules, massDecimals } from "../rules";
import { compiledMethod, type CompiledStage, type Method, perOf, unitOfInput } from "../method";
import { type Input, presumedOf, quantityOfInput, type Read } from "../inputs";
import type { Observation, ObservationKind } from "../record";
import type { RunRecord } from "../run";

import type { Photometer, TrueLine } from "./photometer";
import type { World } from "./world";

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

export const startedAt = "2026-11-02T08:00:00.000Z";

export interface Bench {
  readonly world: World;
  readonly options: SimulateOptions;
  readonly errors: BenchErrors;
  /** True results of the stages that are done, by stage and symbol. */
  readonly earlier: Map<string, ReadonlyMap<string, number>>;
  /** True lines of the calibrations that are done. */
  readonly lines: Map<string, TrueLine>;
  clock: number;
}

export const now = (bench: Bench) => new Date(Date.parse(startedAt) + 60_000 * bench.clock++).toISOString();

export type Texts = Partial<Record<ObservationKind, string>>;

export const between = (bench: Bench, low: number, high: number) =>
  low + (high - low) * bench.world.random.uniform();

export function observe(bench: Bench, holder: string, input: Input, texts: Texts): Observation[] {
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
export function textsFor(input: Input, stageKey: string, bench: Bench): Texts {
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
      const initial = buretteText(between(bench, 0, 2), houseRules);
      const volume = varied(aim ?? 20);
      return {
        "burette.initial": initial,
        "burette.final": buretteText(Number(initial) + volume, houseRules),
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

export function reader(texts: Texts): Read {
  return (kind) => {
    const text = texts[kind];
    return text === undefined ? null : Number(text);
  };
}

export interface Performed {
  readonly observations: Observation[];
  /** What the symbols truly are, in base units. */
  readonly truths: Map<string, number>;
}

/** Reads all inputs of one holder but the titer, and notes what they truly are. */
export function perform(
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
      const main = stage?.result.symbol ?? "";
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
export function follow(
  { lines }: CompiledStage,
  truths: Map<string, number>,
  bench: Bench,
): Map<string, number> {
  const numbers = new Map(truths);
  const { stoichiometry } = compiledMethod(bench.options.method);
  const scope = { numbers, stoichiometry, molarMassOf: bench.world.molarMassOf };
  for (const { symbol, expression } of lines) numbers.set(symbol, evaluateNumber(expression, scope));
  return numbers;
}
