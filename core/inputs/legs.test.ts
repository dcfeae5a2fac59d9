import { describe, expect, test } from "@jest/globals";
import { baseByPhthalateThenAcid } from "~/catalog/methods/acid-base/base-by-phthalate-then-acid";
import { applyChange, type RunChange } from "../change";
import { changeContext, evaluateRun } from "../evaluate";
import type { TitrationEvaluation } from "../stages";
import type { RunRecord } from "../run";
import { begunRun } from "../testing/build-record";
import { inEnglish } from "../text";

const trial = { id: "flask-1", kind: "fine" } as const;
let ids = 0;
const context = () =>
  changeContext({ now: "2026-11-29T09:00:00.000Z", person: "bench 1", newId: () => `id ${++ids}` });

/** The run with these readings of one flask; where one is refused, why. */
function read(readings: readonly (readonly [symbol: string, kind: string, text: string])[]) {
  let record: RunRecord = begunRun(baseByPhthalateThenAcid);
  const refusals: string[] = [];
  for (const [symbol, kind, text] of readings) {
    const change = {
      ...{ intent: "observe", id: `reading ${++ids}`, stageKey: "standardize", trial, symbol, kind, text },
      ...{ supersedes: null, reason: null },
    } as RunChange;
    const applied = applyChange(record, change, context());
    if (!applied.ok) refusals.push(inEnglish(applied.problem.message));
    else if (applied.value) record = applied.value.record;
  }
  const stage = evaluateRun(record).stages[0] as TitrationEvaluation;
  return { record, refusals, stage, trial: stage.trials[0]! };
}

const weighed = [
  ["m", "mass.before", "3.3212"],
  ["m", "mass.after", "2.1000"],
] as const;
const refilled = [
  ...weighed,
  ["V", "burette.initial", "0.00"],
  ["V", "burette.before-refill", "48.00"],
] as const;

describe("a burette that is refilled in the middle of a titration", () => {
  test("delivers the sum of both legs, with the ± of four readings and one calibration", () => {
    const { trial: whole } = read([
      ...refilled,
      ["V", "burette.after-refill", "1.00"],
      ["V", "burette.final", "12.80"],
    ]);
    expect(whole.titerMl).toBeCloseTo(59.8, 9);
    expect(whole.missing).toBeNull();
    // 1.2212 g / 204.222 g/mol / 59.80 mL
    expect(whole.shownResult?.value).toMatch(/^0\.100/);
    const labels = [...whole.symbols.get("V")!.sensitivities.values()].map(({ leaf }) => leaf.id);
    expect(labels.filter((id) => id.includes("leg 2"))).toHaveLength(2);
    const { trial: once } = read([
      ...weighed,
      ["V", "burette.initial", "0.00"],
      ["V", "burette.final", "48.00"],
    ]);
    const random = (t: typeof whole) =>
      [...t.symbols.get("V")!.sensitivities.values()].filter(({ leaf }) => leaf.random).length;
    expect(random(whole)).toBe(2 * random(once));
  });

  test("is asked for the reading after the refill, and checked leg by leg", () => {
    const open = read(refilled);
    expect(open.trial.missing?.kind).toBe("burette.final");
    // The end alone does not make it whole.
    const noStart = read([...refilled, ["V", "burette.final", "12.80"]]);
    expect(noStart.trial.missing?.kind).toBe("burette.after-refill");
    expect(noStart.trial.titerMl).toBeNull();
    const texts = (after: string, final: string) =>
      read([...refilled, ["V", "burette.after-refill", after], ["V", "burette.final", final]]).refusals;
    expect(texts("48.10", "49.00")[0]).toContain("48.10 is not below 48.00. Was it refilled?");
    expect(texts("-0.40", "12.80")[0]).toContain("below zero");
    expect(texts("1.00", "0.80")[0]).toContain("The final reading 0.80 is not above the initial 1.00");
    expect(texts("1.00", "12.80")).toEqual([]);
  });

  test("tells where the end comes by the scale as it stands since the refill", () => {
    const { stage, record } = read([...refilled, ["V", "burette.after-refill", "1.00"]]);
    const hand = { stageKey: "standardize", trialId: trial.id };
    const guided = evaluateRun(record, hand).stages[0] as TitrationEvaluation;
    // By theory 1.2212 / 204.222 / 0.1 mol/L = 59.80 mL, of which 48.00 were delivered: 1.00 + 11.80.
    expect(guided.guidance?.endNear).toBeCloseTo(12.8, 1);
    expect(guided.guidance?.roomLeft).toBe(true);
    // The mark to slow down at lies before where the burette stands now: it is drop by drop from there.
    const late = read([
      ...refilled.slice(0, 3),
      ["V", "burette.before-refill", "49.00"],
      ["V", "burette.after-refill", "5.00"],
    ]);
    const near = (evaluateRun(late.record, hand).stages[0] as TitrationEvaluation).guidance;
    expect(near?.endNear).toBeCloseTo(15.8, 1);
    expect(near?.slowAt === null || near!.slowAt > 5).toBe(true);
    expect(stage.begun).toHaveLength(1);
  });
});
