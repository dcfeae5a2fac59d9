import { labWords } from "~/server/queries/in-words";
import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { eq } from "drizzle-orm";
import { v7 as newId } from "uuid";
import { baseByPhthalateThenAcid } from "~/catalog/methods/acid-base/base-by-phthalate-then-acid";
import { defaultHouseRules } from "~/catalog/rules/defaults";
import { aliasOf, offered } from "~/catalog/methods";
import type { Method } from "~/core/method";
import { baseByPhthalateSolution } from "~/catalog/methods/acid-base/base-by-phthalate-solution";
import { mustHold } from "~/core/result";
import { checkRecord, evaluateRun } from "~/core/evaluate";
import { waysToMeasure } from "~/core/inputs";
import { type HeldAgainst, methodOf, type Role } from "~/core/run";
import { fieldHistory } from "~/core/record";
import { type OpenDatabase, openDatabase } from "./lab/open-database";
import { observation, run } from "./database/schema";
import { currentHouseRules } from "./queries/house-rules";
import { saveHouseRules } from "./commands/house-rules";
import { listMethods, methodChoices, offeredMethod } from "./queries/methods";
import { putMethods } from "./commands/methods";
import { loadRunState } from "./queries/stored-run";
import { listOpenRuns, searchFinishedRuns } from "./queries/runs";

import { runsOfSeries } from "./queries/series";
import { ofItsMethod, startRun } from "./commands/start-run";
import { benchOn, reading, wholeFlask } from "./tests/bench";
import { inEnglish } from "~/core/text";
import { plain } from "~/core/testing/plain";

let open: OpenDatabase;
beforeAll(async () => {
  open = await openDatabase(null);
});
afterAll(() => open.close());
const { begin, change, record } = benchOn(() => open);

const weigh = async (runId: string, after: string, final: string, kind: "rough" | "fine" = "fine") => {
  const trialId = newId();
  for (const request of wholeFlask(trialId, after, final, kind)) await change(runId, request);
  return trialId;
};

/** 0.5106 g in 25.00 mL and its like: 0.10001 mol/L. */
const closeTheSet = async (runId: string) => {
  await weigh(runId, "2.1000", "25.00");
  await weigh(runId, "2.1205", "24.01");
  return weigh(runId, "2.0796", "25.98");
};

describe("what lists show", () => {
  test("is the evaluation of what was saved, kept with the run at each change", async () => {
    const runId = await begin("Summaries");
    const summary = async () => (await open.db.select().from(run).where(eq(run.id, runId)))[0]?.summary;
    expect(plain(await summary())).toMatchObject({
      state: "just begun",
      next: "Weigh the first flask",
      result: null,
    });
    await weigh(runId, "2.1000", "24.60", "rough");
    expect(plain(await summary())).toMatchObject({ state: "stage 1 of 3", next: "Three trials to go" });
    await weigh(runId, "2.1000", "25.00");
    const evaluation = evaluateRun(await record(runId));
    expect(await summary()).toEqual({
      chain: evaluation.chain,
      next: evaluation.next,
      state: evaluation.state,
      result: evaluation.result,
    });
    expect(plain(evaluation.next)).toMatch(
      /^Two more trials; the next agrees between 24\.\d\d and 25\.\d\d mL$/,
    );
  });

  test("comes newest first, finds every word, and counts what it does not show", async () => {
    for (let i = 1; i <= 4; i++) {
      const runId = await begin(`Skimmer acid ${i}`, new Date(Date.UTC(2026, 10, i)));
      await closeTheSet(runId);
      await change(runId, {
        ...reading(newId(), "V_a", "volume.taken", "25.00"),
        stageKey: "determine",
      });
    }
    const running = (await listOpenRuns(open.db)).filter((r) => r.title.startsWith("Skimmer"));
    expect(running.map((r) => r.title)).toEqual([
      "Skimmer acid 4",
      "Skimmer acid 3",
      "Skimmer acid 2",
      "Skimmer acid 1",
    ]);
    expect(running[0]?.summary.chain.map((bead) => bead.state)).toEqual(["done", "current", "ahead"]);
    for (const { id } of running) await change(id, { intent: "archive" });
    const found = await searchFinishedRuns(open.db, "ACID skimmer R-1", { limit: 3 });
    expect([found.total, found.runs.length]).toEqual([4, 3]);
    expect((await searchFinishedRuns(open.db, "skimmer 3")).runs.map((r) => r.title)).toEqual([
      "Skimmer acid 3",
    ]);
    expect((await searchFinishedRuns(open.db, "skimmer", { archived: true })).total).toBe(4);
    // Without words, what is archived stays out of the way; signs that mean something to the database mean themselves.
    expect((await searchFinishedRuns(open.db, "")).total).toBe(0);
    for (const sign of ["%", "_", "\\", "'"]) expect((await searchFinishedRuns(open.db, sign)).total).toBe(0);
  });
});

