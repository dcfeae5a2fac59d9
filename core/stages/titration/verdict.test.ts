import { describe, expect, test } from "@jest/globals";
import { evaluateRun } from "~/core/evaluate";
import type { HouseRules } from "~/core/rules";
import type { RunRecord } from "~/core/run";
import { standsOn, workingOf } from "~/core/working";
import { type TitrationEvaluation, expectedReading, percentBeside } from "~/core/stages";
import { withDraft } from "~/core/evaluate";
import { slipChecks } from "~/core/measure";

import { defaultHouseRules } from "~/catalog/rules/defaults";
import { aliquot, flask, runRecord } from "../../testing/build-record";
import { plain } from "../../testing/plain";

const base = [
  flask("2.6106", "2.1000", "0.00", "25.00"),
  flask("2.5901", "2.1000", "0.10", "24.11"),
  flask("2.6310", "2.1000", "0.20", "26.18"),
];

const stageOf = (record: RunRecord, key: string): TitrationEvaluation => {
  const stage = evaluateRun(record).stages.find((s) => s.key === key);
  if (stage?.kind !== "titration") throw new Error("no such stage");
  return stage;
};

const agreement = (replicates: number, withinMl: string): HouseRules => ({
  ...defaultHouseRules,
  agreement: { rule: "n-within", replicates, withinMl },
});

/** Aliquots of 25.00 mL by their titers; "r" before one marks it rough, "s" struck out. */
const aliquots = (titers: string) =>
  titers
    .split(" ")
    .filter(Boolean)
    .map((t) =>
      aliquot("25.00", "0.00", t.replace(/^[rs]/, ""), {
        kind: t.startsWith("r") ? "rough" : "fine",
        struck: t.startsWith("s"),
      }),
    );

describe("the verdict says what was found, the rule, and what to do", () => {
  test.each([
    [
      "",
      3,
      "0.10",
      "No trial counts yet. House rule: three within 0.10 mL of each other.",
      "Three trials to go",
    ],
    [
      "r20.60",
      3,
      "0.10",
      "Only the rough trial is there, and it does not count. House rule: three within 0.10 mL of each other.",
      "Three trials to go",
    ],
    [
      "r20.60 20.00",
      3,
      "0.10",
      "Only trial 1 so far. House rule: three within 0.10 mL of each other. It rests on a presumed purity of the phthalate.",
      "Two more trials; the next agrees between 19.90 and 20.10 mL",
    ],
    [
      "20.00 20.30 20.60",
      3,
      "0.10",
      "No two of the three trials lie within 0.10 mL of each other; they spread over 0.60 mL. House rule: three within 0.10 mL of each other.",
      "Two more trials; the next agrees between 19.90 and 20.10 mL, or between 20.20 and 20.40 mL, or between 20.50 and 20.70 mL",
    ],
    [
      "20.00 20.05 20.40 20.45",
      3,
      "0.10",
      "Trials 1 and 2 agree, and so do trials 3 and 4: it is not clear yet which are right. " +
        "House rule: three within 0.10 mL of each other.",
      "One more trial between 19.95 and 20.10 mL, or between 20.35 and 20.50 mL, decides",
    ],
    [
      "20.00 s25.00 20.10",
      2,
      "0.10",
      "Trials 1 and 3 lie within 0.10 mL. House rule: two within 0.10 mL of each other. It rests on a presumed purity of the phthalate.",
      "Go on: Conclude",
    ],
    [
      "20.00",
      1,
      "0.10",
      "House rule: one trial is enough. It rests on a presumed purity of the phthalate.",
      "Go on: Conclude",
    ],
    [
      "20.00 20.21",
      2,
      "0.20",
      "Trials 1 and 2 disagree: they are 0.21 mL apart. House rule: two within 0.20 mL of each other.",
      // 20.41 agrees with the second: both windows run into one.
      "One more trial between 19.80 and 20.41 mL closes the set",
    ],
  ])("titers %j, %i within %s mL", (titers, n, within, reason, next) => {
    const { verdict } = stageOf(runRecord(base, aliquots(titers), agreement(n, within)), "determine");
    expect(plain([verdict.reason, verdict.next])).toEqual([reason, next]);
  });

  test("of unlike flasks it speaks of the flask they are compared as", () => {
    const two = [flask("2.6106", "2.1000", "0.00", "25.00"), flask("2.6310", "2.1000", "0.00", "26.30")];
    const { verdict } = stageOf(runRecord(two), "standardize");
    // 25.00/0.5106·0.52 = 25.460; 26.30/0.5310·0.52 = 25.755
    expect(plain(verdict.reason)).toMatch(/^Trials 1 and 2 disagree: they are 0\.29 mL per 0\.52 g apart\./);
    // 25.46 ± 0.10 and 25.755 ± 0.10
    expect(plain(verdict.next)).toMatch(
      /between 25\.37 and 25\.56 mL, or between 25\.66 and 25\.85 mL per 0\.52 g$/,
    );
  });
});

