import { describe, expect, test } from "@jest/globals";
import katex from "katex";
import { standardUncertainty } from "~/core/quantity";
import { mustHold } from "~/core/result";
import { checkRecord, evaluateRun } from "~/core/evaluate";
import { type Method, perOf } from "~/core/method";
import { resultQuantity, type Truth } from "~/core/stages";
import { workingOf } from "~/core/working";
import { simulateRun } from "~/core/simulate";
import { offered } from "./";
import { defaultHouseRules } from "../rules/defaults";
import { plain } from "~/core/testing/plain";

/** Results of unknown samples, where the method presumes none. */
const unknowns: Readonly<Record<string, number>> = {
  "acid-by-base/determine": 0.0921,
  "acid-by-cylinder/determine": 0.0921,
  "acid-in-burette/determine": 0.0953,
  "base-by-acid/determine": 0.1047,
  "base-by-phthalate-then-acid/determine": 0.0872,
  "acid-by-carbonate-then-base/determine": 0.1033,
};

/** What is aimed at where the usual amount does not go with the result. */
const amounts: Readonly<Record<string, Truth["amounts"]>> = {
  "dilute-and-check": { "dilute.V_0": 10, "check.c_t": 0.2 },
  "kappa-number": { "determine.w": 2, "determine.t": 24.6 },
  "phosphate-as-molybdenum-blue": { "wavelength.λ": 880 },
  "nitrite-as-azo-dye": { "wavelength.λ": 540 },
  "copper-with-ammonia": { "wavelength.λ": 620 },
  "iron-with-phenanthroline": { "wavelength.λ": 510 },
  "iron-by-standard-addition": { "wavelength.λ": 510 },
  "ethanol-by-dichromate": { "wavelength.λ": 600, "drop.m": 3.9, "drop.N": 80, "unknown.d_u": 20 },
  "fading-of-a-dye": { "wavelength.λ": 590 },
};

function truthOf(method: Method): Truth {
  const results: Record<string, number> = {};
  for (const stage of method.stages) {
    if (stage.kind !== "titration") continue;
    results[stage.key] = stage.presumed ?? unknowns[`${method.id}/${stage.key}`] ?? NaN;
  }
  return { results, amounts: amounts[method.id] ?? {} };
}

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
