import { describe, expect, test } from "@jest/globals";
import { mustHold } from "~/core/result";
import { buretteAfterDrops, type HouseRules } from "~/core/rules";
import {
  persistenceOf,
  checkField,
  maybeMarks,
  ribbonNow,
  type TitrationStage,
  trialFields,
  usualWaits,
} from "~/core/method";
import { effectsOfRules, evaluateRun } from "~/core/evaluate";
import {
  type Observation,
  type ObservationKind,
  presentObservation,
  type TimerRecord,
  type TrialRecord,
} from "~/core/record";
import type { TitrationEvaluation } from "~/core/stages";
import { workingOf } from "~/core/working";
import { simulateRun } from "~/core/simulate";
import { methods } from "~/catalog/methods";
import { baseByPhthalateThenAcid } from "~/catalog/methods/acid-base/base-by-phthalate-then-acid";
import { defaultHouseRules } from "~/catalog/rules/defaults";
import { rulesPresets } from "~/catalog/rules/presets";
import { aliquot, flask, runRecord } from "../testing/build-record";
import { plain } from "../testing/plain";
import { inEnglish } from "../text";

const stageOf = (standardize: TrialRecord[], determine: TrialRecord[] = [], rules = defaultHouseRules) =>
  evaluateRun(runRecord(standardize, determine, rules)).stages[
    determine.length > 0 ? 1 : 0
  ] as TitrationEvaluation;

const more = (
  trial: TrialRecord,
  kind: ObservationKind,
  text: string,
  change: Partial<Observation> = {},
): TrialRecord => ({
  ...trial,
  observations: [
    ...trial.observations,
    {
      ...trial.observations[0]!,
      id: `${trial.id}:${kind}:${text}`,
      symbol: "V",
      kind,
      text,
      value: text,
      unit: "mL",
      ...change,
    },
  ],
});

const changed = (change: Partial<HouseRules["burette"]>, rest: Partial<HouseRules> = {}): HouseRules => ({
  ...defaultHouseRules,
  ...rest,
  burette: { ...defaultHouseRules.burette, ...change },
});

describe("a mark that may be the end", () => {
  const marked = more(flask("2.6106", "2.1000", "0.00", "25.10"), "burette.maybe", "25.00", {
    reason: "faded after 12 s",
  });

  test("counts for nothing, and tells why it was no end", () => {
    expect(plain(stageOf([marked]).trials[0])).toMatchObject({
      titerMl: expect.closeTo(25.1, 9),
      eligible: true,
    });
    expect(maybeMarks(marked.observations, "V")).toMatchObject([
      { text: "25.00", reason: "faded after 12 s" },
    ]);
    const gone = more(marked, "burette.maybe", "", {
      id: "back",
      value: null,
      supersedes: `${marked.id}:burette.maybe:25.00`,
    });
    expect(maybeMarks(gone.observations, "V")).toEqual([]);
  });

  test("chosen for the end it is a correction, and the other reading stays in the history", () => {
    const final = marked.observations.find((o) => o.kind === "burette.final")!;
    const chosen = more(marked, "burette.final", "25.00", { supersedes: final.id, reason: "the mark" });
    const trial = stageOf([chosen]).trials[0]!;
    expect(trial.titerMl).toBeCloseTo(25, 9);
    expect(trial.fields.find((f) => f.field.kind === "burette.final")?.history.map((o) => o.text)).toEqual([
      "25.10",
      "25.00",
    ]);
  });

  test("before the start it cannot be", () => {
    const stage = baseByPhthalateThenAcid.stages[0] as TitrationStage;
    const field = trialFields(stage, defaultHouseRules).find((f) => f.kind === "burette.maybe")!;
    const check = checkField(field, "0.00", { stage, houseRules: defaultHouseRules, holder: marked });
    expect(plain(check)).toMatchObject({
      ok: false,
      problem: { message: "0.00 is not beyond the start, 0.00" },
    });
  });
});

