import { describe, expect, test } from "@jest/globals";
import { acidByBase } from "~/catalog/methods/acid-base/acid-by-base";
import { diluteAndCheckAcid } from "~/catalog/methods/acid-base/dilute-and-check";
import { methods } from "~/catalog/methods";
import { applyChange, type RunChange } from "../change";
import { changeContext, checkRecord, evaluateRun } from "../evaluate";
import { allowsOf, compileMethod, type TitrationEvaluation } from "../stages";
import { begunRun } from "../testing/build-record";
import { typedRun } from "../testing/typed-run";
import { plain } from "../testing/plain";
import { workingOf } from "../working";
import { inEnglish } from "../text";
import { type HeldAgainst, heldStage, methodOf, type RunRecord } from ".";

const context = changeContext({
  now: "2026-11-29T09:00:00.000Z",
  person: "bench 1",
  newId: (of) => `${of} more`,
});
const known = (tolerance: string, unit: "percent" | "unit" = "percent"): HeldAgainst => ({
  ...{ against: "value", label: "Known value", tolerance, in: unit },
});

/** Three aliquots of 25.00 mL, each by 20.00 mL of 0.1000 mol/L: 0.08000 mol/L; held against what is stated. */
function held(heldAgainst: HeldAgainst, stated: Record<string, string>): RunRecord {
  const trial = {
    "V_a:volume.taken": "25.00",
    "V:burette.initial": "0.00",
    "V:burette.final": "20.00",
  } as const;
  const record = typedRun(acidByBase, {
    determine: {
      once: { "c_b:given": "0.1000", "c_b:given.plus-minus": "0.0001" },
      trials: [trial, trial, trial],
    },
  });
  let after: RunRecord = { ...record, choices: [{ stageKey: "determine", heldAgainst }] };
  for (const [kind, text] of Object.entries(stated)) {
    const applied = applyChange(
      after,
      {
        ...{ intent: "observe", id: kind, stageKey: "determine", trial: null, symbol: "ref" },
        ...{ kind: kind as "given", text, supersedes: null, reason: null },
      },
      context,
    );
    if (!applied.ok || !applied.value) throw new Error("not stated");
    after = applied.value.record;
  }
  return after;
}

const acceptance = (record: RunRecord) => {
  const stage = evaluateRun(record).stages.at(-1);
  return stage?.kind === "titration" ? stage.acceptance : null;
};

