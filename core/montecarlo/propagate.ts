import { fillLeaf } from "./draw-leaf";
import type { Leaf } from "../quantity";
import { type Program, runStep, type Step } from "./program";
import { randomStream, type RandomStream } from "./random";
import { orderStatistics } from "./select";

export interface DrawOptions {
  readonly draws: number;
  readonly seed: number;
  /** Part of the values that the interval holds; 0.95 where nothing is said. */
  readonly coverage?: number;
}

export interface Drawn {
  readonly draws: number;
  readonly mean: number;
  readonly standardUncertainty: number;
  /** The probabilistically symmetric coverage interval (JCGM 101, 7.7). */
  readonly interval: readonly [number, number];
  /** How many values fell in each of equal steps from somewhat below the interval to somewhat above it. */
  readonly histogram: { readonly from: number; readonly to: number; readonly counts: readonly number[] };
  /** Draws that gave no finite number, as a division by zero does; they are left out. */
  readonly lost: number;
}

/** Draws that are carried through the steps at a time: small enough for the processor's nearest memory. */
const blockSize = 1024;
const bins = 48;

interface Moments {
  readonly mean: number;
  readonly standardUncertainty: number;
  readonly least: number;
  readonly most: number;
}

function momentsOf(values: Float64Array): Moments {
  const n = values.length;
  const first = values[0] ?? NaN;
  let [sum, squares, least, most] = [0, 0, first, first];
  for (let i = 0; i < n; i++) {
    const value = values[i] as number;
    // Departures from the first value keep the digits that matter.
    const departure = value - first;
    sum += departure;
    squares += departure * departure;
    least = value < least ? value : least;
    most = value > most ? value : most;
  }
  const variance = Math.max(0, (squares - (sum * sum) / n) / (n - 1));
  return { mean: first + sum / n, standardUncertainty: Math.sqrt(variance), least, most };
}

/** Counts of values in equal steps between two bounds; what lies beyond them is not counted. */
function countInSteps(values: Float64Array, from: number, to: number): number[] {
  const counts = new Int32Array(bins);
  const scale = bins / (to - from);
  for (let i = 0; i < values.length; i++) {
    const bin = ((values[i] as number) - from) * scale;
    if (bin >= 0 && bin < bins) counts[bin | 0]!++;
  }
  return [...counts];
}

/** Copies the finite values of a block behind those kept so far, and returns how many there are now. */
function keepFinite(block: Float64Array, length: number, values: Float64Array, kept: number): number {
  let n = kept;
  for (let i = 0; i < length; i++) {
    const value = block[i] as number;
    values[n] = value;
    // Infinity less itself, and NaN, are no zero.
    if (value - value === 0) n++;
  }
  return n;
}

function summarize(values: Float64Array, lost: number, coverage: number): Drawn {
  const n = values.length;
  const { mean, standardUncertainty, least, most } = momentsOf(values);
  // JCGM 101, 7.7.2: q = pM values lie within, as many below as above.
  const within = Math.round(coverage * n);
  const below = Math.floor((n - within) / 2);
  const ends = orderStatistics(values, [below, Math.min(n - 1, below + within)], least, most);
  const interval = [ends[0] ?? NaN, ends[1] ?? NaN] as const;
  // As wide as the interval asks for, whatever the tails do.
  const margin = 0.35 * (interval[1] - interval[0]);
  const [from, to] = [interval[0] - margin, interval[1] + margin];
  const counts = margin > 0 ? countInSteps(values, from, to) : [];
  return { draws: n, mean, standardUncertainty, interval, histogram: { from, to, counts }, lost };
}

/** Draws every leaf and carries out every step for one block. */
function runBlock(
  { leaves, steps }: Program,
  random: RandomStream,
  drawn: readonly Float64Array[],
  registers: readonly Float64Array[],
  spare: Float64Array,
): void {
  for (let i = 0; i < leaves.length; i++) {
    fillLeaf(leaves[i] as Leaf, random, drawn[i] as Float64Array, spare);
  }
  for (let i = 0; i < steps.length; i++) {
    const step = steps[i] as Step;
    if (step.op !== "constant") runStep(step, registers[i] as Float64Array, drawn, registers);
  }
}

/**
 * Propagation of distributions by Monte Carlo (JCGM 101): draws every leaf from its distribution, carries the draws through
 * the program and returns mean, standard uncertainty and coverage interval in base units. A generator: it yields the part
 * that is done, 0 to 1, every so often, so that whoever runs it can show progress and stop.
 */
export function* propagate(program: Program, options: DrawOptions): Generator<number, Drawn, void> {
  const { draws, seed, coverage = 0.95 } = options;
  const random = randomStream(seed);
  const block = () => new Float64Array(blockSize);
  const drawn = program.leaves.map(block);
  const registers = program.steps.map(block);
  const spare = block();
  const values = new Float64Array(draws);
  const result = registers[program.result];
  // Constants are filled in once.
  program.steps.forEach((step, i) => {
    const out = registers[i];
    if (step.op === "constant" && out) runStep(step, out, drawn, registers);
  });
  let [filled, lost] = [0, 0];
  for (let started = 0, blocks = 0; started < draws; started += blockSize, blocks++) {
    runBlock(program, random, drawn, registers, spare);
    const here = Math.min(blockSize, draws - started);
    const kept = result ? keepFinite(result, here, values, filled) : filled;
    lost += here - (kept - filled);
    filled = kept;
    if (blocks % 32 === 31) yield Math.min(1, (started + here) / draws);
  }
  return summarize(values.subarray(0, filled), lost, coverage);
}

/** All draws at once, for where nobody waits. */
export function propagateAll(program: Program, options: DrawOptions): Drawn {
  const running = propagate(program, options);
  for (;;) {
    const step = running.next();
    if (step.done) return step.value;
  }
}
