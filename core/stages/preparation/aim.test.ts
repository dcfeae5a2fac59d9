import { describe, expect, test } from "@jest/globals";
import { diluteAndCheckAcid } from "~/catalog/methods/acid-base/dilute-and-check";
import { applyChange, type RunChange, takeBack } from "../../change";
import { changeContext, evaluateRun } from "../../evaluate";
import { typedRun, type Typed } from "../../testing/typed-run";
import { plain } from "../../testing/plain";
import { inEnglish } from "../../text";

const context = changeContext({
  now: "2026-11-29T09:00:00.000Z",
  person: "bench 1",
  newId: (of) => `${of} more`,
});

/** What is told of a dilution of 0.538 mol/L to 25.0 mL, by a burette of 50 mL read to 0.01. */
function aim(typed: Typed) {
  const run = typedRun(diluteAndCheckAcid, {
    dilute: { once: { "c_0:given": "0.538", "V_e:volume.taken": "25.0", ...typed } },
  });
  const [stage] = evaluateRun(run).stages;
  return stage?.kind === "preparation" ? stage.aim : null;
}

/** 25.0 · 0.23 / 0.538 = 10.688 mL, to a drop of 0.05: 10.70, which make 0.2303 mol/L (common practice, no source). */
describe("what is taken to meet a target", () => {
  test.each<[Typed, string, RegExp]>([
    [
      { "c_t:given": "0.23" },
      "take",
      /^Take 10\.70 mL, .*: stop at the start reading and 10\.70\. It makes 0\.2303 mol\/L, 0\.1 % above the target\.$/,
    ],
    [{ "c_t:given": "0.23", "V_0:burette.initial": "13.30" }, "take", /: from 13\.30, stop at 24\.00\./],
    [
      { "c_t:given": "0.23", "V_0:burette.initial": "45.00" },
      "problem",
      /10\.70 mL from 45\.00 would end past the last mark at 50\. Refill the burette first$/,
    ],
    [
      { "c_t:given": "0.6" },
      "problem",
      /27\.9 mL do not fit into 25\.0 mL\. The stock is weaker than the target/,
    ],
    [{ "c_t:given": "0.0001" }, "problem", /0\.0046 mL is less than this glass can measure/],
    // 12.00 · 0.538 / 25.0
    [
      { "c_t:given": "0.23", "V_0:burette.initial": "0.00", "V_0:burette.final": "12.00" },
      "made",
      /^That makes 0\.2582 mol\/L, 12\.3 % above the target\. 1\.30 mL more than planned\.$/,
    ],
  ])("%j", (typed, state, words) => {
    const found = aim(typed);
    expect(found?.state).toBe(state);
    expect(plain(found?.text)).toMatch(words);
  });

  test("without a target, or a volume that it goes into, nothing is told", () => {
    expect(aim({})).toBeNull();
  });
});

test("made again: what was taken is struck through and its trials are struck out, by one change that one undo takes back", () => {
  const run = typedRun(diluteAndCheckAcid, {
    dilute: {
      once: {
        "c_t:given": "0.23",
        "c_0:given": "0.538",
        "V_e:volume.taken": "25.0",
        "V_0:burette.initial": "0.00",
        "V_0:burette.final": "10.70",
      },
    },
    check: {
      trials: ["19.00", "19.02"].map((final) => ({
        "V_a:volume.taken": "10.00",
        "V:burette.initial": "0.00",
        "V:burette.final": final,
      })),
    },
  });
  const again: RunChange = { intent: "make-again", stageKey: "dilute" };
  const applied = applyChange(run, again, context);
  if (!applied.ok || !applied.value) throw new Error("not made again");
  const { record, inverse } = applied.value;
  const [dilute, check] = evaluateRun(record).stages;
  expect(dilute).toMatchObject({ done: false, aim: { state: "take" } });
  expect(check?.kind === "titration" && check.trials.map((t) => t.record.struck?.reason)).toEqual([
    "of what was made before",
    "of what was made before",
  ]);
  // What was read stays on record, the target with it.
  expect(record.stages[0]?.observations.filter((o) => o.text !== "").length).toBe(
    run.stages[0]?.observations.length,
  );
  // Again there is nothing to strike out.
  expect(applyChange(record, again, context)).toEqual({ ok: true, value: null });
  const back = takeBack(record, inverse, context);
  if (!back.ok) throw new Error(inEnglish(back.problem.message));
  expect(plain(evaluateRun(back.value).stages.map(({ shown }) => shown?.text))).toEqual(
    plain(evaluateRun(run).stages.map(({ shown }) => shown?.text)),
  );
  const wrong = applyChange(run, { intent: "make-again", stageKey: "check" }, context);
  expect(plain(wrong.ok ? "" : wrong.problem.message)).toMatch(
    /has no target, so there is nothing to make again/,
  );
});
