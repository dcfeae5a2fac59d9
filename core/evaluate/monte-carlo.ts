import { methodOf } from "../run";
import { takenOver } from "../inputs";
import { plusMinus } from "../judgement";
import { type Comparison, compareWithDraws, type Drawn, type Program, ProgramBuilder } from "../montecarlo";
import { type Leaf, type Quantity, standardUncertainty, unitOf } from "../quantity";
import { failure, type Result, success } from "../result";
import { resultsOf } from "../method";
import {
  type CompiledMethod,
  compiledMethod,
  compiledStage,
  type CompiledStage,
  type ComputedEvaluation,
  isOnce,
  membersOf,
  resultQuantity,
  type RunEvaluation,
  type TrialEvaluation,
  fittedSymbols,
} from "../stages";
import { evaluateRun } from "./evaluate";
import type { RunRecord } from "../run";
import { countWord, msg, type Phrase } from "../text";

type Registers = ReadonlyMap<string, number>;

/** What scatters from trial to trial is counted once, in the leaf of the trials' agreement. */
const shared = ({ random }: Leaf) => !random;

/**
 * How the trials' agreement is drawn: by Student's t with its few degrees of freedom (JCGM 101, 6.4.9), which is wider than
 * its u; or normal with just that u, as the linear propagation takes it.
 */
export type ScatterAs = "t" | "normal";

interface Building {
  readonly scatter: ScatterAs;
  readonly builder: ProgramBuilder;
  readonly method: CompiledMethod;
  /** Registers of earlier stages' results, by stage and symbol. */
  readonly results: Map<string, Registers>;
}

/** Steps for the relations of one trial, or of what is made once: inputs drawn, results of earlier stages taken over. */
function relationSteps(
  { definition, lines }: CompiledStage,
  symbols: TrialEvaluation["symbols"],
  { builder, method, results }: Building,
): Registers {
  const registers = new Map<string, number>();
  for (const input of definition.inputs) {
    const taken = takenOver(input);
    if (taken && taken.readBy === undefined) {
      const stage = method.method.stages.find((s) => s.key === taken.stage);
      const main = stage?.result.symbol ?? "";
      const register = results.get(taken.stage)?.get(taken.result ?? main);
      if (register !== undefined) registers.set(input.symbol, register);
      continue;
    }
    // What a photometer gave stands for all its readings.
    const quantity = symbols.get(input.symbol);
    if (quantity) registers.set(input.symbol, builder.quantity(quantity, shared));
  }
  for (const { symbol } of fittedSymbols(definition)) {
    const quantity = symbols.get(symbol);
    if (quantity) registers.set(symbol, builder.quantity(quantity, shared));
  }
  for (const { symbol, expression } of lines) {
    registers.set(symbol, builder.expression(expression, registers, method.stoichiometry));
  }
  return registers;
}

/** The mean of the trials that agree, with a draw of their agreement on top. */
function stageSteps(stage: ComputedEvaluation, compiled: CompiledStage, building: Building): Registers {
  if (isOnce(stage)) return relationSteps(compiled, stage.symbols, building);
  const { builder } = building;
  const members = membersOf(stage).map((t) => relationSteps(compiled, t.symbols, building));
  const registers = new Map<string, number>();
  for (const { symbol } of resultsOf(stage.definition)) {
    const values = members.flatMap((m) => m.get(symbol) ?? []);
    if (values.length === 0) continue;
    const mean = builder.call("mean", values);
    const quantity =
      symbol === stage.definition.result.symbol
        ? resultQuantity(stage)
        : (stage.also.find((a) => a.definition.symbol === symbol)?.quantity ?? null);
    const agreement = [...(quantity?.sensitivities.values() ?? [])].filter(
      ({ leaf }) => leaf.kind === "repeatability" && leaf.stage === stage.key,
    );
    const departure = builder.quantity({
      value: 0,
      dimension: quantity?.dimension ?? [0, 0, 0, 0, 0],
      sensitivities: new Map(
        agreement.map(({ leaf, by }) => [
          leaf.id,
          { by, leaf: building.scatter === "t" ? leaf : { ...leaf, shape: "normal" as const } },
        ]),
      ),
    });
    registers.set(symbol, builder.binary("+", mean, departure));
  }
  return registers;
}