describe("house rules and methods", () => {
  test("a run keeps the rules with which it began", async () => {
    const before = await begin("Old rules");
    const strict = { ...defaultHouseRules, agreement: { ...defaultHouseRules.agreement, withinMl: "0.01" } };
    await saveHouseRules(open.db, strict, { person: "AB", reason: "closer" });
    const after = await begin("New rules");
    try {
      await closeTheSet(before);
      await closeTheSet(after);
      const states = [before, after].map(async (id) => evaluateRun(await record(id)).chain[0]?.state);
      expect(await Promise.all(states)).toEqual(["done", "current"]);
      expect((await currentHouseRules(open.db)).data).toEqual(strict);
    } finally {
      await saveHouseRules(open.db, defaultHouseRules, { person: "AB", reason: "as before" });
    }
  });

  test("a run keeps the version of its method; new runs take the newest", async () => {
    const old = await begin("Version 1");
    const { version } = baseByPhthalateThenAcid;
    await putMethods(open.db, [
      { ...baseByPhthalateThenAcid, version: version + 1, title: "Base and acid, revised" },
    ]);
    const revised = await begin("Version 2");
    expect((await record(old)).method.version).toBe(version);
    expect((await record(revised)).method).toMatchObject({
      version: version + 1,
      title: "Base and acid, revised",
    });
    expect(await listMethods(open.db)).toHaveLength(offered.length);
    // What was used last is offered first, and each way in leads to fitting methods.
    const choices = await methodChoices(open.db, await labWords(open.db));
    expect(choices.find(({ recent }) => recent === 0)?.id).toBe(baseByPhthalateThenAcid.id);
    const ways = (id: string) => {
      const choice = choices.find((c) => c.id === id)!;
      return [choice.standardizes, choice.findsUnknown, choice.family];
    };
    expect(ways("edta-by-zinc")).toEqual([true, false, "complexometric"]);
    expect(ways("water-hardness")).toEqual([true, true, "complexometric"]);
    expect(ways("phosphate-as-molybdenum-blue")).toEqual([false, false, "colorimetric"]);
    // Putting a version again, with other contents, changes nothing: runs stand on it.
    await putMethods(open.db, [{ ...baseByPhthalateThenAcid, title: "Forged" }]);
    expect((await record(old)).method.title).toBe(baseByPhthalateThenAcid.title);
    await expect(
      putMethods(open.db, [
        {
          ...baseByPhthalateThenAcid,
          version: version + 2,
          equations: [{ name: "wrong", equation: "HCl -> NaCl" }],
        },
      ]),
    ).rejects.toThrow(/equation-unbalanced/);
  });
});

