import type { RandomStream } from "../../montecarlo";
import type { MeasuredAt } from "../../measure";
import { evaluateNumber } from "../../relation";
import { type HouseRules } from "../../rules";
import { type Method, perOf, unitOfInput } from "../../method";
import { type CompiledStage, type CompiledMethod } from "../compiled";
import {
  type Input,
  quantityOfInput,
  type Read,
  type Texts,
  typedIn,
  textsOf,
  takenOver,
} from "../../inputs";
import type { Observation, ObservationKind } from "../../record";
import type { RunRecord } from "../../run";

import type { World } from "./world";

/** Shows a true absorbance as an instrument would: with its noise, to the digits that it has. */
export type Photometer = (absorbance: number, random: RandomStream) => number;

/** What the color of a calibration truly follows: A = intercept + slope x, x in base units. */
export interface TrueLine {
  readonly intercept: number;
  readonly slope: number;
  /** The amount of the strongest standard, base units. */
  readonly top: number;
}

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

/** A simulated bench while a run is made on it: kinds of stages are performed here. */
export interface Bench {
  readonly compiled: CompiledMethod;
  readonly world: World;
  readonly options: SimulateOptions;
  readonly errors: BenchErrors;
  /** True results of the stages that are done, by stage and symbol. */
  readonly earlier: Map<string, ReadonlyMap<string, number>>;
  /** True lines of the calibrations that are done. */
  readonly lines: Map<string, TrueLine>;
  /** Whether the set of a stage is closed by what was read so far. */
  readonly closed: (stageKey: string) => boolean;
  clock: number;
}

export const now = (bench: Bench) => new Date(Date.parse(startedAt) + 60_000 * bench.clock++).toISOString();

export const between = (bench: Bench, low: number, high: number) =>
  low + (high - low) * bench.world.random.uniform();

export function observe(bench: Bench, holder: string, input: Input, texts: Texts): Observation[] {
  return (Object.entries(texts) as [ObservationKind, string][]).map(([kind, text]) => ({
    id: `${holder}/${input.symbol}/${kind}`,
    symbol: input.symbol,
    kind,
    text,
    value: text,
    unit: typedIn(input)?.unit ?? unitOfInput(input, bench.options.method),
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
  const spread = perOf(input) === "trial" ? (truth.spread ?? 0.05) : 0;
  return textsOf(input, {
    rules: houseRules,
    aim: truth.amounts?.[`${stageKey}.${input.symbol}`],
    between: (low, high) => between(bench, low, high),
    varied: (value) => value * (1 + spread * between(bench, -1, 1)),
  });
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
  { definition }: Pick<CompiledStage, "definition">,
  inputs: readonly Input[],
  holder: string,
  place: MeasuredAt,
  bench: Bench,
): Performed {
  const { method, houseRules } = bench.options;
  const performed: Performed = { observations: [], truths: new Map() };
  for (const input of inputs) {
    if (input.is === "titer") continue;
    const taken = takenOver(input);
    if (taken && taken.readBy === undefined) {
      const stage = method.stages.find((s) => s.key === taken.stage);
      const main = stage?.result.symbol ?? "";
      const there = bench.earlier.get(taken.stage)?.get(taken.result ?? main);
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
  { lines }: Pick<CompiledStage, "lines">,
  truths: Map<string, number>,
  bench: Bench,
): Map<string, number> {
  const numbers = new Map(truths);
  const { stoichiometry } = bench.compiled;
  const scope = { numbers, stoichiometry, molarMassOf: bench.world.molarMassOf };
  for (const { symbol, expression } of lines) numbers.set(symbol, evaluateNumber(expression, scope));
  return numbers;
}