describe("an overshot end that was brought back", () => {
  const back = (added: string, worth: string) =>
    more(more(aliquot("25.00", "0.00", "21.04"), "back.volume", added), "back.worth", worth);
  const base = flask("2.6106", "2.1000", "0.00", "25.00");

  test("leaves the titer without what the added volume took: 21.04 - 1.00 · 1.02 = 20.02", () => {
    const stage = stageOf([base], [back("1.00", "1.02"), aliquot("25.00", "0.00", "20.02")]);
    expect(stage.trials.map((t) => t.titerMl)).toEqual([expect.closeTo(20.02, 9), expect.closeTo(20.02, 9)]);
    expect(plain(stage.trials[0]?.cautions.map((c) => c.message))).toEqual([
      "overshot: 1.00 mL added back, worth 1.02 mL of titrant each",
    ]);
    // What was added, and how well its worth is known, are causes of their own.
    const leaves = [...(stage.trials[0]?.result?.sensitivities.keys() ?? [])];
    expect(leaves.filter((id) => id.startsWith("back-"))).toHaveLength(2);
    const record = runRecord([base], [back("1.00", "1.02")]);
    const [step] = workingOf(record, evaluateRun(record), "determine", null)!.steps;
    expect(plain(step?.formula)).toBe("V = final - initial - V_back·w = 21.04 - 0.00 - 1.00·1.02");
  });

  test("with only one of the two known it is as though nothing was added; with too much there is no titer", () => {
    const half = more(aliquot("25.00", "0.00", "21.04"), "back.volume", "1.00");
    expect(stageOf([base], [half]).trials[0]?.titerMl).toBeCloseTo(21.04, 9);
    expect(stageOf([base], [back("20.00", "2.00")]).trials[0]?.titerMl).toBeNull();
  });
});

describe("how it was done stands with the trial", () => {
  const trial = flask("2.6106", "2.1000", "1.20", "26.20");
  const messages = (t: TrialRecord, rules: HouseRules) =>
    stageOf([t], [], rules).trials[0]?.cautions.map((c) => c.message);

  test("a start that is not zero, where the house starts there; zero is offered", () => {
    expect(plain(messages(trial, changed({ start: "zero" })))).toEqual(["started at 1.20, not at zero"]);
    expect(messages(trial, defaultHouseRules)).toEqual([]);
    expect(stageOf([trial], [], changed({ start: "zero" })).proposals.get("V:burette.initial")).toBe("0.00");
    expect(stageOf([trial]).proposals.get("V:burette.initial")).toBe("26.20");
  });

  test("two readings of one meniscus that differ by more than the house rules allow", () => {
    const twice = more(trial, "burette.final.again", "26.40");
    expect(plain(messages(twice, defaultHouseRules))).toEqual(["final reading typed as 26.20 and as 26.40"]);
    expect(messages(more(trial, "burette.final.again", "26.22"), defaultHouseRules)).toEqual([]);
  });

  test("a burette is read in its steps, at the meniscus of the house", () => {
    const stage = baseByPhthalateThenAcid.stages[0] as TitrationStage;
    const half = changed({ resolutionMl: "0.05", meniscus: "top" });
    const field = trialFields(stage, half).find((f) => f.kind === "burette.final")!;
    expect(plain(field.hint)).toBe("to 0.05, top of the meniscus");
    const read = (text: string) =>
      checkField(field, text, { stage, houseRules: half, holder: { observations: [] } });
    expect(plain(read("24.35"))).toMatchObject({ ok: true });
    expect(plain(read("24.37"))).toMatchObject({ ok: false, problem: { proposal: "24.35" } });
    // Three drops of 0.05 mL; at the ends of its scale a burette stays.
    expect(buretteAfterDrops(24.35, 3, half)).toBe("24.50");
    expect(buretteAfterDrops(24.35, -1, defaultHouseRules)).toBe("24.30");
    expect(buretteAfterDrops(49.98, 2, defaultHouseRules)).toBe("50.00");
    // A fine tip of which somebody counted 40 drops to the mL: three of them are 0.075 mL.
    const fine = { ...defaultHouseRules, burette: { ...defaultHouseRules.burette, dropsPerMl: "40" } };
    expect(buretteAfterDrops(24.35, 3, fine)).toBe("24.43");
    expect(buretteAfterDrops(0.02, -1, defaultHouseRules)).toBe("0.00");
  });

  test("a color is watched for as long as the method says, else for 30 s; not in a rough trial, nor where there is none", () => {
    const { ribbon } = baseByPhthalateThenAcid.stages[0] as TitrationStage;
    expect(persistenceOf({ ribbon }, "fine")).toBe(30);
    expect(persistenceOf({ ribbon, persistSeconds: 15 }, "fine")).toBe(15);
    expect(persistenceOf({ ribbon, persistSeconds: 15 }, "rough")).toBeNull();
    expect(persistenceOf({ ribbon: [] }, "fine")).toBeNull();
  });

  const timer = (change: Partial<TimerRecord>): TimerRecord => ({
    id: "t",
    trialId: "x",
    what: "Let it stand",
    flask: "trial 1",
    counts: "for",
    seconds: 900,
    strict: true,
    plannedAt: null,
    startedAt: "2026-11-26T09:00:00.000Z",
    endedAt: "2026-11-26T09:17:00.000Z",
    outcome: "done",
    person: "",
    ...change,
  });

  test.each([
    [{}, ["let it stand: 17 min, 2:00 more than 15 min"]],
    [{ endedAt: "2026-11-26T09:12:00.000Z" }, ["let it stand: 12 min, 3:00 less than 15 min"]],
    [{ endedAt: "2026-11-26T09:15:10.000Z" }, []],
    [{ strict: false }, []],
    [{ outcome: "dropped" as const }, []],
    [{ trialId: "another" }, []],
  ])("a standing time %j", (change, expected) => {
    const record = runRecord([trial]);
    const timers = [timer({ trialId: trial.id, ...change })];
    const stages = record.stages.map((s, i) => (i === 0 ? { ...s, timers } : s));
    const stage = evaluateRun({ ...record, stages }).stages[0] as TitrationEvaluation;
    expect(plain(stage.trials[0]?.cautions.map((c) => c.message))).toEqual(expected);
  });
});

