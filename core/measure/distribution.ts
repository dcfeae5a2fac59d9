import type { LeafShape } from "../quantity";

/** How a quantity may lie within its limits: the choice that turns a tolerance into a standard uncertainty. */
export type Shape = "rectangular" | "triangular" | "normal95";

const divisor: Record<Shape, number> = {
  rectangular: Math.sqrt(3),
  triangular: Math.sqrt(6),
  normal95: 1.96,
};

/** Standard uncertainty of a quantity known to lie within ± halfWidth (GUM 4.3.7 and 4.3.9; 95 % limits: 4.3.4). */
export function uncertaintyFromHalfWidth(halfWidth: number, shape: Shape): number {
  return halfWidth / divisor[shape];
}

/** The distribution to draw from: 95 % limits stand for a normal one. */
export const leafShape = (shape: Shape): LeafShape => (shape === "normal95" ? "normal" : shape);
