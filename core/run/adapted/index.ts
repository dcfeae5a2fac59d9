import type { Adaptation } from "./adaptation";
import { dry } from "./dry";
import { leftOut } from "./left-out";
import { undiluted } from "./undiluted";

export type { Adaptation } from "./adaptation";
export { moistureSymbol } from "./dry";
export { dilutionOf } from "./undiluted";

/** All of them, in the order in which they are applied. */
export const adaptations = { undiluted, dry, "left-out": leftOut } as const satisfies Record<
  string,
  Adaptation
>;
export type Adapted = keyof typeof adaptations;