describe("a flask that must be warm", () => {
  const method = methods.find((m) => m.id === "permanganate-by-oxalate")!;
  const stage = method.stages.find((s): s is TitrationStage => s.kind === "titration")!;
  const check = (text: string) => {
    const field = trialFields(stage, defaultHouseRules).find((f) => f.kind === "temperature.flask")!;
    return checkField(field, text, { stage, houseRules: defaultHouseRules, holder: { observations: [] } });
  };

  test.each([
    ["48.5", /^48.5 °C is below the 55 to 60 °C of this method: warm it/],
    ["72", /^72 °C is above .*: let it cool/],
  ])("at %s °C asks before it goes on", (text, words) => {
    const checked = check(text);
    expect(plain(checked.ok && checked.value.cautions.map((c) => c.message))).toEqual([
      expect.stringMatching(words),
    ]);
  });

  test("at 57.0 °C is as it should be", () => {
    const checked = check("57.0");
    expect(checked.ok && checked.value.cautions).toEqual([]);
  });
});

test("the ribbon shows where one should be: free, near, at the end, past it", () => {
  const { ribbon } = baseByPhthalateThenAcid.stages[0] as TitrationStage;
  const looks = (now: number | null) => {
    const i = ribbonNow(ribbon, { now, slowAt: 23.5, endNear: 25 });
    return i === null ? null : ribbon[i]?.looks;
  };
  expect([10, 24.2, 24.95, 25.3, 26].map(looks)).toEqual([
    ribbon[0]?.looks,
    ribbon[1]?.looks,
    ribbon.find((s) => s.end)?.looks,
    ribbon.find((s) => s.end)?.looks,
    ribbon[3]?.looks,
  ]);
  expect(looks(null)).toBeNull();
  expect(ribbonNow(ribbon, { now: 12, slowAt: null, endNear: null })).toBeNull();
});

test("what a stage waits for: its method's times in their order, none of a day, then what any burette waits for", () => {
  const waits = usualWaits([
    { what: "dry it", minutes: 120 },
    { what: "let it stand", minutes: 15, strict: true },
    { what: "hold it warm", celsius: [55, 60] },
    { what: "titrate at once", minutes: 1, counts: "within" },
  ]);
  expect(waits.map((w) => [w.what, w.minutes, w.counts, w.strict])).toEqual([
    ["let it stand", 15, "for", true],
    ["titrate at once", 1, "within", false],
    ["let the burette wall drain", 1, "for", false],
    ["let it settle", 2, "for", false],
  ]);
});

describe("which flask is in hand", () => {
  const begun = (id: string, before: string) => {
    const whole = flask(before, "2.1000", "0.00", "25.00");
    return { ...whole, id, observations: whole.observations.slice(0, 2) };
  };
  const record = runRecord([begun("a", "2.6106"), begun("b", "2.5000"), begun("c", "2.7000")]);
  const inHand = (trialId?: string) =>
    evaluateRun(record, trialId === undefined ? undefined : { stageKey: "standardize", trialId })
      .stages[0] as TitrationEvaluation;

  test("is the last one begun, the one that is chosen, or the next", () => {
    expect(inHand().begun.map((t) => t.id)).toEqual(["a", "b", "c"]);
    expect(inHand().current?.id).toBe("c");
    expect(inHand("a").current?.id).toBe("a");
    expect(inHand("next").current).toBeNull();
  });

  test("and its own mass tells where its end should come", () => {
    // 0.4000 g and 0.6000 g of the same base: titers as 2 to 3.
    const [b, c] = [inHand("b").guidance?.titerMl ?? 0, inHand("c").guidance?.titerMl ?? 0];
    expect(c / b).toBeCloseTo(1.5, 6);
  });
});

