import { describe, expect, test } from "@jest/globals";
import { diproticAcidByCurve } from "~/catalog/methods/acid-base/diprotic-acid-by-curve";
import { acidByConductance } from "~/catalog/methods/acid-base/acid-by-conductance";
import { defaultHouseRules } from "~/catalog/rules/defaults";
import { applyChange, type RunChange } from "~/core/change";
import { changeContext, evaluateRun } from "~/core/evaluate";
import type { Method } from "~/core/method";
import { mustHold } from "~/core/result";
import type { RunRecord } from "~/core/run";
import { simulateRun } from "~/core/simulate";
import { begunRun } from "~/core/testing/build-record";
import { acidByBase, branchPairs, type Pair, steps } from "~/core/testing/closed-curves";
import { plain } from "~/core/testing/plain";
import { type CurveStageEvaluation, readCurvesInWorker, readerOf } from "..";

let ids = 0;
const newId = () => `id ${++ids}`;
const context = changeContext({ now: "2026-11-30T10:00:00.000Z", person: "bench 1", newId });
const stageKey = "determine";

/** What comes of a change: the record, or what is said against it. */
function after(record: RunRecord, change: RunChange): RunRecord {
  const applied = applyChange(record, change, context);
  if (!applied.ok) throw new Error(String(plain(applied.problem.message)));
  return applied.value?.record ?? record;
}
const refusal = (record: RunRecord, change: RunChange) => {
  const applied = applyChange(record, change, context);
  return applied.ok ? null : plain(applied.problem.message);
};

const read = (id: string, key: string, text: string, burette?: string): RunChange => {
  const [symbol = "", kind = ""] = key.split(":");
  return {
    ...{ intent: "observe", id: newId(), stageKey, trial: { id, kind: "fine" }, symbol, text },
    kind: kind as "point",
    ...{ supersedes: null, reason: null },
    ...(burette === undefined ? {} : { point: { burette } }),
  };
};

const stageOf = (record: RunRecord) => evaluateRun(record).stages[0] as CurveStageEvaluation;

/** A beaker of 0.2000 g, the burette from 1.50. */
const begun = (record: RunRecord, id: string, grams = 0.2) =>
  [
    read(id, "m:mass.before", (2 + grams).toFixed(4)),
    read(id, "m:mass.after", "2.0000"),
    read(id, "E:burette.initial", "1.50"),
  ].reduce(after, record);

const pointsOf = (id: string, pairs: readonly Pair[], decimals = 2) =>
  pairs.map(([ml, shown]) => read(id, "E:point", shown.toFixed(decimals), (1.5 + ml).toFixed(2)));

/** 0.2000 g of tartaric acid, 150.086 g/mol, in 100 mL. */
const tartaric = (grams: number, pHs: readonly number[]) =>
  acidByBase(
    { ml: 100, titrant: 0.1, pKw: 14.1652 },
    { molPerL: grams / 150.086 / 0.1, pKas: [3.036, 4.366] },
    pHs,
  );
const start = (method: Method = diproticAcidByCurve) => begunRun(method);

