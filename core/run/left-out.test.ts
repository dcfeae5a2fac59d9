import { describe, expect, test } from "@jest/globals";
import { aliases, methods, offered } from "~/catalog/methods";
import { applyChange, type RunChange } from "../change";
import { changeContext, checkRecord, evaluateRun } from "../evaluate";
import { stepsOf } from "../inputs";
import { compileMethod, type TitrationEvaluation } from "../stages";
import { titer, typedRun } from "../testing/typed-run";
import { inUnit } from "../quantity";
import { inEnglish } from "../text";
import { canLeaveOut, methodOf, type RunRecord, withChoices } from ".";

const context = changeContext({
  now: "2026-11-30T09:00:00.000Z",
  person: "bench 1",
  newId: (of) => `${of} more`,
});
const method = (id: string) => methods.find((m) => m.id === id)!;
const leave = (stageKey: string, on = true): RunChange => ({
  ...{ intent: "adapt", stageKey, adapted: "left-out", on },
});
const know: RunChange = { intent: "know-stage", stageKey: "standardize", known: { from: "" } };
const keys = (record: RunRecord) => methodOf(record).stages.map(({ key }) => key);

function after(record: RunRecord, ...changes: RunChange[]): RunRecord {
  return changes.reduce((now, change) => {
    const applied = applyChange(now, change, context);
    if (!applied.ok) throw new Error(inEnglish(applied.problem.message));
    return applied.value?.record ?? now;
  }, record);
}

/** Sodium hydroxide by phthalate and an acid by it, all of it read: 0.5106 g in 25.00 mL, 25.00 mL of acid in 20.00 mL. */
const both = () =>
  typedRun(
    method("base-by-phthalate-then-acid"),
    {
      standardize: {
        trials: [{ "m:mass.before": "10.0000", "m:mass.after": "9.4894", ...titer("25.00") }],
      },
      determine: { trials: [{ "V_a:volume.taken": "25.00", ...titer("20.00") }] },
    },
    { agreement: { rule: "n-within", replicates: 1, withinMl: "0.10" } },
  );

describe("a run of some of the stages of its method", () => {
  test("holds together whichever is left out, and what rests on that goes with it", () => {
    let left = 0;
    for (const one of methods) {
      for (const stage of one.stages.filter((s) => canLeaveOut(one, s))) {
        left++;
        const without = withChoices(one, [{ stageKey: stage.key, adapted: "left-out" }]);
        expect([one.id, stage.key, compileMethod(without).ok]).toEqual([one.id, stage.key, true]);
        const there = new Set(without.stages.map(({ key }) => key));
        const rests = without.stages.flatMap(({ inputs }) =>
          inputs.flatMap((input) => (input.is === "result" && !there.has(input.stage) ? [input.stage] : [])),
        );
        expect([one.id, stage.key, rests]).toEqual([one.id, stage.key, []]);
      }
    }
    expect(left).toBeGreaterThan(20);
    const hardness = withChoices(method("water-hardness"), [{ stageKey: "total", adapted: "left-out" }]);
    expect(hardness.stages.map(({ key }) => key)).toEqual(["prepare", "standardize"]);
    const total = withChoices(method("water-hardness"), [{ stageKey: "calcium", adapted: "left-out" }]);
    expect(total.stages.map(({ key }) => key)).toEqual(["prepare", "standardize", "total"]);
  });

  test("what was read is kept and counts again; the rest is as it was", () => {
    const whole = both();
    const found = (record: RunRecord, key: string) =>
      (evaluateRun(record).stages.find((stage) => stage.key === key) as TitrationEvaluation | undefined)
        ?.combined?.quantity;
    const c = inUnit(found(whole, "determine")!, "mol/L");
    const alone = after(whole, leave("determine"));
    expect([keys(alone), checkRecord(alone)]).toEqual([["standardize"], []]);
    expect(found(alone, "determine")).toBeUndefined();
    expect(inUnit(found(alone, "standardize")!, "mol/L")).toBe(inUnit(found(whole, "standardize")!, "mol/L"));
    const back = after(alone, leave("determine", false));
    expect([inUnit(found(back, "determine")!, "mol/L"), checkRecord(back)]).toEqual([c, []]);
  });

  test("something is left to do: not all goes, and a stage that nothing else uses then is not known", () => {
    const refused = (record: RunRecord, change: RunChange) => !applyChange(record, change, context).ok;
    expect(refused(both(), leave("standardize"))).toBe(true);
    expect(refused(after(both(), leave("determine")), leave("standardize"))).toBe(true);
    expect(refused(after(both(), leave("determine")), know)).toBe(true);
    expect(refused(after(both(), know), leave("determine"))).toBe(true);
    // One stage of two: that which is known stands before it.
    expect(keys(after(both(), know))).toEqual(["standardize", "determine"]);
  });
});

describe("a method under another name", () => {
  test.each(aliases.map((alias) => [alias.id, alias] as const))(
    "%s is its method with choices that a run can be begun with",
    (id, { of, choices }) => {
      const its = method(of);
      const named = offered.find((one) => one.id === id)!;
      expect(compileMethod(named).ok).toBe(true);
      expect(named.stages).toEqual(withChoices(its, [...choices]).stages);
      expect(named.stages).not.toEqual(its.stages);
      expect(methods.some((one) => one.id === id)).toBe(false);
      // Its steps and reagents say what is done then, and nothing that is not.
      const said = named.stages.flatMap(({ steps, inputs, reagents = [] }) => [
        ...stepsOf(steps, inputs).map(inEnglish),
        ...reagents.map(({ name, amount }) => `${name}, ${amount}`),
      ]);
      expect(said.filter((words) => words.includes("["))).toEqual([]);
    },
  );

  test("says how the sample is taken then", () => {
    const [drops] = offered.find(({ id }) => id === "weak-acid-in-drops")!.stages;
    const [cylinder] = offered.find(({ id }) => id === "acid-by-cylinder")!.stages;
    expect(stepsOf(drops!.steps, drops!.inputs).map(inEnglish)[0]).toMatch(/^Count 50 drops into a flask/);
    expect(drops!.reagents!.map(({ name, amount }) => `${name}, ${amount}`).slice(0, 2)).toEqual([
      "the liquor, 50 drops",
      "water, 50 mL",
    ]);
    expect(stepsOf(cylinder!.steps, cylinder!.inputs).map(inEnglish)[1]).toBe(
      "With a cylinder at eye level, measure 20.0 mL of the acid into a flask; rinse the walls down with water.",
    );
    expect(cylinder!.reagents![0]).toMatchObject({ amount: "20.0 mL", quantity: { most: 20, unit: "mL" } });
  });
});
