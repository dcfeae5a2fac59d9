import { mustHold } from "~/core/result";
import { simulateRun } from "~/core/simulate";
import { defaultHouseRules } from "~/catalog/rules/defaults";
import { fileOfRecord } from "./concluded";
import { shapes } from "~/core/testing/shapes";

const seed = 11;

/** A run record for each shape of titration, made up from a known truth: file name without ending, and text. */
export const exampleRecords = (): (readonly [name: string, text: string])[] =>
  shapes.map(({ name, method, truth }) => {
    const { record } = mustHold(simulateRun({ method, houseRules: defaultHouseRules, truth, seed }));
    return [
      name,
      `${JSON.stringify(fileOfRecord({ ...record, id: `example-${name}` }), null, 2)}\n`,
    ] as const;
  });