/**
 * A stage's result as a program for Monte Carlo draws: the same relations, from the readings of every trial that counts, through
 * all earlier stages. Says so where the stage has no result yet.
 */
export function programOf(
  record: RunRecord,
  stageKey: string,
  scatter: ScatterAs = "t",
  evaluation: RunEvaluation = evaluateRun(record),
): Result<Program> {
  const method = compiledMethod(methodOf(record));
  const building: Building = { builder: new ProgramBuilder(), scatter, method, results: new Map() };
  for (const stage of evaluation.stages) {
    const compiled = compiledStage(method, stage.key);
    if (!compiled) continue;
    if (!resultQuantity(stage)) {
      if (stage.key === stageKey) return failure(msg`${stage.definition.title} has no result yet`);
      continue;
    }
    const registers = stageSteps(stage, compiled, building);
    building.results.set(stage.key, registers);
    const register = registers.get(stage.definition.result.symbol);
    if (stage.key === stageKey && register !== undefined) return success(building.builder.build(register));
  }
  return failure(msg`No stage of this run has that key`);
}

/** Draws of a stage's result beside the linear propagation, in the result's unit. */
export interface DrawnResult {
  readonly drawn: Drawn;
  readonly comparison: Comparison;
  readonly linear: { readonly value: number; readonly standardUncertainty: number; readonly half95: number };
  /** False where a t distribution of two degrees of freedom or fewer has no finite spread: quantiles alone tell. */
  readonly spreadIsFinite: boolean;
  /** Whether the two agree, in words. */
  readonly text: Phrase;
}

/** The trials' agreements that were drawn by Student's t and matter: two percent of the variance, or more. */
function fewTrials(quantity: Quantity): Leaf[] {
  const variance = standardUncertainty(quantity) ** 2;
  return [...quantity.sensitivities.values()].flatMap(({ leaf, by }) =>
    leaf.shape === "t" && (by * leaf.u) ** 2 > 0.02 * variance ? [leaf] : [],
  );
}

function comparisonText(comparison: Comparison, wider: boolean, few: readonly Leaf[]): Phrase {
  if (comparison.agree) return msg`The simulation agrees with the ± to the digits it is given with.`;
  const least = few.map((l) => l.degreesOfFreedom).sort((a, b) => a - b)[0];
  if (least !== undefined && wider) {
    return msg`The simulated interval is wider: with only ${countWord(least + 1)} trials their scatter is itself uncertain (Student’s t, JCGM 101). More trials bring the two together.`;
  }
  return wider
    ? msg`The simulated interval is wider than the propagated one: trust the simulated one.`
    : msg`The simulated interval is narrower: one contribution with hard limits dominates the ±, and the propagated interval is on the safe side.`;
}

/** Holds the draws of a stage's result against its linear propagation (JCGM 101, 8.1), in the result's unit. */
export function compareResult(stage: ComputedEvaluation, inBaseUnits: Drawn): DrawnResult | null {
  const quantity = resultQuantity(stage);
  if (!quantity) return null;
  const { factor } = unitOf(stage.definition.result.unit);
  const linear = {
    value: quantity.value / factor,
    standardUncertainty: standardUncertainty(quantity) / factor,
    half95: plusMinus(quantity, "i95") / factor,
  };
  const { histogram, interval } = inBaseUnits;
  const drawn: Drawn = {
    ...inBaseUnits,
    mean: inBaseUnits.mean / factor,
    standardUncertainty: inBaseUnits.standardUncertainty / factor,
    interval: [interval[0] / factor, interval[1] / factor],
    histogram: { ...histogram, from: histogram.from / factor, to: histogram.to / factor },
  };
  const comparison = compareWithDraws(linear, drawn);
  const few = fewTrials(quantity);
  const wider = drawn.interval[1] - drawn.interval[0] > 2 * linear.half95;
  return {
    drawn,
    comparison,
    linear,
    spreadIsFinite: few.every((l) => l.degreesOfFreedom > 2),
    text: comparisonText(comparison, wider, few),
  };
}