describe("trials", () => {
  test("keep their numbers, whatever becomes of the others", async () => {
    const runId = await begin("Numbers");
    const rough = await weigh(runId, "2.1000", "24.60", "rough");
    const first = await weigh(runId, "2.1000", "25.00");
    await weigh(runId, "2.1000", "25.03");
    const names = async () => {
      const stage = evaluateRun(await record(runId)).stages[0];
      return stage?.kind === "titration" ? stage.trials.map((t) => t.name) : [];
    };
    expect(plain(await names())).toEqual(["rough", "1", "2"]);
    await change(runId, { intent: "mark", trialId: first, kind: "rough" });
    expect(plain(await names())).toEqual(["rough", "rough", "2"]);
    await change(runId, { intent: "mark", trialId: first, kind: "fine" });
    await change(runId, { intent: "mark", trialId: rough, kind: "fine" });
    expect(plain(await names())).toEqual(["3", "1", "2"]);
    await change(runId, { intent: "label", trialId: rough, label: " blue flask " });
    expect(plain(await names())).toEqual(["blue flask", "1", "2"]);
    await change(runId, { intent: "label", trialId: rough, label: "" });
    expect(plain(await names())).toEqual(["3", "1", "2"]);
  });

  test("struck out twice or restored when nothing was struck out: refused", async () => {
    const runId = await begin("Strike");
    const trialId = await weigh(runId, "2.1000", "25.00");
    expect(plain(await change(runId, { intent: "restore", trialId }))).toMatchObject({ status: "refused" });
    await change(runId, { intent: "strike", trialId, reason: "overshot" });
    expect(plain(await change(runId, { intent: "strike", trialId, reason: "again" }))).toMatchObject({
      status: "refused",
    });
    expect(plain((await loadRunState(open.db, runId))?.undo?.description)).toBe("trial 1 struck out");
  });
});

describe("two people at one run", () => {
  test("who corrects a reading that was corrected meanwhile is told so", async () => {
    const runId = await begin("Two tabs");
    const trialId = newId();
    await change(runId, reading(trialId, "V", "burette.initial", "0.10"));
    const seen = (await record(runId)).stages[0]!.trials[0]!.observations[0]!;
    const correction = (text: string) =>
      change(
        runId,
        reading(trialId, "V", "burette.initial", text, { supersedes: seen.id, reason: "misread" }),
      );
    const both = await Promise.all([correction("0.12"), correction("0.13")]);
    expect(both.map((outcome) => outcome.status).sort()).toEqual(["done", "refused"]);
    expect(plain(both.find((o) => o.status === "refused"))).toMatchObject({
      message: expect.stringMatching(/This was read as 0\.1[23] meanwhile/),
    });
    const history = fieldHistory(
      (await record(runId)).stages[0]!.trials[0]!.observations,
      "V",
      "burette.initial",
    );
    expect(history).toHaveLength(2);
    // Undoing what someone else has already built on is refused as well.
    expect(plain(await change(runId, { intent: "undo", eventId: newId() }))).toMatchObject({
      status: "refused",
      message: expect.stringMatching(/changed since/),
    });
  });

  test("many readings at once are all kept, in an order that their ids tell", async () => {
    const runId = await begin("Many");
    const ids = Array.from({ length: 12 }, () => newId());
    const outcomes = await Promise.all(
      ids.map((id) => change(runId, reading(newId(), "m", "mass.before", "2.6106", { id }))),
    );
    expect(outcomes.every((o) => o.status === "done")).toBe(true);
    const { stages } = await record(runId);
    expect(stages[0]?.trials.map((t) => t.number)).toEqual(ids.map((_, i) => i + 1));
    const kept = await open.db
      .select({ id: observation.id })
      .from(observation)
      .where(eq(observation.stageId, stages[0]!.id));
    expect(kept.map((o) => o.id).sort()).toEqual([...ids].sort());
    expect([...ids].sort()).toEqual(ids);
  });
});

