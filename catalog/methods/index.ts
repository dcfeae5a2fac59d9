import type { Method } from "~/core/run";
import { acidByBase } from "./acid-by-base";
import { acidByCarbonateThenBase } from "./acid-by-carbonate-then-base";
import { acidByHydrogenCarbonate } from "./acid-by-hydrogen-carbonate";
import { alkalinityOfWater } from "./alkalinity-of-water";
import { baseByAcid } from "./base-by-acid";
import { baseByPhthalateSolution } from "./base-by-phthalate-solution";
import { baseByPhthalateThenAcid } from "./base-by-phthalate-then-acid";
import { diluteAndCheckAcid } from "./dilute-and-check";
import { diproticSolidAcid } from "./diprotic-solid-acid";
import { weakAcidInFood } from "./weak-acid-in-food";

/** The method library that ships with the product. */
export const methods: readonly Method[] = [
  baseByPhthalateThenAcid,
  baseByPhthalateSolution,
  acidByBase,
  baseByAcid,
  acidByCarbonateThenBase,
  acidByHydrogenCarbonate,
  weakAcidInFood,
  diproticSolidAcid,
  diluteAndCheckAcid,
  alkalinityOfWater,
];
