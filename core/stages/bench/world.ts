import { molarMass } from "../../chemistry";
import { drawLeaf, type RandomStream } from "../../montecarlo";
import type { Leaf, Quantity } from "../../quantity";

/**
 * A bench whose every cause of error has one true value: drawn the first time it is met, kept ever after, so that what two
 * trials share (this pipette's calibration, this solid's purity) is wrong by the same amount in both.
 */
export class World {
  private readonly departures = new Map<string, number>();

  constructor(readonly random: RandomStream) {}

  /** How far a cause truly departs from zero, in the leaf's unit. */
  departure(leaf: Leaf): number {
    const known = this.departures.get(leaf.id);
    if (known !== undefined) return known;
    const fresh = drawLeaf(leaf, this.random);
    this.departures.set(leaf.id, fresh);
    return fresh;
  }

  /** What a quantity truly is, in base units, when its value is what was read. */
  truth({ value, sensitivities }: Quantity): number {
    let truth = value;
    for (const { leaf, by } of sensitivities.values()) truth += by * this.departure(leaf);
    return truth;
  }

  /** The molar mass with this world's true atomic weights, g/mol. */
  readonly molarMassOf = (formula: string): number => this.truth(molarMass(formula));
}
