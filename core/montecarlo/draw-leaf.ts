import type { Leaf } from "../quantity";
import type { RandomStream } from "./random";

/** One draw of a cause, as its departure from zero in the leaf's own unit. */
export function drawLeaf({ shape, u, degreesOfFreedom }: Leaf, random: RandomStream): number {
  switch (shape) {
    case "normal":
      return u * random.normal();
    case "rectangular":
      return u * Math.sqrt(3) * (2 * random.uniform() - 1);
    case "triangular":
      return u * Math.sqrt(6) * (random.uniform() - random.uniform());
    case "t":
      return u * drawT(degreesOfFreedom, random);
  }
}

/** Student's t: a normal draw over the root of a mean square of as many others (JCGM 101, 6.4.9.5). */
function drawT(degreesOfFreedom: number, random: RandomStream): number {
  if (!Number.isFinite(degreesOfFreedom) || degreesOfFreedom > 200) return random.normal();
  let squares = 0;
  for (let i = 0; i < degreesOfFreedom; i++) squares += random.normal() ** 2;
  return random.normal() / Math.sqrt(squares / degreesOfFreedom);
}

function scaleBlock(out: Float64Array, factor: number): void {
  for (let i = 0; i < out.length; i++) out[i] = (out[i] as number) * factor;
}

function differenceOfBlocks(out: Float64Array, other: Float64Array, factor: number): void {
  for (let i = 0; i < out.length; i++) out[i] = ((out[i] as number) - (other[i] as number)) * factor;
}

/** Many draws of a cause at once, into `out`. `spare` is of the same length, for shapes that need two draws. */
export function fillLeaf(leaf: Leaf, random: RandomStream, out: Float64Array, spare: Float64Array): void {
  switch (leaf.shape) {
    case "normal":
      random.fillNormal(out);
      scaleBlock(out, leaf.u);
      return;
    case "rectangular":
      random.fillRectangular(out);
      scaleBlock(out, leaf.u * Math.sqrt(3));
      return;
    case "triangular":
      random.fillRectangular(out);
      random.fillRectangular(spare);
      differenceOfBlocks(out, spare, (leaf.u * Math.sqrt(6)) / 2);
      return;
    case "t":
      for (let i = 0; i < out.length; i++) out[i] = drawLeaf(leaf, random);
  }
}
