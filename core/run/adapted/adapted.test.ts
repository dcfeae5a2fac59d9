import { describe, expect, test } from "@jest/globals";
import { methods } from "~/catalog/methods";
import { v7 as newId } from "uuid";
import { applyChange, type RunChange } from "../../change";
import { changeContext, checkRecord, evaluateRun } from "../../evaluate";
import { stageFields } from "../../method";
import { inUnit } from "../../quantity";
import type { TitrationEvaluation } from "../../stages";
import { titer, typedRun } from "../../testing/typed-run";
import { inEnglish } from "../../text";
import { dilutionOf, methodOf, moistureSymbol, type RunRecord } from "..";

const context = changeContext({
  now: "2026-11-30T09:00:00.000Z",
  person: "bench 1",
  newId: (of) => `${of} more`,
});
const method = (id: string) => methods.find((m) => m.id === id)!;
const undilute = (record: RunRecord, stageKey: string, undiluted: boolean) =>
  applyChange(record, { intent: "adapt", stageKey, adapted: "undiluted", on: undiluted }, context);

describe("a sample that is titrated as it is", () => {
  test("is told from a dilution that leads to a target, and from an aliquot", () => {
    const found = methods.flatMap((m) =>
      m.stages.flatMap((stage) => {
        const dilution = dilutionOf(stage);
        return dilution ? [`${m.id}: ${dilution.taken.symbol} in ${dilution.flask.symbol}`] : [];
      }),
    );
    expect(found).toContain("peroxide-by-volume: V_0 in V_f");
    expect(found).toContain("weak-acid-in-food: V_1 in V_2");
    expect(found.some((name) => /^(dilute-and-check|acid-by-base):/.test(name))).toBe(false);
  });

  test("gives the concentration of the aliquot; what was read of the dilution is kept, and counts again", () => {
    const trial = { "V_a:volume.taken": "25.00", ...titer("22.00") };
    const diluted = typedRun(
      method("peroxide-by-volume"),
      {
        determine: {
          once: { "c_p:given": "0.02000", "V_0:volume.taken": "10.00", "V_f:volume.taken": "250" },
          trials: [trial],
        },
      },
      { agreement: { rule: "n-within", replicates: 1, withinMl: "0.10" } },
    );
    const c = (record: RunRecord) =>
      inUnit((evaluateRun(record).stages[0] as TitrationEvaluation).combined!.quantity, "mol/L");
    // 0.02000 mol/L · 22.00 mL · 5/2 / 25.00 mL = 0.0440 mol/L in the dilution, twenty-five times that as received.
    expect(c(diluted)).toBeCloseTo(1.1, 4);
    const changed = undilute(diluted, "determine", true);
    if (!changed.ok || !changed.value) throw new Error("refused");
    const asItIs = changed.value.record;
    expect(c(asItIs)).toBeCloseTo(0.044, 6);
    expect(checkRecord(asItIs)).toEqual([]);
    const symbols = (record: RunRecord) =>
      stageFields(methodOf(record).stages[0]!, record.houseRules).map(({ symbol }) => symbol);
    expect(symbols(asItIs)).not.toContain("V_0");
    expect(undilute(asItIs, "determine", true)).toMatchObject({ ok: true, value: null });
    const back = undilute(asItIs, "determine", false);
    expect(back.ok && back.value && c(back.value.record)).toBeCloseTo(1.1, 4);
    expect(undilute(diluted, "nowhere", true).ok).toBe(false);
  });
});

describe("a result on dry basis", () => {
  test("is that of the sample over what is left without its water, with the ± of both; moisture that is not stated gives none", () => {
    const record = typedRun(
      method("peroxide-by-mass"),
      {
        determine: {
          once: { "c_p:given": "0.02000" },
          trials: [{ "m:mass.before": "10.0000", "m:mass.after": "11.0000", ...titer("20.00") }],
        },
      },
      { agreement: { rule: "n-within", replicates: 1, withinMl: "0.10" } },
    );
    const w = (of: RunRecord) => (evaluateRun(of).stages[0] as TitrationEvaluation).combined?.quantity;
    const change = (of: RunRecord, ...changes: RunChange[]) =>
      changes.reduce((now, one) => {
        const applied = applyChange(now, one, context);
        if (!applied.ok) throw new Error(inEnglish(applied.problem.message));
        return applied.value?.record ?? now;
      }, of);
    const dried = change(record, { intent: "adapt", stageKey: "determine", adapted: "dry", on: true });
    expect(w(dried)).toBeUndefined();
    const state = (text: string, kind: "given" | "given.plus-minus"): RunChange => ({
      ...{
        intent: "observe",
        id: newId(),
        stageKey: "determine",
        trial: null,
        symbol: moistureSymbol,
        kind,
        text,
      },
      ...{ supersedes: null, reason: null },
    });
    const known = change(dried, state("20.0", "given"), state("0.5", "given.plus-minus"));
    // 1.000 mmol of 34.014 g/mol in 1.0000 g: 3.4014 %; over 80 % that is dry: 4.2518 %.
    expect(inUnit(w(known)!, "% w/w") / inUnit(w(record)!, "% w/w")).toBeCloseTo(1 / 0.8, 9);
    // 0.5 % of moisture, rectangular: 0.5 / √3 / 80 of the result.
    const extra = [...w(known)!.sensitivities.values()].find(({ leaf }) => leaf.id.includes(moistureSymbol))!;
    expect((Math.abs(extra.by) * extra.leaf.u) / w(known)!.value).toBeCloseTo(0.005 / Math.sqrt(3) / 0.8, 6);
    expect(checkRecord(known)).toEqual([]);
    expect(undilute(record, "determine", true).ok).toBe(false);
    const concentration = applyChange(
      typedRun(method("acid-by-base"), {}, {}),
      { intent: "adapt", stageKey: "determine", adapted: "dry", on: true },
      context,
    );
    expect(concentration.ok).toBe(false);
  });
});