describe("a curve in a run", () => {
  const whole = pointsOf("a", tartaric(0.2, steps(2.5, 11.2, 40))).reduce(after, begun(start(), "a"));

  test("its volumes count from the start of the burette, and its result is that of the acid", () => {
    const stage = stageOf(whole);
    const [curve] = stage.trials;
    expect(curve!.points[0]!.volume).toBeCloseTo(tartaric(0.2, steps(2.5, 11.2, 40))[0]![0], 2);
    expect(curve!.ends[0]!.taken!.way).toBe("fit");
    expect(stage.done).toBe(true);
    expect(Number(stage.shown!.value)).toBeCloseTo(75.04, 0);
    const [z, molar, first, second] = stage.also.map(({ shown }) => Number(shown.value));
    expect(z).toBe(2);
    expect(molar).toBeCloseTo(150.1, 0);
    expect(first).toBeCloseTo(3.04, 1);
    expect(second).toBeCloseTo(4.37, 1);
    // What the ± is made of: the titrant, the burette, the balance, the meter's buffers, and the reading of the curve itself.
    expect(stage.shares.map(({ label }) => plain(label)).join()).toMatch(/Concentration of the base/);
    expect(stage.trials[0]!.symbols.get("V")!.sensitivities.get("curve:a:V")!.leaf.u).toBeGreaterThan(0);
  });

  test("an end that was found by a line or by the shape alone is known less well, and protons can be stated", () => {
    const choose = (name: string, value: string) =>
      stageOf(after(whole, { intent: "choose", stageKey, name, value }));
    const u = (stage: CurveStageEvaluation) =>
      stage.trials[0]!.symbols.get("V")!.sensitivities.get("curve:a:V")!.leaf.u;
    // Two points a hundredth of a milliliter apart tell no more than a reading of the burette does.
    expect(u(choose("way", "steepest"))).toBeGreaterThan(0.01 / Math.sqrt(3));
    expect(u(stageOf(whole))).toBeLessThan(0.01 / Math.sqrt(3));
    expect(choose("protons", "1").also[1]!.shown.value).toMatch(/^75\./);
    expect(refusal(whole, { intent: "choose", stageKey, name: "protons", value: "9" })).not.toBeNull();
  });

  test("read elsewhere, as in a worker, it has no result until that comes, and then the same one", () => {
    const record = pointsOf("a", tartaric(0.201, steps(2.5, 11.2, 40))).reduce(
      after,
      begun(start(), "a", 0.201),
    );
    const asked: (() => void)[] = [];
    readCurvesInWorker(({ reads, points, setting }, found) =>
      asked.push(() => found(readerOf({ reads }).read(points, setting))),
    );
    try {
      const waiting = stageOf(record);
      expect([waiting.shown, waiting.problem, plain(waiting.next)]).toEqual([
        null,
        null,
        "The whole curve is being fitted",
      ]);
      expect(stageOf(record).trials[0]!.fitting).toBe(true);
      // Asked once, however often the run is looked at.
      expect(asked).toHaveLength(1);
      asked.forEach((answer) => answer());
      expect(Number(stageOf(record).shown!.value)).toBeCloseTo(75.04, 0);
    } finally {
      readCurvesInWorker(null);
    }
  });

  test("an electrode that is off by a constant is asked of the fit where somebody wants it", () => {
    const off = tartaric(0.2, steps(2.5, 11.2, 60)).map(([ml, pH]): Pair => [ml, pH + 0.08]);
    const record = pointsOf("a", off, 3).reduce(after, begun(start(), "a"));
    const asked = stageOf(after(record, { intent: "choose", stageKey, name: "offset", value: "fitted" }));
    const [best] = asked.trials[0]!.reading!.fits;
    expect(Math.abs(best!.fit.offset!.value - 0.08)).toBeLessThan(3 * best!.fit.offset!.u);
    expect(best!.fit.pKas[1]!.value).toBeCloseTo(4.366, 1);
    // Taken for a sound one, the constants are off by as much as the electrode.
    expect(stageOf(record).trials[0]!.reading!.fits[0]!.fit.offset).toBeNull();
    expect(asked.fitted).toEqual({ offset: true, carbonate: false });
  });

  test("the next curve is led by this one: its jump is expected where as much acid again would have it", () => {
    const next = begun(whole, "b", 0.15);
    const [, curve] = stageOf(pointsOf("b", tartaric(0.15, steps(2.6, 5.1, 9))).reduce(after, next)).trials;
    expect(plain(curve!.next.why)).toMatch(/expected near 20\.0 mL/);
    // The first one, at the same place, had the points alone to go by.
    const alone = stageOf(
      pointsOf("b", tartaric(0.15, steps(2.6, 5.1, 9))).reduce(after, begun(start(), "b", 0.15)),
    );
    expect(plain(alone.trials[0]!.next.why)).not.toMatch(/expected/);
    // By what the method presumes, 75 g/mol, where somebody goes by that.
    expect(alone.trials[0]!.expected).toEqual({ by: "theory", ml: [expect.closeTo(20, 1)] });
    const led = after(begun(start(), "b", 0.15), {
      ...{ intent: "choose", stageKey, name: "ahead", value: "theory" },
    });
    const [byTheory] = stageOf(pointsOf("b", tartaric(0.15, steps(2.6, 5.1, 9))).reduce(after, led)).trials;
    expect(plain(byTheory!.next.why)).toMatch(/expected near 20\.\d mL/);
  });

  test("a point is struck out with a reason, brought back, and corrected with its volume", () => {
    const { id, value, buretteMl } = stageOf(whole).trials[0]!.taken[20]!;
    const count = stageOf(whole).trials[0]!.points.length;
    const struck = after(whole, { intent: "strike-reading", observationId: id, reason: "taken too soon" });
    const [without] = stageOf(struck).trials;
    expect(without!.points).toHaveLength(count - 1);
    expect(without!.taken[20]).toMatchObject({ value, buretteMl, struck: { reason: "taken too soon" } });
    const back = after(struck, { intent: "restore-reading", observationId: without!.taken[20]!.id });
    expect(stageOf(back).trials[0]!.taken[20]).toMatchObject({ value, buretteMl, struck: null });
    const corrected = after(whole, {
      ...(read("a", "E:point", "4.00", "14.85") as Extract<RunChange, { intent: "observe" }>),
      ...{ supersedes: id, reason: "misread" },
    });
    expect(stageOf(corrected).trials[0]!.taken[20]).toMatchObject({ value: 4, buretteMl: 14.85 });
  });
});

