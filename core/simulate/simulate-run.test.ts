import { describe, expect, test } from "@jest/globals";
import { mustHold } from "~/core/result";
import { checkField, trialFields } from "~/core/method";
import { checkRecord, evaluateRun } from "~/core/evaluate";
import { expectedReading, carefulHands } from "~/core/stages";
import { simulateRun } from "~/core/simulate";
import { baseByPhthalateThenAcid } from "~/catalog/methods/acid-base/base-by-phthalate-then-acid";
import { defaultHouseRules } from "~/catalog/rules/defaults";
import { shapes } from "../testing/shapes";
import { plain } from "../testing/plain";

const options = {
  method: baseByPhthalateThenAcid,
  houseRules: defaultHouseRules,
  truth: { results: { standardize: 0.1, determine: 0.09 } },
};

describe("a simulated bench", () => {
  test("makes the same run from the same seed, another from another", () => {
    expect(simulateRun({ ...options, seed: 3 })).toEqual(simulateRun({ ...options, seed: 3 }));
    const readings = (seed: number) =>
      mustHold(simulateRun({ ...options, seed })).record.stages.flatMap((s) =>
        s.trials.flatMap((t) => t.observations.map((o) => o.text)),
      );
    expect(readings(3)).not.toEqual(readings(4));
  });

  test("reads as the house reads: decimals, and times that rise", () => {
    const rules = {
      ...defaultHouseRules,
      burette: { ...defaultHouseRules.burette, resolutionMl: "0.1" as const },
    };
    const { record } = mustHold(simulateRun({ ...options, houseRules: rules, seed: 1 }));
    const observations = record.stages.flatMap((s) => s.trials.flatMap((t) => t.observations));
    for (const o of observations.filter((x) => x.kind.startsWith("burette")))
      expect(o.text).toMatch(/^\d+\.\d$/);
    const times = observations.map((o) => o.at);
    expect(times).toEqual([...times].sort());
    expect(checkRecord(record)).toEqual([]);
  });

  test("goes on until its set is closed; shakier hands need more trials", () => {
    const trials = (endPointMl: number) =>
      Array.from({ length: 40 }, (_, i) =>
        mustHold(simulateRun({ ...options, errors: { ...carefulHands, endPointMl }, seed: i + 1 })),
      ).reduce((sum, { record }) => sum + record.stages.reduce((n, s) => n + s.trials.length, 0), 0);
    expect(trials(0.15)).toBeGreaterThan(trials(0.01) * 1.2);
  });

  test("a drop too many makes titers too large, and a base found by them too weak", () => {
    const mean = (dropMl: number) => {
      const found = Array.from({ length: 60 }, (_, i) => {
        const { record } = mustHold(
          simulateRun({ ...options, errors: { ...carefulHands, dropMl }, seed: i + 1 }),
        );
        const stage = evaluateRun(record).stages[0];
        return stage?.kind === "titration" ? (stage.combined?.quantity.value ?? NaN) : NaN;
      });
      return found.reduce((a, b) => a + b, 0) / found.length;
    };
    // Half of 0.4 mL in about 29 mL: 0.7 %
    expect(mean(0.4) / mean(0)).toBeCloseTo(1 - 0.2 / 29.4, 2);
  });

  test("says so when a titer does not fit the burette, or no truth is given", () => {
    const problems = (change: object) => {
      const run = simulateRun({ ...options, seed: 1, ...change });
      return run.ok ? "" : run.problem.message;
    };
    expect(plain(problems({ truth: { results: { standardize: 0.01, determine: 0.09 } } }))).toMatch(
      /Standardize the base: The burette of 50 mL does not hold/,
    );
    expect(plain(problems({ truth: { results: {} } }))).toMatch(/No true result is stated/);
  });
});

describe("slips are asked about where the trials before tell better", () => {
  /** Runs with one final reading written wrong; is the slip seen when it is typed, and what was meant proposed? */
  test("four of five swapped digits in a fine trial are seen, with the right value one key away", () => {
    let [wrong, seen, right] = [0, 0, 0];
    const shape = shapes.find((s) => s.name === "reverse")!;
    for (let seed = 1; seed <= 120; seed++) {
      const { record } = mustHold(
        simulateRun({ ...shape, houseRules: defaultHouseRules, seed, errors: carefulHands, mostTrials: 3 }),
      );
      const stage = record.stages[0]!;
      const last = stage.trials.at(-1)!;
      const final = last.observations.find((o) => o.kind === "burette.final")!;
      const swapped =
        seed % 2 === 0
          ? final.text.replace(/^(\d)(\d)/, "$2$1")
          : final.text.replace(/^(\d)(\d)\.(\d)/, "$1$3.$2");
      if (swapped === final.text) continue;
      wrong++;
      const before = {
        ...record,
        stages: [
          {
            ...stage,
            trials: [...stage.trials.slice(0, -1), { ...last, observations: last.observations.slice(0, -1) }],
          },
        ],
      };
      const evaluated = evaluateRun(before).stages[0];
      if (evaluated?.kind !== "titration") throw new Error("no titration");
      const field = trialFields(evaluated.definition, record.houseRules).find(
        (f) => f.kind === "burette.final",
      )!;
      const checked = checkField(field, swapped, {
        stage: evaluated.definition,
        houseRules: record.houseRules,
        holder: { observations: last.observations.slice(0, -1) },
        expected: expectedReading(field, evaluated.guidance),
      });
      const check = checked.ok ? checked.value.cautions[0] : checked.problem;
      if (check) seen++;
      if (check?.proposal === final.text) right++;
      // The reading as it was meant passes without a word.
      const meant = checkField(field, final.text, {
        stage: evaluated.definition,
        houseRules: record.houseRules,
        holder: { observations: last.observations.slice(0, -1) },
        expected: expectedReading(field, evaluated.guidance),
      });
      expect(plain(meant)).toMatchObject({ ok: true, value: { cautions: [] } });
    }
    expect(wrong).toBeGreaterThan(80);
    expect(seen / wrong).toBeGreaterThan(0.95);
    expect(right / wrong).toBeGreaterThan(0.8);
  });
});