test("finished, a run is read only until it is reopened; every step can be undone", async () => {
  const runId = await begin("Life of a run");
  await closeTheSet(runId);
  expect(plain(await change(runId, { intent: "finish" }))).toMatchObject({
    status: "refused",
    message: expect.stringMatching(/no result yet/),
  });
  const trial = { id: newId(), kind: "fine" as const };
  for (const [symbol, kind, text] of [
    ["V_a", "volume.taken", "25.00"],
    ["V", "burette.initial", "0.00"],
    ["V", "burette.final", "20.00"],
  ] as const) {
    await change(runId, { ...reading(trial.id, symbol, kind, text), stageKey: "determine" });
  }
  expect(plain(await change(runId, { intent: "finish" }))).toMatchObject({
    status: "done",
    state: { record: { status: "finished" } },
  });
  expect(plain(await change(runId, { intent: "finish" }))).toMatchObject({ status: "refused" });
  expect(plain(await change(runId, { intent: "rename", title: "x", sample: "", bench: "" }))).toMatchObject({
    status: "refused",
    message: expect.stringMatching(/reopen it to change it/),
  });
  await change(runId, { intent: "reopen" });
  await change(runId, { intent: "rename", title: "Renamed", sample: "", bench: "bench 2" });
  expect((await searchFinishedRuns(open.db, "life")).total).toBe(0);
  const undone: (string | undefined)[] = [];
  for (let i = 0; i < 3; i++) {
    const offer = (await loadRunState(open.db, runId))?.undo;
    await change(runId, { intent: "undo", eventId: offer?.eventId ?? "" });
    const { title, status } = await record(runId);
    undone.push(`${inEnglish(offer?.description ?? "")}: ${title}, ${status}`);
  }
  expect(undone).toEqual([
    "run renamed: Life of a run, open",
    "reopening of the run: Life of a run, finished",
    "finishing of the run: Life of a run, open",
  ]);
});

test("a run that is like another is measured in its ways; one of another method, or like none that is there, in the method's own", async () => {
  const start = async (methodId: string, like: string) => {
    const about = { title: "Measured", sample: "", bench: "" };
    return mustHold(await startRun(open.db, { intent: "start", methodId, ...about, like }));
  };
  const first = await start("acid-by-base", "");
  const own = (await record(first)).method.stages[0]!.inputs.find(({ is }) => is === "pipette")!;
  const { input } = waysToMeasure(own, defaultHouseRules).find(({ key }) => key === "cylinder")!;
  const choose = { intent: "choose-input", stageKey: (await record(first)).stages[0]!.key } as const;
  expect(plain(await change(first, { ...choose, symbol: own.symbol, input }))).toMatchObject({
    status: "done",
  });

  const next = await record(await start("acid-by-base", first));
  expect(next.choices).toEqual([{ stageKey: choose.stageKey, input }]);
  expect(methodOf(next).stages[0]!.inputs).toContainEqual(input);
  expect((await record(await start("weak-acid-in-food", first))).choices ?? []).toEqual([]);
  expect((await record(await start("acid-by-base", newId()))).choices ?? []).toEqual([]);
});

