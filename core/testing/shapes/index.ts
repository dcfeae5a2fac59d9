import type { Truth } from "~/core/stages";
import { baseByPhthalateSolution } from "../../../catalog/methods/acid-base/base-by-phthalate-solution";
import { baseByPhthalateThenAcid } from "../../../catalog/methods/acid-base/base-by-phthalate-then-acid";
import { diluteAndCheckAcid } from "../../../catalog/methods/acid-base/dilute-and-check";
import { byDrops, byTablets, dilutionChain, equivalentMass, reverse } from "./acid-base";
import { backTitration, byCylinder, hardnessByReplacement } from "./complexometric";
import {
  againstALimit,
  blankDifference,
  dissolvedOxygen,
  electronCount,
  kappaNumber,
  sampleToTheMark,
} from "./redox";
import type { Method } from "~/core/method";

/** A method with a truth to simulate it from: one for each shape of titration, the library's own where it has one. */
export interface Shape {
  readonly name: string;
  readonly method: Method;
  readonly truth: Truth;
}

export const shapes: readonly Shape[] = [
  {
    name: "solid-in-each-flask-then-direct",
    method: baseByPhthalateThenAcid,
    truth: { results: { standardize: 0.1023, determine: 0.0871 } },
  },
  { name: "reverse", method: reverse, truth: { results: { determine: 0.1047 } } },
  {
    name: "aliquots-of-a-standard-solution",
    method: baseByPhthalateSolution,
    truth: { results: { standardize: 0.0987 } },
  },
  {
    name: "sample-made-up-to-the-mark",
    method: sampleToTheMark,
    truth: { results: { determine: 1.213 } },
  },
  { name: "dilution-chain", method: dilutionChain, truth: { results: { determine: 0.894 } } },
  {
    name: "dilute-and-check",
    method: diluteAndCheckAcid,
    truth: {
      results: { check: 0.2263 },
      amounts: { "dilute.V_0": 10.7, "dilute.V_e": 25, "dilute.c_t": 0.23 },
    },
  },
  { name: "back-titration", method: backTitration, truth: { results: { determine: 14.2 } } },
  {
    name: "blank-difference-with-excess",
    method: blankDifference,
    truth: { results: { blank: 24.6, determine: 312 } },
  },
  {
    name: "indirect-in-a-chain-of-three",
    method: dissolvedOxygen,
    truth: {
      results: { standardize: 0.0132, determine: 8.43 },
      amounts: { "prepare.m": 0.125 },
    },
  },
  {
    name: "replacement-sample-by-burette",
    method: hardnessByReplacement,
    truth: { results: { determine: 9.6 }, amounts: { "determine.V_s": 20 } },
  },
  { name: "electron-count", method: electronCount, truth: { results: { determine: 1 } } },
  { name: "equivalent-mass", method: equivalentMass, truth: { results: { determine: 75.04 } } },
  {
    name: "empirical-index",
    method: kappaNumber,
    truth: {
      results: { blank: 48.2, determine: 25.4 },
      amounts: { "determine.w": 1.9, "determine.t": 24.3 },
    },
  },
  {
    name: "direct-against-a-limit",
    method: againstALimit,
    truth: { results: { determine: 147 }, amounts: { "determine.L": 160 } },
  },
  {
    name: "sample-in-drops",
    method: byDrops,
    truth: { results: { determine: 96 }, amounts: { "determine.V_d": 20 } },
  },
  {
    name: "sample-in-tablets",
    method: byTablets,
    truth: { results: { determine: 240 }, amounts: { "determine.N": 3 } },
  },
  { name: "sample-by-cylinder", method: byCylinder, truth: { results: { determine: 4.1 } } },
];