describe("what a result is held against in a run", () => {
  test.each<[HeldAgainst, Record<string, string>, boolean | null, RegExp]>([
    // 0.0800 of 0.0790: 1.27 % too much.
    [
      known("5"),
      { given: "0.0790" },
      true,
      /1\.3 % above the known value, 0\.07900 mol\/L: within the 5 % allowed\. Recovery: 101\.3 %\. The difference is larger than the ±/,
    ],
    [known("1"), { given: "0.0790" }, false, /outside the 1 % allowed/],
    [known("0.002", "unit"), { given: "0.0790" }, true, /within the 0\.002 mol\/L allowed/],
    [known("0.0005", "unit"), { given: "0.0790" }, false, /outside the 0\.0005 mol\/L allowed/],
    [
      known(""),
      { given: "0.0790" },
      null,
      /^The result is 1\.3 % above the known value, 0\.07900 mol\/L\. Recovery/,
    ],
    // A known value that is no better known than that.
    [known("5"), { given: "0.0790", "given.plus-minus": "0.0020" }, true, /The ± covers the difference\.$/],
  ])("%j, %j", (choice, stated, within, words) => {
    const record = held(choice, stated);
    expect(checkRecord(record)).toEqual([]);
    const found = acceptance(record);
    expect(found?.against === "value" && found.within).toBe(within);
    expect(plain(found?.text)).toMatch(words);
    const steps = workingOf(record, evaluateRun(record), "determine", null)?.steps ?? [];
    expect(plain(steps.find(({ id }) => id === "error")?.valueText)).toBe("1.27 %");
  });

  test("a limit, with its guard band, passes or fails", () => {
    const limit = (bound: "at most" | "at least", given: string) =>
      acceptance(held({ against: "limit", label: "Limit", bound }, { given }));
    expect(limit("at most", "0.0900")).toMatchObject({ passes: true });
    expect(limit("at least", "0.0900")).toMatchObject({ passes: false });
    expect(limit("at most", "0.0801")).toMatchObject({ passes: null });
    // Nothing stated: nothing told.
    expect(acceptance(held(known("5"), {}))).toBeNull();
  });

  test("every result of the library can be, and passes the check with it", () => {
    let holdable = 0;
    for (const method of methods) {
      for (const stage of method.stages.filter((one) => allowsOf(one).holds)) {
        holdable++;
        const stages = method.stages.map((s) => (s === stage ? heldStage(s, known("5")) : s));
        expect([method.id, stage.key, compileMethod({ ...method, stages }).ok]).toEqual([
          method.id,
          stage.key,
          true,
        ]);
      }
    }
    expect(holdable).toBeGreaterThan(40);
  });

  test.each([
    // 25.00 of 1.000 mol/L in 250.0 mL: 0.1000, against 0.1020.
    [
      "dilution-in-steps",
      "first",
      { "c_0:given": "1.000", "V_1:volume.taken": "25.00", "V_2:volume.taken": "250.0" },
      "0.1020",
      /2\.0 % below/,
    ],
    // What is weighed: 5.1056 g of 204.222 g/mol in 250.0 mL are 0.1000 mol/L.
    [
      "base-by-phthalate-solution",
      "prepare",
      { "m:mass.before": "7.1056", "m:mass.after": "2.0000", "V_f:volume.taken": "250.0" },
      "0.1000",
      /on|above|below/,
    ],
  ] as const)("of what is made in %s: %s", (id, key, once, value, words) => {
    const record = typedRun(
      methods.find((m) => m.id === id)!,
      { [key]: { once } },
    );
    const chosen: RunRecord = { ...record, choices: [{ stageKey: key, heldAgainst: known("5") }] };
    const stated = applyChange(
      chosen,
      {
        ...{ intent: "observe", id: "ref", stageKey: key, trial: null, symbol: "ref", kind: "given" },
        ...{ text: value, supersedes: null, reason: null },
      },
      context,
    );
    if (!stated.ok || !stated.value) throw new Error("not stated");
    const after = stated.value.record;
    const stage = evaluateRun(after).stages.find((s) => s.key === key)!;
    expect(plain(stage.acceptance?.text)).toMatch(words);
    expect(workingOf(after, evaluateRun(after), key, null)?.steps.map(({ id: step }) => step)).toContain(
      "error",
    );
  });

  test("a limit beside a standard addition is judged, with the ± of the line for a guard band", () => {
    const iron = methods.find(({ id }) => id === "iron-by-standard-addition")!;
    const flasks = ["0.00", "2.00", "4.00", "6.00", "8.00"].map((ml) => ({
      "V_s:volume.taken": ml,
      // 0.200 at the start and 0.100 for each mL: 2.00 mL of stock, 0.8 mg/L in the flask, 2.0 mg/L in the sample.
      "A:absorbance": (0.2 + 0.1 * Number(ml)).toFixed(3),
    }));
    const judged = (limit: string) => {
      const record = typedRun(iron, {
        wavelength: { once: { "λ:given": "510" } },
        additions: { once: { "c_lim:given": limit, "A_0:absorbance": "0.000" }, trials: flasks },
      });
      const { acceptance: found } = evaluateRun(record).stages.find((s) => s.key === "additions")!;
      return found?.against === "limit" ? found.passes : null;
    };
    expect([judged("2.5"), judged("1.5")]).toEqual([true, false]);
  });

  test("is refused for a wavelength that is chosen, and a tolerance of nothing is no tolerance", () => {
    const refused = (stageKey: string, heldAgainst: HeldAgainst, method = diluteAndCheckAcid) => {
      const applied = applyChange(
        begunRun(method),
        { intent: "hold-against", stageKey, heldAgainst },
        context,
      );
      return applied.ok ? null : plain(applied.problem.message);
    };
    const dye = methods.find(({ id }) => id === "fading-of-a-dye")!;
    expect(refused("wavelength", known("5"), dye)).toMatch(/^Nothing is held against/);
    expect(refused("dilute", known("5"))).toBeNull();
    expect(refused("check", known("0"))).toBe("What is allowed is above zero");
    expect(refused("check", known("10"))).toBeNull();
  });
});