test("a name of the library begins its method with the choices made; an old run by that name leads on to the method", async () => {
  const about = { intent: "start", title: "By name", sample: "", bench: "" } as const;
  const start = async (methodId: string, like = "") =>
    record(mustHold(await startRun(open.db, ofItsMethod({ ...about, methodId, like }))));
  const named = await start("permanganate-by-iron");
  expect([named.method.id, methodOf(named).stages.map(({ key }) => key)]).toEqual([
    "iron-in-solution",
    ["standardize"],
  ]);
  const alias = aliasOf("weak-acid-in-drops")!;
  const drops = await start(alias.id);
  expect([drops.method.id, drops.choices]).toEqual(["weak-acid-in-food", alias.choices]);
  // The next one is like it, whatever name it is looked for by; and like one in which the choices were taken back.
  expect((await start("weak-acid-in-food", drops.id)).choices).toEqual(alias.choices);
  await change(drops.id, { intent: "adapt", stageKey: "determine", adapted: "undiluted", on: false });
  expect((await start(alias.id, drops.id)).choices).toHaveLength(1);

  const its = (await offeredMethod(open.db, "iron-in-solution"))!;
  expect(await offeredMethod(open.db, "permanganate-by-iron", its.version)).toMatchObject({
    id: "permanganate-by-iron",
  });
  expect(await offeredMethod(open.db, "permanganate-by-iron", 99)).toBeNull();

  // A lab of an older library has the method itself under that name, and runs by it.
  const old: Method = { ...offered.find(({ id }) => id === "acid-by-cylinder")!, version: 1 };
  await putMethods(open.db, [old]);
  const before = await record(mustHold(await startRun(open.db, { ...about, methodId: old.id })));
  expect([before.method.id, before.method.version]).toEqual([old.id, 1]);
  expect(await offeredMethod(open.db, old.id, 1)).toEqual(old);
  const listed = (await listMethods(open.db)).filter(({ id }) => id === old.id);
  expect(listed.map(({ data }) => data)).toEqual([await offeredMethod(open.db, old.id)]);
  const next = await start(old.id, before.id);
  expect([next.method.id, next.series?.id]).toEqual(["acid-by-base", before.id]);
});

test("several runs begin at once, each by its line; a value that cannot be begins none, and says at which stage", async () => {
  const about = {
    intent: "start",
    methodId: "base-by-phthalate-then-acid",
    title: "acid",
    sample: "",
    bench: "",
  } as const;
  const line = (sample: string, role: Role, amount = "") => ({ sample, bench: "bench 7", role, amount });
  const stated = (value: string) => [
    { stageKey: "standardize", assignmentId: null, value, plusMinus: "0.0002", from: "certificate 12" },
  ];
  const several = [line("R-1", "sample"), line("R-1", "spiked", "0.05"), line("QC", "check", "0.1000")];
  const runsBefore = await open.db.$count(run);
  const wrong = await startRun(open.db, { ...about, known: stated("-1"), several });
  expect(wrong).toMatchObject({ ok: false, problem: { stageKey: "standardize" } });
  expect(await open.db.$count(run)).toBe(runsBefore);

  const seriesId = mustHold(await startRun(open.db, { ...about, known: stated("0.1000"), several }));
  const records = await runsOfSeries(open.db, seriesId);
  expect(records.map(({ title, bench, series }) => [title, bench, series])).toEqual([
    ["R-1, acid", "bench 7", { id: seriesId, role: "sample", place: 0 }],
    ["R-1, acid", "bench 7", { id: seriesId, role: "spiked", place: 1, added: "0.05" }],
    ["QC, acid", "bench 7", { id: seriesId, role: "check", place: 2 }],
  ]);
  for (const one of records) {
    expect(checkRecord(one)).toEqual([]);
    expect(evaluateRun(one).chain[0]).toMatchObject({ state: "done", source: "certificate 12" });
  }
  expect(records[2]?.choices).toContainEqual({
    stageKey: "determine",
    heldAgainst: { against: "value", label: "Known value", tolerance: "", in: "percent" },
  });

  // One more like the check belongs to them, is known and held against alike, and states it anew without a reason.
  const next = await record(mustHold(await startRun(open.db, { ...about, like: records[2]!.id })));
  expect(next.series).toEqual({ id: seriesId, role: "sample" });
  expect(next.choices).toHaveLength(2);
  const kinds = next.stages.flatMap(({ observations }) =>
    observations.map(({ symbol, kind, text }) => [symbol, kind, text]),
  );
  expect(kinds).toEqual(
    expect.arrayContaining([
      ["c_b", "given", "0.1000"],
      ["c_b", "given.plus-minus", "0.0002"],
      ["ref", "given", "0.1000"],
    ]),
  );
  expect(await runsOfSeries(open.db, seriesId)).toHaveLength(4);
});

