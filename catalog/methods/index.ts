import type { Method } from "~/core/run";
import { baseByPhthalateThenAcid } from "./base-by-phthalate-then-acid";

/** The method library that ships with the product. */
export const methods: readonly Method[] = [baseByPhthalateThenAcid];