describe("a further result that is held against what a label says", () => {
  const trial = {
    "V_a:volume.taken": "25.00",
    "V:burette.initial": "0.00",
    "V:burette.final": "20.83",
  } as const;
  const liquor = methods.find(({ id }) => id === "weak-acid-in-food")!;
  const record = typedRun(liquor, {
    determine: {
      once: {
        ...{ "c_b:given": "0.1000", "V_1:volume.taken": "25.00", "V_2:volume.taken": "250.0" },
        "ρ:given": "1.006",
      },
      trials: [trial, trial, trial],
    },
  });
  const asGamma: HeldAgainst = { ...(known("10") as HeldAgainst & { against: "value" }), result: "γ" };
  const made = (changes: readonly RunChange[]) =>
    changes.reduce((now: RunRecord, change) => {
      const applied = applyChange(now, change, context);
      if (!applied.ok) throw new Error(inEnglish(applied.problem.message));
      return applied.value?.record ?? now;
    }, record);
  const hold: RunChange = { intent: "hold-against", stageKey: "determine", heldAgainst: asGamma };
  const label: RunChange = {
    ...{ intent: "observe", id: "label", stageKey: "determine", trial: null, symbol: "ref_γ", kind: "given" },
    ...{ text: "5.0", supersedes: null, reason: null },
  };

  test("becomes the main one, in its own unit; the others stand beside it", () => {
    const after = made([hold, label]);
    expect(checkRecord(after)).toEqual([]);
    const stage = evaluateRun(after).stages[0] as TitrationEvaluation;
    // 0.1 · 20.83 / 25 · 10 = 0.8332 mol/L, 60.052 g/mol: 5.0035 % w/v of the 5.0 % on the label.
    expect(plain(stage.shown?.text)).toMatch(/^5\.00\d* ± .*% w\/v/);
    expect(plain(stage.acceptance?.text)).toMatch(
      /above the known value, 5\.000 % w\/v: within the 10 % allowed/,
    );
    expect(stage.also.map(({ definition }) => definition.symbol)).toContain("c");
    expect(applyChange(record, { ...hold, heldAgainst: { ...asGamma, result: "n" } }, context).ok).toBe(
      false,
    );
  });

  test("takes over no expectation of another result, and gives it back", () => {
    const expected = { value: 0.8, in: "unit", of: "c" } as const;
    const both = made([{ intent: "expect", stageKey: "determine", expected }, hold]);
    const expectation = (of: RunRecord) => {
      const [stage] = methodOf(of).stages;
      return stage && "expected" in stage ? stage.expected : undefined;
    };
    expect(expectation(both)).toBeUndefined();
    const back = applyChange(both, { ...hold, heldAgainst: null }, context);
    expect(back.ok && back.value && expectation(back.value.record)).toEqual(expected);
    const ofDry = applyChange(
      made([hold]),
      { intent: "expect", stageKey: "determine", expected: { value: 5, in: "unit", of: "γ" } },
      context,
    );
    expect(ofDry.ok && ofDry.value && expectation(ofDry.value.record)).toMatchObject({ value: 5 });
  });

  test("leaves what later stages take over as the method meant it", () => {
    const own = methods.find(({ id }) => id === "base-by-phthalate-solution")!;
    const [prepare, standardize] = own.stages;
    // Another result of the same dimension: taken by mistake, it would double everything behind it.
    const twofold = {
      ...own,
      stages: [
        {
          ...prepare!,
          relations: [
            ...prepare!.relations,
            { relation: "c_2 = 2 * c_s", title: "Twice that", unit: "mol/L" },
          ],
          also: [{ symbol: "c_2", name: "Twice that", unit: "mol/L" }],
        },
        standardize!,
      ],
    };
    const made = typedRun(twofold, {
      prepare: { once: { "m:mass.before": "7.1056", "m:mass.after": "2.0000", "V_f:volume.taken": "250.0" } },
      standardize: { trials: [trial, trial, trial].map((one) => ({ ...one, "V:burette.final": "24.85" })) },
    });
    const found = (record_: RunRecord) =>
      (evaluateRun(record_).stages[1] as TitrationEvaluation).combined?.quantity.value;
    const asked: RunRecord = {
      ...made,
      choices: [{ stageKey: "prepare", heldAgainst: { ...asGamma, result: "c_2" } }],
    };
    expect(found(made)).toBeGreaterThan(0);
    expect(found(asked)).toBe(found(made));
    expect(evaluateRun(asked).stages[0]?.definition.result.symbol).toBe("c_2");

    const expectedIn = (heldIn: "dilute" | "check") => {
      const stage = methodOf({
        method: diluteAndCheckAcid,
        choices: [{ stageKey: heldIn, heldAgainst: { ...asGamma, result: "c_t" } }],
      }).stages[1];
      return stage && "expectedFrom" in stage ? stage.expectedFrom?.result : null;
    };
    // The check goes on expecting what was made, not the target.
    expect(expectedIn("dilute")).toBe("c_m");
  });
});
