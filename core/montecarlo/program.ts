import { Bug } from "../result";
import { molarMass } from "../chemistry";
import { exact, type Leaf, type Quantity } from "../quantity";
import {
  applyFunction,
  type BinaryOperator,
  type Expression,
  fold,
  type FunctionName,
  type Stoichiometry,
} from "../relation";

/** The number of a step whose value another step uses. */
export type Register = number;

export type Step =
  | { readonly op: "constant"; readonly value: number }
  /** A value with its first-order departures: exact for what is read, since a reading is linear in its causes. */
  | {
      readonly op: "measured";
      readonly value: number;
      readonly terms: readonly { readonly leaf: number; readonly by: number }[];
    }
  | { readonly op: "negate"; readonly a: Register }
  | { readonly op: "call"; readonly name: FunctionName; readonly args: readonly Register[] }
  | { readonly op: BinaryOperator; readonly a: Register; readonly b: Register };

/** Relations compiled to steps over blocks of draws: the leaves to draw, the steps in order, and the one that is asked for. */
export interface Program {
  readonly leaves: readonly Leaf[];
  readonly steps: readonly Step[];
  readonly result: Register;
}

/** Builds a program step by step. What two quantities share is one leaf, drawn once. */
export class ProgramBuilder {
  private readonly leaves: Leaf[] = [];
  private readonly leafAt = new Map<string, number>();
  private readonly steps: Step[] = [];

  private put(step: Step): Register {
    this.steps.push(step);
    return this.steps.length - 1;
  }

  private leaf(leaf: Leaf): number {
    const known = this.leafAt.get(leaf.id);
    if (known !== undefined) return known;
    this.leaves.push(leaf);
    this.leafAt.set(leaf.id, this.leaves.length - 1);
    return this.leaves.length - 1;
  }

  constant(value: number): Register {
    return this.put({ op: "constant", value });
  }

  /** A quantity in base units, with those of its leaves that `only` lets through. */
  quantity(q: Quantity, only: (leaf: Leaf) => boolean = () => true): Register {
    const terms = [...q.sensitivities.values()]
      .filter(({ leaf, by }) => only(leaf) && by !== 0)
      .map(({ leaf, by }) => ({ leaf: this.leaf(leaf), by }));
    return terms.length === 0 ? this.constant(q.value) : this.put({ op: "measured", value: q.value, terms });
  }

  binary(op: BinaryOperator, a: Register, b: Register): Register {
    return this.put({ op, a, b });
  }

  call(name: FunctionName, args: readonly Register[]): Register {
    return this.put({ op: "call", name, args });
  }

  /** Fourth reader of the relation tree: each node becomes a step. Throws on a symbol that has no register. */
  expression(
    expression: Expression,
    symbols: ReadonlyMap<string, Register>,
    stoichiometry: Stoichiometry,
  ): Register {
    return fold<Register>(expression, {
      leaf: (leaf) => {
        switch (leaf.type) {
          case "number":
            return this.constant(exact(leaf.value, leaf.unit ?? "1").value);
          case "symbol": {
            const register = symbols.get(leaf.name);
            if (register === undefined) throw new Bug(`Symbol ${leaf.name} has no value`);
            return register;
          }
          case "molar-mass":
            return this.quantity(molarMass(leaf.formula));
          case "ratio": {
            const [of, per] = stoichiometry.ratio(leaf.of, leaf.per);
            return this.constant(of / per);
          }
          case "equivalents":
            return this.constant(stoichiometry.equivalents(leaf.of));
        }
      },
      negate: (a) => this.put({ op: "negate", a }),
      call: (name, args) => this.call(name, args),
      binary: (operator, a, b) => this.binary(operator, a, b),
    });
  }

  build(result: Register): Program {
    return { leaves: this.leaves, steps: this.steps, result };
  }
}

type Block = Float64Array;

/*
 * The loops over a block, one small function each: the engine compiles each on its own after a few blocks, and nothing is
 * chosen inside a loop.
 */
function addScaled(out: Block, draws: Block, by: number): void {
  for (let i = 0; i < out.length; i++) out[i] = (out[i] as number) + by * (draws[i] as number);
}
function setScaled(out: Block, value: number, draws: Block, by: number): void {
  for (let i = 0; i < out.length; i++) out[i] = value + by * (draws[i] as number);
}
function addBlocks(out: Block, a: Block, b: Block): void {
  for (let i = 0; i < out.length; i++) out[i] = (a[i] as number) + (b[i] as number);
}
function subtractBlocks(out: Block, a: Block, b: Block): void {
  for (let i = 0; i < out.length; i++) out[i] = (a[i] as number) - (b[i] as number);
}
function multiplyBlocks(out: Block, a: Block, b: Block): void {
  for (let i = 0; i < out.length; i++) out[i] = (a[i] as number) * (b[i] as number);
}
function divideBlocks(out: Block, a: Block, b: Block): void {
  for (let i = 0; i < out.length; i++) out[i] = (a[i] as number) / (b[i] as number);
}
function raiseBlocks(out: Block, a: Block, b: Block): void {
  for (let i = 0; i < out.length; i++) out[i] = (a[i] as number) ** (b[i] as number);
}

const operators: Record<BinaryOperator, (out: Block, a: Block, b: Block) => void> = {
  "+": addBlocks,
  "-": subtractBlocks,
  "*": multiplyBlocks,
  "/": divideBlocks,
  "^": raiseBlocks,
};

/** Carries out one step for a whole block of draws; `drawn` are the leaves' draws, `at` the registers so far. */
export function runStep(step: Step, out: Block, drawn: readonly Block[], at: readonly Block[]): void {
  switch (step.op) {
    case "constant":
      out.fill(step.value);
      return;
    case "measured":
      step.terms.forEach(({ leaf, by }, i) => {
        if (i === 0) setScaled(out, step.value, drawn[leaf] as Block, by);
        else addScaled(out, drawn[leaf] as Block, by);
      });
      return;
    case "negate":
      setScaled(out, 0, at[step.a] as Block, -1);
      return;
    case "call": {
      const args = step.args.map((register) => at[register] as Block);
      const values = new Array<number>(args.length);
      for (let i = 0; i < out.length; i++) {
        for (let j = 0; j < args.length; j++) values[j] = args[j]?.[i] ?? NaN;
        out[i] = applyFunction(step.name, values);
      }
      return;
    }
    default:
      operators[step.op](out, at[step.a] as Block, at[step.b] as Block);
  }
}
