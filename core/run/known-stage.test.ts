import { describe, expect, test } from "@jest/globals";
import { methods } from "~/catalog/methods";
import { baseByPhthalateThenAcid } from "~/catalog/methods/acid-base/base-by-phthalate-then-acid";
import { applyChange, type RunChange } from "../change";
import { changeContext, checkRecord, evaluateRun } from "../evaluate";
import { stageFields } from "../method";
import { compileMethod } from "../stages";
import { begunRun } from "../testing/build-record";
import { titer, typedRun } from "../testing/typed-run";
import { plain } from "../testing/plain";
import { inEnglish } from "../text";
import { isKnowable, knownStage, methodOf, type RunRecord, withChoices } from ".";

const context = changeContext({
  now: "2026-11-29T09:00:00.000Z",
  person: "bench 1",
  newId: (of) => `${of} more`,
});

function after(record: RunRecord, ...changes: RunChange[]): RunRecord {
  return changes.reduce((now, change) => {
    const applied = applyChange(now, change, context);
    if (!applied.ok) throw new Error(inEnglish(applied.problem.message));
    return applied.value?.record ?? now;
  }, record);
}

const know = (stageKey: string, from = ""): RunChange => ({
  intent: "know-stage",
  stageKey,
  known: { from },
});
const state = (
  stageKey: string,
  symbol: string,
  text: string,
  kind: "given" | "given.plus-minus" = "given",
) =>
  ({
    ...{ intent: "observe", trial: null, supersedes: null, reason: null },
    ...{ id: `${stageKey} ${kind}`, stageKey, symbol, kind, text },
  }) as RunChange;

describe("a stage that is known", () => {
  test("every stage of the library whose result is used can be; what was done for it alone is left out", () => {
    let knowable = 0;
    for (const method of methods) {
      for (const stage of method.stages.filter((one) => isKnowable(method, one))) {
        knowable++;
        const other = withChoices(method, [{ stageKey: stage.key, known: { from: "" } }]);
        const compiled = compileMethod(other);
        expect([method.id, stage.key, compiled.ok]).toEqual([method.id, stage.key, true]);
        // What is stated closes it, and the stages behind it are as they were.
        const begun = after(begunRun(method), know(stage.key));
        const stated = stageFields(knownStage(method, stage), begun.houseRules)
          .filter(({ kind }) => kind === "given")
          .map(({ symbol }) => state(stage.key, symbol, "0.1012"));
        const found = evaluateRun(
          after(begun, ...stated.map((change, i) => ({ ...change, id: `${i}` }) as RunChange)),
        );
        expect(found.failures).toEqual([]);
        expect(found.chain.find(({ key }) => key === stage.key)).toMatchObject({
          state: "done",
          source: expect.anything() as unknown,
        });
        expect(found.stages.at(-1)?.definition).toEqual(method.stages.at(-1));
      }
    }
    expect(knowable).toBeGreaterThan(18);
    const oxygen = methods.find(({ id }) => id === "dissolved-oxygen")!;
    const keys = withChoices(oxygen, [{ stageKey: "standardize", known: { from: "" } }]).stages.map(
      (s) => s.key,
    );
    expect(keys).toEqual(["standardize", "determine"]);
  });

  const done = typedRun(baseByPhthalateThenAcid, {
    standardize: {
      once: { "P:purity": "99.95" },
      trials: [
        { "m:mass.before": "2.6106", "m:mass.after": "2.1000", ...titer("25.00") },
        { "m:mass.before": "2.6106", "m:mass.after": "2.1000", ...titer("25.00") },
        { "m:mass.before": "2.6106", "m:mass.after": "2.1000", ...titer("25.00") },
      ],
    },
    determine: { trials: [1, 2, 3].map(() => ({ "V_a:volume.taken": "25.00", ...titer("20.00") })) },
  });

  test("its value and its ± go into the result behind it, and nothing else of it does", () => {
    const stated = after(
      done,
      know("standardize", "certificate of flask 4"),
      state("standardize", "c_b", "0.1000"),
      state("standardize", "c_b", "0.0050", "given.plus-minus"),
    );
    const { stages, chain } = evaluateRun(stated);
    // 0.1000 mol/L × 20.00 mL / 25.00 mL; 0.0050 of a rectangle is 5 % / √3, and k = 2: 5.8 % of 0.0800 is 0.0046, shown with one digit.
    expect(plain(stages[1]?.shown?.text)).toMatch(/^0\.080 ± 0\.005 mol\/L$/);
    expect(chain[0]).toMatchObject({ state: "done", source: "certificate of flask 4" });
    expect(checkRecord(stated)).toEqual([]);
  });

  test("readings that were taken before are kept, and count again when it is done here", () => {
    const stated = after(done, know("standardize"), state("standardize", "c_b", "0.2000"));
    expect(plain(evaluateRun(stated).stages[1]?.shown?.text)).toMatch(/^0\.16/);
    const again = after(stated, { intent: "know-stage", stageKey: "standardize", known: null });
    expect(evaluateRun(again).result).toEqual(evaluateRun(done).result);
    // What was stated is kept too.
    expect(checkRecord(again)).toEqual([]);
    expect(plain(evaluateRun(after(again, know("standardize"))).stages[1]?.shown?.text)).toMatch(/^0\.16/);
  });

  test("the last stage is done, and one whose line is read off", () => {
    const refusal = (record: RunRecord, stageKey: string) => {
      const applied = applyChange(record, know(stageKey), context);
      return applied.ok ? null : plain(applied.problem.message);
    };
    expect(refusal(done, "determine")).toMatch(/^No later stage uses the result of/);
    const iron = methods.find(({ id }) => id === "iron-with-phenanthroline")!;
    expect(refusal(begunRun(iron), "standards")).toMatch(/^No later stage uses/);
    expect(methodOf(done)).toBe(done.method);
  });
});