describe("guidance", () => {
  const guided = (trials: ReturnType<typeof aliquots>, texts: Record<string, string>) =>
    stageOf(
      withDraft(runRecord(base, trials), { stageKey: "determine", trialId: "next", kind: "fine", texts }),
      "determine",
    ).guidance;

  test.each([
    [
      "20.00",
      { "V_a:volume.taken": "25.00", "V:burette.initial": "0.00" },
      /^Trial 2: run freely to 18\.5, then drop by drop\. Expect the end point near 20\.00 mL\. The burette has enough left/,
    ],
    [
      "r20.60",
      { "V_a:volume.taken": "25.00", "V:burette.initial": "0.00" },
      /^Trial 1: run freely to 18\.5, .* near 20\.6 mL, by the rough trial/,
    ],
    [
      "20.00",
      { "V_a:volume.taken": "10.00", "V:burette.initial": "5.00" },
      /run freely to 11\.5, .* near 13\.00/,
    ],
    [
      "20.00",
      { "V_a:volume.taken": "25.00", "V:burette.initial": "31.00" },
      /expect the end point near 51\.00 mL, past the last mark at 50\. Refill the burette first/,
    ],
    [
      "20.00",
      { "V_a:volume.taken": "100.00" },
      /about 80\.0 mL are needed, more than the burette holds\. Take less/,
    ],
    [
      "2.00",
      { "V_a:volume.taken": "10.00", "V:burette.initial": "0.00" },
      /^Trial 2: go drop by drop\. Expect the end point near 0\.80 mL/,
    ],
  ])("after %s, with %j typed", (titers, texts, sentence) => {
    expect(plain(guided(aliquots(titers), texts)?.text)).toMatch(sentence);
  });

  test("of an unknown there is none before the first trial", () => {
    expect(guided([], { "V_a:volume.taken": "25.00", "V:burette.initial": "0.00" })).toBeNull();
  });

  test("an aliquot of another size moves the window with it", () => {
    const guidance = guided(aliquots("20.00 20.04"), {
      "V_a:volume.taken": "20.00",
      "V:burette.initial": "0.00",
    });
    // 19.94 to 20.10 per 25.00 mL is 15.952 to 16.080 for 20.00 mL
    expect(guidance?.joins.map((w) => w.map((x) => x.toFixed(3)))).toEqual([["15.952", "16.080"]]);
  });
});

describe("the working", () => {
  const rough = flask("2.6104", "2.1000", "0.00", "24.60", { kind: "rough" });
  const record = runRecord([rough, ...base], aliquots("20.00 20.06 19.98"));
  const evaluation = evaluateRun(record);

  test("of a rough trial ends at its own result: it has no part in the mean", () => {
    const working = workingOf(record, evaluation, "standardize", rough.id);
    expect(working?.steps.map((s) => s.id)).toEqual(["m", "V", "n_s", "n_b", "c_b"]);
    expect(plain(working?.steps[1]?.title)).toBe("Titer of the rough trial");
  });

  test("says where the ± comes from, and what the result stands on", () => {
    const steps = workingOf(record, evaluation, "determine", null)?.steps ?? [];
    expect(plain(steps.find((s) => s.id === "uncertainty")?.title)).toMatch(
      /the scatter of the trials, s\/√3 with s = 0\.000\d+/,
    );
    expect(plain(steps.at(-1)?.title)).toBe("Concentration of the acid, rounded once, with its ± (k = 2)");
    expect(standsOn(evaluation, record.method, "determine").map(({ title }) => title)).toEqual([
      "Potassium hydrogen phthalate",
      "Concentration of the base",
      "Concentration of the acid",
    ]);
    const same = runRecord(base, aliquots("20.00 20.00 20.00"));
    const lucky = workingOf(same, evaluateRun(same), "determine", null)?.steps.find(
      (s) => s.id === "uncertainty",
    );
    expect(plain(lucky?.title)).toMatch(/reading and weighing, since the trials scatter less/);
  });

  test("is not there while no trial is complete, nor for a stage that titrates nothing", () => {
    const empty = runRecord([]);
    expect(workingOf(empty, evaluateRun(empty), "standardize", null)).toBeNull();
    expect(workingOf(record, evaluation, "conclude", null)).toBeNull();
  });
});

