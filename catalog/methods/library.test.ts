import { describe, expect, test } from "@jest/globals";
import katex from "katex";
import { standardUncertainty } from "~/core/quantity";
import { mustHold } from "~/core/result";
import { checkRecord, evaluateRun } from "~/core/evaluate";
import { perOf } from "~/core/method";
import { resultQuantity } from "~/core/stages";
import { workingOf } from "~/core/working";
import { simulateRun } from "~/core/simulate";
import { offered } from "./";
import { defaultHouseRules } from "../rules/defaults";
import { truthOf } from "~/core/testing/library-truth";
import { plain } from "~/core/testing/plain";

const seeds = [1, 2, 3, 4, 5, 6, 7, 8];

describe.each(offered.map((m) => [m.id, m] as const))(
  "%s, carried out on simulated benches",
  (_id, method) => {
    const runs = seeds.map((seed) =>
      mustHold(simulateRun({ method, houseRules: defaultHouseRules, truth: truthOf(method), seed })),
    );

    test("closes every stage, and its records are in order", () => {
      for (const { record } of runs) {
        const { stages } = evaluateRun(record);
        const open = stages.filter((s) => !s.done).map((s) => s.key);
        // A sound bench is accused of nothing.
        const accused = stages.flatMap((s) => s.implausible.map((i) => i.text));
        expect(plain([open, checkRecord(record), accused])).toEqual([[], [], []]);
      }
    });

    test("finds what was true: no result further off than four times its u, and none always on one side", () => {
      for (const stage of method.stages) {
        const off = runs.map(({ record, truths }) => {
          const found = evaluateRun(record).stages.find((s) => s.key === stage.key);
          const q = found ? resultQuantity(found) : null;
          if (!q) return NaN;
          const departure = q.value - (truths.get(stage.key) ?? NaN);
          // What is chosen and not measured, as a wavelength, has no ± and may not depart at all.
          return departure === 0 ? 0 : departure / standardUncertainty(q);
        });
        expect([stage.key, off.every((z) => Math.abs(z) < 4)]).toEqual([stage.key, true]);
        // Eight on one side come once in 128 stages by chance; half a u of bias would be seen in the mean.
        const mean = off.reduce((a, b) => a + b, 0) / off.length;
        expect([stage.key, Math.abs(mean) < 1.2]).toEqual([stage.key, true]);
      }
    });

    test("writes a working that can be set in type, from the readings to the result", () => {
      const [run] = runs;
      if (!run) throw new Error("no run");
      const evaluation = evaluateRun(run.record);
      for (const stage of method.stages) {
        const steps = workingOf(run.record, evaluation, stage.key, null)?.steps ?? [];
        expect(steps.length).toBeGreaterThanOrEqual(stage.relations.length);
        for (const { names, numbers, value } of steps) {
          for (const tex of [names, numbers, value])
            expect(() => katex.renderToString(tex, { throwOnError: true, strict: "ignore" })).not.toThrow();
        }
      }
    });

    test("asks for readings in the order of the work: what is weighed or taken comes before the titer", () => {
      const computed = method.stages;
      for (const { key, inputs } of computed) {
        const titer = inputs.findIndex((i) => i.is === "titer");
        const late = inputs
          .slice(titer + 1)
          .filter((i) => titer >= 0 && perOf(i) === "trial" && i.is !== "pH" && i.is !== "temperature");
        expect([key, late.map((i) => i.symbol)]).toEqual([key, []]);
      }
    });
  },
);