test("a check standard among runs that ask for a further result is known in the unit of that", async () => {
  const about = {
    intent: "start",
    methodId: "weak-acid-in-food",
    title: "liquor",
    sample: "",
    bench: "",
  } as const;
  const first = mustHold(await startRun(open.db, about));
  const heldAgainst: HeldAgainst = {
    ...{ against: "value", label: "Label", tolerance: "5", in: "percent", result: "γ" },
  };
  expect(
    plain(await change(first, { intent: "hold-against", stageKey: "determine", heldAgainst })),
  ).toMatchObject({
    status: "done",
  });
  const several = [{ sample: "QC", bench: "", role: "check" as const, amount: "5.0" }];
  const seriesId = mustHold(await startRun(open.db, { ...about, like: first, several }));
  const check = (await runsOfSeries(open.db, seriesId)).find(({ series }) => series?.role === "check");
  const stated = check!.stages.flatMap(({ observations }) =>
    observations.map(({ symbol, text, unit }) => [symbol, text, unit]),
  );
  expect(stated).toContainEqual(["ref_γ", "5.0", "% w/v"]);
  expect(methodOf(check!).stages[0]?.result.symbol).toBe("γ");
});

describe("stages of other shapes", () => {
  test("a preparation takes its readings once, feeds the next stage, and has no trials", async () => {
    const runId = mustHold(
      await startRun(open.db, {
        intent: "start",
        methodId: baseByPhthalateSolution.id,
        title: "Phthalate in a flask",
        sample: "",
        bench: "bench 5",
      }),
    );
    const once = (symbol: string, kind: "mass.before" | "mass.after" | "volume.taken", text: string) =>
      reading(newId(), symbol, kind, text, { stageKey: "prepare", trial: null });
    expect(plain(await change(runId, once("m", "mass.before", "7.2056")))).toMatchObject({ status: "done" });
    expect(plain(await change(runId, once("m", "mass.after", "7.2100")))).toMatchObject({
      status: "refused",
      message: expect.stringMatching(/weighs more after the transfer/) as unknown,
    });
    expect(plain(await change(runId, once("m", "mass.after", "2.1000")))).toMatchObject({ status: "done" });
    // The flask is presumed until somebody says that it was that one.
    expect(plain(evaluateRun(await record(runId)).stages[0])).toMatchObject({
      done: false,
      missing: { kind: "volume.taken" },
      shown: { value: "0.10000" },
    });
    expect(plain(await change(runId, once("V_f", "volume.taken", "250.0")))).toMatchObject({
      status: "done",
    });
    expect(
      plain(await change(runId, reading(newId(), "m", "mass.before", "7.2056", { stageKey: "prepare" }))),
    ).toMatchObject({ status: "malformed" });

    const trialId = newId();
    const more = { stageKey: "standardize", trial: { id: trialId, kind: "fine" as const } };
    for (const request of [
      reading(trialId, "V_a", "volume.taken", "25.00", more),
      reading(trialId, "V", "burette.initial", "0.00", more),
      reading(trialId, "V", "burette.final", "24.85", more),
    ]) {
      expect(plain(await change(runId, request))).toMatchObject({ status: "done" });
    }
    const [prepare, standardize] = evaluateRun(await record(runId)).stages;
    // 5.1056 g / 204.222 g/mol / 0.2500 L = 0.1000 mol/L; · 25.00 / 24.85
    expect(plain(prepare)).toMatchObject({ kind: "preparation", done: true, shown: { value: "0.10000" } });
    expect(standardize?.kind === "titration" && standardize.shown?.value).toBe("0.10060");
    const [summary] = await open.db.select().from(run).where(eq(run.id, runId));
    expect(plain(summary?.summary.chain[0])).toMatchObject({
      state: "done",
      fact: expect.stringMatching(/^0\.10000 ± /) as unknown,
    });
  });
});
