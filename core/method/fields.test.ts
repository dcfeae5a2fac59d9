import { describe, expect, test } from "@jest/globals";
import { asksBack } from "~/core/measure";
import { checkField, fieldKey, stageFields, type TitrationStage, trialFields } from "~/core/method";
import { evaluateRun } from "~/core/evaluate";
import type { RunRecord } from "~/core/run";
import { withDraft } from "~/core/evaluate";
import { baseByPhthalateThenAcid } from "~/catalog/methods/acid-base/base-by-phthalate-then-acid";
import { defaultHouseRules } from "~/catalog/rules/defaults";
import { flask, runRecord } from "../testing/build-record";
import { inEnglish } from "../text";
import { plain } from "../testing/plain";

const [standardize, determine] = baseByPhthalateThenAcid.stages as [TitrationStage, TitrationStage];
const houseRules = defaultHouseRules;

test("a method's data give the fields in the order of the work", () => {
  const asked = (stage: TitrationStage, rules = houseRules) =>
    trialFields(stage, rules).filter((f) => !f.outOfTurn);
  expect(plain(asked(standardize).map((f) => [fieldKey(f), f.label, f.unit]))).toEqual([
    ["m:mass.before", "Boat with solid", "g"],
    ["m:mass.after", "Boat after transfer", "g"],
    ["V:burette.initial", "Initial reading", "mL"],
    ["V:burette.final", "Final reading", "mL"],
  ]);
  expect(stageFields(standardize, houseRules).map(fieldKey)).toEqual(["P:purity", "P:purity.plus-minus"]);
  expect(plain(asked(determine).map((f) => f.label))).toEqual([
    "Aliquot of acid",
    "Initial reading",
    "Final reading",
  ]);
  const coarse = { ...houseRules, burette: { ...houseRules.burette, resolutionMl: "0.1" as const } };
  expect(plain(asked(determine, coarse).at(-1)?.hint)).toBe("one decimal, bottom of the meniscus");
});

describe("a reading is checked against the trial it belongs to", () => {
  const holder = flask("2.6106", "2.1000", "10.00", "35.00");
  const check = (stage: TitrationStage, kind: string, text: string) => {
    const field = [...trialFields(stage, houseRules), ...stageFields(stage, houseRules)].find(
      (f) => f.kind === kind,
    );
    if (!field) throw new Error(`no field ${kind}`);
    return checkField(field, text, { stage, houseRules, holder });
  };

  test.each([
    ["burette.final", "10.00", /not above the initial 10\.00/],
    ["burette.initial", "35.00", /final reading 35\.00 is not above the initial 35\.00/],
    ["mass.after", "2.6107", /weighs more after the transfer \(2\.6107 g\) than before \(2\.6106 g\)/],
    ["mass.before", "2.0999", /weighs more after the transfer \(2\.1000 g\) than before \(2\.0999 g\)/],
    ["mass.before", "2.1000", /nothing was transferred/],
    ["purity", "0", /more than zero/],
    ["purity", "100.2", /more than 100\.1 %/],
  ])("%s %s is refused", (kind, text, message) => {
    const result = check(standardize, kind, text);
    expect(plain(result.ok ? "" : result.problem.message)).toMatch(message);
  });

  test.each([
    ["mass.before", "2.9001", /0\.8001 g is above the 0\.4 to 0\.8 g/],
    ["mass.after", "2.2107", /0\.3999 g is below the 0\.4 to 0\.8 g/],
  ])("%s %s passes with a caution", (kind, text, message) => {
    const result = check(standardize, kind, text);
    expect(result.ok ? result.value.cautions.map((c) => inEnglish(c.message)).join() : "refused").toMatch(
      message,
    );
  });

  test.each([
    ["15.0", /No pipette holds 15\.0 mL: was it taken with two, 10 and 5 mL\?/, undefined],
    [
      "26.5",
      /is 25\.0 meant\? A burette, a graduated pipette or a cylinder measures it; kept, .* 50 mL measuring cylinder/,
      "25.0",
    ],
    ["3.50", /kept, it has the tolerance of a 5 mL graduated pipette/, "2.00"],
  ])(
    "an aliquot of %s mL, which no pipette has, is asked about with the ways to measure it",
    (text, message, proposal) => {
      const result = check(determine, "volume.taken", text);
      const [caution] = result.ok ? result.value.cautions : [];
      expect(plain(caution?.message)).toMatch(message);
      expect(caution?.proposal).toBe(proposal);
      expect(caution && asksBack(caution)).toBe(true);
      expect(plain(check(determine, "volume.taken", "25.00"))).toMatchObject({
        ok: true,
        value: { cautions: [] },
      });
    },
  );

  test("a certificate may state an assay a little above 100 %, and a stated number a power of ten", () => {
    expect(plain(check(standardize, "purity", "100.05"))).toMatchObject({ ok: true });
    expect(plain(check(standardize, "purity.plus-minus", "5e-2"))).toMatchObject({
      ok: true,
      value: { value: 0.05, text: "0.05" },
    });
    expect(plain(check(determine, "burette.final", "3e1"))).toMatchObject({ ok: false });
  });
});

describe("what is being typed", () => {
  const typed = (record: RunRecord, texts: Record<string, string>) =>
    withDraft(record, { stageKey: "standardize", trialId: "next", kind: "fine", texts });
  const texts = {
    "m:mass.before": "2,6106",
    "m:mass.after": "2.1000",
    "V:burette.initial": "0.00",
    "V:burette.final": "25.00",
  };
  const stageOf = (record: RunRecord) => {
    const stage = evaluateRun(record).stages[0];
    if (stage?.kind !== "titration") throw new Error("no titration");
    return stage;
  };

  test("is computed like a saved trial, and leaves the record alone", () => {
    const record = runRecord([]);
    const before = JSON.stringify(record);
    const saved = stageOf(runRecord([flask("2.6106", "2.1000", "0.00", "25.00")]));
    const draft = stageOf(typed(record, texts));
    expect(draft.combined?.quantity.value).toBe(saved.combined?.quantity.value);
    expect(plain(draft.trials[0]?.name)).toBe("1");
    expect(JSON.stringify(record)).toBe(before);
  });

  test("counts for nothing while it does not pass its check", () => {
    const half = stageOf(typed(runRecord([]), { ...texts, "V:burette.final": "25.0" }));
    expect(plain(half.trials[0])).toMatchObject({
      titerMl: null,
      result: null,
      missing: { kind: "burette.final" },
    });
    const backward = stageOf(typed(runRecord([]), { ...texts, "V:burette.initial": "30.00" }));
    expect(backward.trials[0]?.titerMl).toBeNull();
  });

  test("never stands in for a reading that is saved", () => {
    const flasks = [flask("2.6106", "2.1000", "0.00", "25.00")];
    const record = runRecord(flasks);
    const draft = {
      stageKey: "standardize",
      trialId: flasks[0]?.id ?? "",
      kind: "fine" as const,
      texts: { "V:burette.final": "26.00" },
    };
    expect(stageOf(withDraft(record, draft)).trials[0]?.titerMl).toBe(25);
  });

  test("the next trial is offered the last final reading, and the aliquot taken before", () => {
    const stage = stageOf(runRecord([flask("2.6106", "2.1000", "0.00", "25.60")]));
    expect([...stage.proposals]).toEqual([["V:burette.initial", "25.60"]]);
    const second = evaluateRun(runRecord([])).stages[1];
    expect(second?.kind === "titration" ? [...second.proposals] : []).toEqual([
      ["V_a:volume.taken", "25.00"],
    ]);
  });
});