describe("while nothing agrees", () => {
  const titration = (
    titers: string,
    texts: Record<string, string> | null = null,
    rules = agreement(3, "0.10"),
  ) => {
    const record = runRecord(base, aliquots(titers), rules);
    const drafted = texts
      ? withDraft(record, { stageKey: "determine", trialId: "next", kind: "fine", texts })
      : record;
    return stageOf(drafted, "determine");
  };

  test("nothing is outside, no result is had from one of them, and all that disagree are expected again", () => {
    const stage = titration("20.00 21.20", { "V_a:volume.taken": "25.00", "V:burette.initial": "0.00" });
    expect(plain(stage.agreement)).toMatchObject({ state: "apart", members: [], closed: false });
    expect(plain([stage.combined, stage.shown, stage.done])).toEqual([null, null, false]);
    expect(stage.agreement.spread).toBeCloseTo(1.2, 9);
    expect(stage.guidance?.ends.map((e) => e.toFixed(2))).toEqual(["20.00", "21.20"]);
    expect(plain(stage.guidance?.text)).toMatch(/near 20\.00 or 21\.20/);
    expect(stage.guidance?.slowAt).toBeLessThan(20);
  });

  const slipsOf = (titers: string, typed: string) => {
    const stage = titration(titers, { "V_a:volume.taken": "25.00", "V:burette.initial": "0.00" });
    const expected = expectedReading({ kind: "burette.final" }, stage.guidance);
    return slipChecks(typed, "mL", 2, expected);
  };
  test("a reading that agrees with any complete trial that counts is no slip", () => {
    expect(slipsOf("20.00 21.20", "21.20")).toEqual([]);
    expect(slipsOf("20.00 21.20", "20.05")).toEqual([]);
    // 20.00, 20.04 and 20.02 agree; 21.20 was left out, and is met again.
    expect(slipsOf("20.00 20.04 20.02 21.20", "21.25")).toEqual([]);
    const [far] = slipsOf("20.00 21.20", "22.20");
    expect(plain(far?.message)).toMatch(
      /Based on the trials before, expect about 20\.00 or 21\.20 mL.*Is 21\.20 meant/,
    );
  });

  test("a third decides, whichever it joins", () => {
    const lower = titration("20.00 21.20 20.05", null, agreement(2, "0.10"));
    expect([lower.agreement.members.length, lower.done]).toEqual([2, true]);
    expect(plain(lower.verdict.reason)).toMatch(/Trials 1 and 3 .* Trial 2 is left out/);
    expect(plain(titration("20.00 21.20 21.20", null, agreement(2, "0.10")).verdict.reason)).toMatch(
      /Trials 2 and 3 /,
    );
  });

  test("a rough trial that was overshot says where the end is not", () => {
    const rough = aliquot("25.00", "0.00", "24.90", { kind: "rough" });
    const over = {
      ...rough,
      observations: [
        ...rough.observations,
        {
          ...rough.observations[0]!,
          id: "over",
          symbol: "V",
          kind: "end.overshot" as const,
          text: "1",
          value: "1",
          unit: "",
        },
      ],
    };
    const guided = (trial: typeof rough) =>
      stageOf(
        withDraft(runRecord(base, [trial]), {
          ...{ stageKey: "determine", trialId: "next", kind: "fine" as const },
          texts: { "V_a:volume.taken": "25.00", "V:burette.initial": "0.00" },
        }),
        "determine",
      ).guidance;
    expect(plain(guided(rough))).toMatchObject({ before: false, slowAt: 22.5 });
    const bound = guided(over);
    expect(plain(bound)).toMatchObject({ before: true, slowAt: 19.5 });
    expect(plain(bound?.text)).toMatch(/Expect the end point before 24\.9 mL: the rough trial overshot it/);
    expect(expectedReading({ kind: "burette.final" }, bound)).toBeNull();
  });
});

test("a percentage in a verdict can be told from its limit", () => {
  expect([
    percentBeside(5.04, 5),
    percentBeside(5, 5),
    percentBeside(3.14, 5),
    percentBeside(4.9999, 5),
  ]).toEqual([...["5.04", "5.0", "3.1", "4.9999"]]);
});
