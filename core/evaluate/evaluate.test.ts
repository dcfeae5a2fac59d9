import { describe, expect, test } from "@jest/globals";
import type { ComputedEvaluation } from "~/core/stages";
import { evaluateRun } from "~/core/evaluate";
import type { HouseRules } from "~/core/rules";
import type { RunRecord } from "~/core/run";
import { methods } from "~/catalog/methods";
import { titer, typedRun } from "../testing/typed-run";
import { plain } from "../testing/plain";

/* What is missing, or fails, in one stage stays there: its readings are shown, and the rest of the run goes on. */

const method = (id: string) => methods.find((m) => m.id === id)!;
const stageOf = (record: RunRecord, key: string) =>
  evaluateRun(record).stages.find((s) => s.key === key) as ComputedEvaluation;

describe("standards whose amounts need the result of an earlier stage", () => {
  const read = {
    trials: [
      { "d:given": "5", "A:absorbance": "0.180" },
      { "d:given": "10", "A:absorbance": "0.361" },
    ],
  };

  test("are read before it is there: the readings count once it is", () => {
    const early = stageOf(typedRun(method("ethanol-by-dichromate"), { standards: read }), "standards");
    expect(plain(early.problem)).toMatch(
      /^Volume of a drop is not known yet: finish the stage "Measure a drop"/,
    );
    expect(plain(early.kind === "calibration" && early.levels.map((l) => [l.mean, l.amount]))).toEqual([
      [0.18, null],
      [0.361, null],
    ]);
    const drop = { once: { "m:mass.tared": "3.9360", "N:given": "80" } };
    const later = stageOf(
      typedRun(method("ethanol-by-dichromate"), {
        drop,
        standards: { ...read, once: { "V_f:volume.taken": "50.00" } },
      }),
      "standards",
    );
    // 3.936 g / (0.984 g/mL · 80) = 0.0500 mL: 10 % · 5 · 0.05 / 50 = 0.05 %.
    const levels = later.kind === "calibration" ? later.levels : [];
    expect(levels.map((l) => l.x)).toEqual([expect.closeTo(0.05, 10), expect.closeTo(0.1, 10)]);
  });

  test("no method throws on the readings of any one of its stages alone", () => {
    for (const m of methods) {
      for (const stage of m.stages) {
        const once = Object.fromEntries(
          stage.inputs.flatMap((i) =>
            i.is === "given" && i.per === "run" ? [[`${i.symbol}:given`, "1"]] : [],
          ),
        );
        const { failures } = evaluateRun(typedRun(m, { [stage.key]: { once } }));
        expect([m.id, stage.key, failures]).toEqual([m.id, stage.key, []]);
      }
    }
  });
});

describe("a stage on which the program fails", () => {
  const flask = { "m:mass.before": "2.6106", "m:mass.after": "2.1000", ...titer("25.00") };
  const sound = typedRun(method("base-by-phthalate-then-acid"), {
    standardize: { trials: [flask, flask, flask] },
    determine: { trials: [{ "V_a:volume.taken": "25.00", ...titer("20.00") }] },
  });

  /** House rules that cannot be asked for the room's temperature, without which no volume is computed. */
  const failing = new Proxy(sound.houseRules, {
    get: (rules, key) => {
      if (key === "temperature") throw new Error("out of order");
      return rules[key as keyof HouseRules];
    },
  });

  test("shows its readings and says what happened, and so do the others", () => {
    const evaluation = evaluateRun({ ...sound, houseRules: failing });
    expect(evaluation.failures.map((f) => f.stageKey)).toContain("standardize");
    const stage = evaluation.stages.find((s) => s.key === "standardize") as ComputedEvaluation;
    expect(stage.done).toBe(false);
    expect(stage.shown).toBeNull();
    expect(plain(stage.problem)).toMatch(/^This stage cannot be calculated: .*They are saved/);
    const trials = stage.kind === "titration" ? stage.trials : [];
    expect(trials.map((t) => t.fields.filter((f) => f.present).length)).toEqual([4, 4, 4]);
    expect(plain(evaluation.chain.at(-1))).toMatchObject({ key: "conclude", state: "ahead" });
  });

  test("leaves the stages before it as they are", () => {
    // A reading that cannot even be looked at, in the second stage alone.
    const broken = new Proxy(sound.stages[1]!.trials[0]!.observations[0]!, {
      get: () => {
        throw new Error("unreadable");
      },
    });
    const [first, second, ...rest] = sound.stages;
    const trial = { ...second!.trials[0]!, observations: [broken] };
    const stages = [first!, { ...second!, trials: [trial] }, ...rest];
    const evaluation = evaluateRun({ ...sound, stages });
    expect(evaluation.failures.map((f) => f.stageKey)).toEqual(["determine"]);
    const shown = (of: ReturnType<typeof evaluateRun>) => (of.stages[0] as ComputedEvaluation).shown;
    expect(shown(evaluation)).toEqual(shown(evaluateRun(sound)));
    expect(shown(evaluation)).not.toBeNull();
  });
});