describe("how many protons a jump stands for", () => {
  const ofSeed = (seed: number) =>
    mustHold(
      simulateRun({
        method: diproticAcidByCurve,
        houseRules: defaultHouseRules,
        truth: { results: {} },
        seed,
      }),
    ).record;

  test("one more than there are describes scatter a little better by chance: they are not taken, and it is told", () => {
    // Of 200 simulated runs these two have a curve that three constants describe better, by the criterion alone.
    for (const seed of [34, 44]) {
      const [stage] = evaluateRun(ofSeed(seed)).stages;
      if (stage?.kind !== "curve") throw new Error("no curve");
      const doubted = stage.trials.filter(({ reading }) => {
        const [two, three] = [2, 3].map((n) => reading!.fits.find(({ protons }) => protons === n)!.fit.aicc!);
        return three! < two!;
      });
      expect(doubted).toHaveLength(1);
      expect(stage.cautions.map(({ message }) => plain(message)).join()).toMatch(
        /^3 protons describe .* better than 2/,
      );
      const [z, , first, second] = stage.also.map(({ shown }) => Number(shown.value));
      expect(z).toBe(2);
      expect(first).toBeCloseTo(3.036, 1);
      expect(second).toBeCloseTo(4.366, 1);
    }
  });

  test("curves that do not tell the same number have no mean; once it is stated, they have", () => {
    // Twice the equivalents of one proton: the same volume at the jump.
    const other = acidByBase(
      { ml: 100, titrant: 0.1, pKw: 14.1652 },
      { molPerL: 0.2 / 75.043 / 0.1, pKas: [4.2] },
      steps(2.5, 11.2, 40),
    );
    const first = pointsOf("a", tartaric(0.2, steps(2.5, 11.2, 40))).reduce(after, begun(start(), "a"));
    const both = pointsOf("b", other).reduce(after, begun(first, "b"));
    const stage = stageOf(both);
    expect(stage.agreement.members.toSorted()).toEqual(["a", "b"]);
    expect([stage.combined, stage.also]).toEqual([null, []]);
    expect(plain(stage.problem!)).toMatch(/do not tell the same number of protons, 1 and 2/);
    const stated = after(both, {
      ...{ intent: "choose", stageKey: stage.key, name: "protons", value: "2" },
    });
    expect(stageOf(stated).also[0]?.quantity.value).toBe(2);
  });
});

describe("what is wrong with a point, or with a curve", () => {
  const half = pointsOf("a", tartaric(0.2, steps(2.5, 4.4, 9))).reduce(after, begun(start(), "a"));

  test("a point needs the burette, which goes on and not back before its start; pH lies between -1 and 15", () => {
    expect(refusal(half, read("a", "E:point", "4.50"))).toMatch(/needs the reading of the burette/);
    expect(refusal(half, read("a", "E:point", "4.50", "0.90"))).toMatch(
      /less than the burette’s start, 1.50/,
    );
    expect(refusal(half, read("a", "E:point", "4.50", "51.00"))).toMatch(/beyond the last mark/);
    expect(refusal(half, read("a", "E:point", "15.3", "30.00"))).toMatch(/15\.3 is more than 15/);
    expect(refusal(half, read("a", "m:mass.before", "2.2", "30.00"))).toMatch(/Only a point/);
  });

  test("a curve that stops before its jump has no result, and the advice says what lies ahead", () => {
    const stage = stageOf(half);
    expect(stage.combined).toBeNull();
    expect(stage.done).toBe(false);
    expect(stage.trials[0]!.next.do).toBe("add");
  });

  test("a jump that was stepped over is told, with what is left; a point that turns back too", () => {
    const pHs = steps(2.5, 5.2, 20).concat(steps(10.6, 11.5, 12));
    const stepped = pointsOf("a", tartaric(0.2, pHs)).reduce(after, begun(start(), "a"));
    const said = stageOf(stepped).cautions.map(({ message }) => plain(message));
    expect(said.join()).toMatch(/stepped over between 2\d\.\d\d and 2\d\.\d\d mL.*fit/);
    const odd = after(half, read("a", "E:point", "3.10", "17.90"));
    expect(
      stageOf(odd)
        .cautions.map(({ message }) => plain(message))
        .join(),
    ).toMatch(/turns back at 16\.40 mL/);
  });
});

test("where two branches cross is found from points away from it, and equal steps are advised", () => {
  const beaker = [read("a", "V_a:volume.taken", "20.00"), read("a", "G:burette.initial", "1.50")];
  const pairs = branchPairs(200, 9.4, [2.1, 0.6, 0.13], steps(0, 16, 16));
  const record = pairs
    .map(([ml, shown]) => read("a", "G:point", shown.toFixed(4), (1.5 + ml).toFixed(2)))
    .reduce(after, beaker.reduce(after, start(acidByConductance)));
  const stage = stageOf(record);
  expect(stage.trials[0]!.crossing!.volume).toBeCloseTo(9.4, 2);
  expect(Number(stage.shown!.value)).toBeCloseTo(0.047, 4);
  const first = stageOf(
    after(beaker.reduce(after, start(acidByConductance)), read("a", "G:point", "2.100", "1.50")),
  );
  expect(first.trials[0]!.next).toMatchObject({ do: "add", ml: 1 });
});