describe("other house rules", () => {
  const trials = [
    aliquot("25.00", "0.00", "20.00"),
    aliquot("25.00", "0.00", "20.06"),
    aliquot("25.00", "0.00", "19.98"),
  ];
  const base = flask("2.6106", "2.1000", "0.00", "25.00");

  test("titers first: one result from the mean titer, written so in the working", () => {
    const rules = { ...defaultHouseRules, average: "titers" as const };
    const stage = stageOf([base], trials, rules);
    expect(stage.meanTiterMl).toBeCloseTo((20 + 20.06 + 19.98) / 3, 9);
    const c = evaluateRun(runRecord([base], trials, rules)).stages[0] as TitrationEvaluation;
    const single = c.combined!.quantity.value * (stage.meanTiterMl! / 25);
    expect(stage.combined!.quantity.value).toBeCloseTo(single, 9);
    expect(stageOf([base], trials).meanTiterMl).toBeNull();
    const record = runRecord([base], trials, rules);
    const working = workingOf(record, evaluateRun(record), "determine", null)!;
    expect(plain(working.steps.find((s) => s.id === "mean")?.formula)).toBe(
      "mean of 20.00, 20.06, 19.98 mL = 20.013 mL",
    );
    // Flasks of unlike mass have no common mean titer.
    expect(stageOf([base, flask("2.5901", "2.1000", "0.00", "24.01")], [], rules).meanTiterMl).toBeNull();
  });

  test("normality stands beside a concentration: five times that of a permanganate", () => {
    const method = methods.find((m) => m.id === "permanganate-by-oxalate")!;
    const words = { ...defaultHouseRules.words, normality: true };
    const { record } = mustHold(
      simulateRun({
        method,
        houseRules: { ...defaultHouseRules, words },
        truth: { results: { standardize: 0.02, determine: 0.02 } },
        seed: 3,
      }),
    );
    const stage = evaluateRun(record).stages.find((s): s is TitrationEvaluation => s.kind === "titration")!;
    const [normality] = stage.also.filter((a) => a.definition.unit === "N");
    expect(normality?.quantity.value).toBeCloseTo(5 * stage.combined!.quantity.value, 12);
  });

  test("a room at 25 °C is corrected for: what a titrant fixes at 20 °C does not move with the room", () => {
    const room = (labC: string) =>
      stageOf([base], trials, {
        ...defaultHouseRules,
        temperature: { ...defaultHouseRules.temperature, labC },
      });
    const c = (labC: string) => room(labC).combined!.quantity;
    // The titrant of this run was fixed in another room: n = c V, V at 20 °C is V (1 - 2.1e-4 · 5).
    const u = (labC: string) => c(labC).sensitivities.get("temperature:determine")!.leaf.u * Math.sqrt(3);
    expect([u("20"), u("25"), u("15")].map((x) => Math.round(10 * x) / 10)).toEqual([3, 3, 3]);
    // Titers are compared, and told, as they are read.
    expect(room("25").trials[0]!.titerMl).toBeCloseTo(room("20").trials[0]!.titerMl!, 12);
    expect(room("25").agreement.spread).toBeCloseTo(room("20").agreement.spread, 12);
  });

  test("are shown with their effect, and nothing else", () => {
    const record = runRecord([base], trials);
    expect(effectsOfRules(record, defaultHouseRules)).toEqual([]);
    const strict = { ...defaultHouseRules, agreement: { ...defaultHouseRules.agreement, withinMl: "0.05" } };
    const effects = effectsOfRules(record, strict);
    const findings = (what: string) =>
      effects.find((e) => e.stage === "Titrate the acid" && inEnglish(e.what) === what);
    expect(plain(findings("Trials in the set"))).toMatchObject({ from: "1, 2, 3", to: "1, 3" });
    expect(plain(findings("Next")?.to)).toMatch(/^One more trial between/);
    expect(effects.every((e) => inEnglish(e.from) !== inEnglish(e.to))).toBe(true);
    for (const { rules } of rulesPresets.slice(1)) expect(effectsOfRules(record, rules)).not.toEqual([]);
  });
});

test("a reading that was taken back leaves the earlier one of its kind out of the account", () => {
  const trial = flask("2.6106", "2.1000", "0.00", "25.00");
  const final = trial.observations.at(-1)!;
  const colorFaded = more(trial, "burette.final", "", { value: null, supersedes: final.id, reason: "faded" });
  expect(presentObservation(colorFaded.observations, "V", "burette.final")).toBeNull();
  expect(stageOf([colorFaded]).current?.id).toBe(trial.id);
});
