import type { Adaptation } from "./adaptation";
import { dry } from "./dry";
import { undiluted } from "./undiluted";

export type { Adaptation } from "./adaptation";
export { moistureSymbol } from "./dry";
export { dilutionOf } from "./undiluted";

/** All of them, in the order in which they are applied. */
export const adaptations = { undiluted, dry } as const satisfies Record<string, Adaptation>;
export type Adapted = keyof typeof adaptations;
