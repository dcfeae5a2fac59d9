import { mkdtempSync, rmSync } from "node:fs";
import { spawnSync } from "node:child_process";
import { tmpdir } from "node:os";
import path from "node:path";
import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { sql } from "drizzle-orm";
import { v7 as newId } from "uuid";
import { evaluateRun } from "~/core/evaluate";
import { mustHold } from "~/core/result";
import { checkRunRecord } from "~/formats/run-record";
import { type OpenDatabase, openDatabase } from "./lab/open-database";
import { observation, run } from "./database/schema";
import { forgetRuns, loadRunRecord } from "./queries/stored-run";
import { loadRunState } from "./queries/stored-run";
import { listOpenRuns, searchFinishedRuns } from "./queries/runs";
import { startRun } from "./commands/start-run";
import { listShelf } from "./queries/shelf";
import { seedDemo } from "./seed/demo";
import { benchOn, reading } from "./tests/bench";
import { plain } from "~/core/testing/plain";
import { inEnglish } from "~/core/text";

let open: OpenDatabase;
beforeAll(async () => {
  open = await openDatabase(null);
});
afterAll(() => open.close());

const { begin, change, record } = benchOn(() => open);

const countObservations = async () =>
  (await open.db.select({ n: sql<number>`count(*)::int` }).from(observation))[0]?.n ?? NaN;

describe("readings", () => {
  test("are kept as typed and never overwritten: a correction stands beside what it supersedes", async () => {
    const runId = await begin();
    const trialId = newId();
    await change(runId, reading(trialId, "V", "burette.initial", "0.10"));
    await change(runId, reading(trialId, "V", "burette.final", " 25,60 "));
    const [, wrong] = (await record(runId)).stages[0]!.trials[0]!.observations;
    expect(wrong).toMatchObject({ text: "25,60", value: "25.60", person: "bench 1", supersedes: null });

    const correction = reading(trialId, "V", "burette.final", "26.50", { supersedes: wrong!.id });
    expect(plain(await change(runId, correction))).toMatchObject({
      status: "refused",
      message: expect.stringMatching(/why/i),
    });
    expect(plain(await change(runId, { ...correction, reason: "digits swapped" }))).toMatchObject({
      status: "done",
    });
    const { observations } = (await record(runId)).stages[0]!.trials[0]!;
    expect(observations.map((o) => [o.text, o.supersedes, o.reason])).toEqual([
      ["0.10", null, null],
      ["25,60", null, null],
      ["26.50", wrong!.id, "digits swapped"],
    ]);
    // A second correction of what was corrected already is refused: someone else was quicker.
    expect(
      plain(
        await change(
          runId,
          reading(trialId, "V", "burette.final", "26.51", { supersedes: wrong!.id, reason: "again" }),
        ),
      ),
    ).toMatchObject({ status: "refused" });
  });

  test("sent twice are written once", async () => {
    const runId = await begin();
    const request = reading(newId(), "m", "mass.before", "2.6106");
    await change(runId, request);
    const before = await countObservations();
    expect(plain(await change(runId, request))).toMatchObject({ status: "done" });
    expect(await countObservations()).toBe(before);
  });

  test.each([
    ["a burette read to the tenth", { symbol: "V", kind: "burette.final", text: "25.6" }, "refused"],
    ["letters", { symbol: "V", kind: "burette.final", text: "25.6o" }, "refused"],
    [
      "a final reading above the initial one",
      { symbol: "V", kind: "burette.final", text: "10.00" },
      "refused",
    ],
    [
      "a field that the method does not have",
      { symbol: "W", kind: "burette.final", text: "25.60" },
      "malformed",
    ],
    ["a stage that the method does not have", { stageKey: "boil" }, "missing"],
  ] as const)("%s: nothing is changed", async (_what, wrong, status) => {
    const runId = await begin();
    const trialId = newId();
    await change(runId, reading(trialId, "V", "burette.initial", "20.00"));
    const before = await countObservations();
    const base = reading(trialId, "V", "burette.final", "25.60");
    expect(plain(await change(runId, { ...base, ...wrong }))).toMatchObject({ status });
    expect(await countObservations()).toBe(before);
  });

  test("of another run's trial, or of no run, are missing", async () => {
    const [mine, other] = [await begin(), await begin()];
    const trialId = newId();
    await change(other, reading(trialId, "V", "burette.initial", "0.10"));
    expect(plain(await change(mine, reading(trialId, "V", "burette.final", "9.10")))).toMatchObject({
      status: "conflict",
    });
    expect(plain(await change(mine, { intent: "restore", trialId }))).toMatchObject({ status: "missing" });
    expect(plain(await change(newId(), { intent: "finish" }))).toMatchObject({ status: "missing" });
  });
});

describe("undo", () => {
  test("takes back the last change, then the one before, and loses nothing", async () => {
    const runId = await begin();
    const trialId = newId();
    const undo = async () => {
      const state = await loadRunState(open.db, runId);
      return change(runId, { intent: "undo", eventId: state?.undo?.eventId ?? newId() });
    };
    const present = async () => {
      const stage = evaluateRun(await record(runId)).stages[0];
      const trial = stage?.kind === "titration" ? stage.trials[0] : undefined;
      const state = trial?.fields.find((f) => f.field.kind === "burette.initial");
      return [state?.present?.value ?? null, trial?.record.kind, trial?.record.struck?.reason ?? null];
    };
    await change(runId, reading(trialId, "V", "burette.initial", "0.10"));
    const first = (await record(runId)).stages[0]!.trials[0]!.observations[0]!;
    await change(
      runId,
      reading(trialId, "V", "burette.initial", "0.12", { supersedes: first.id, reason: "misread" }),
    );
    await change(runId, { intent: "mark", trialId, kind: "rough" });
    await change(runId, { intent: "strike", trialId, reason: "spilled" });
    expect(await present()).toEqual(["0.12", "rough", "spilled"]);
    const seen: unknown[] = [];
    for (let i = 0; i < 4; i++) {
      expect(plain(await undo())).toMatchObject({ status: "done" });
      seen.push(await present());
    }
    expect(seen).toEqual([
      ["0.12", "rough", null],
      ["0.12", "fine", null],
      ["0.10", "fine", null],
      // The flask was begun by that reading: it is none any more, and stands in the trail alone.
      [null, undefined, null],
    ]);
    expect((await record(runId)).stages[0]!.trials[0]!.observations.map((o) => o.text)).toEqual([
      "0.10",
      "0.12",
      "0.10",
      "",
    ]);
    expect(plain(await undo())).toMatchObject({ status: "refused" });
  });
});

describe("runs", () => {
  test("are deleted only while they are empty, else archived", async () => {
    const empty = await begin();
    expect(plain(await change(empty, { intent: "delete" }))).toEqual({
      status: "done",
      state: null,
      step: null,
    });
    expect(await loadRunRecord(open.db, empty)).toBeNull();

    const used = await begin();
    await change(used, reading(newId(), "m", "mass.before", "2.6106"));
    expect(plain(await change(used, { intent: "delete" }))).toMatchObject({ status: "refused" });
    expect(plain(await change(used, { intent: "finish" }))).toMatchObject({ status: "refused" });
    expect(plain(await change(used, { intent: "archive" }))).toMatchObject({ status: "done" });
    expect(plain(await change(used, reading(newId(), "m", "mass.before", "2.6")))).toMatchObject({
      status: "refused",
      message: expect.stringMatching(/reopen/),
    });
  });

  test("the demo agrees with its own chemistry", async () => {
    const demo = await openDatabase(null);
    try {
      await seedDemo(demo.db, new Date("2026-11-25T10:00:00Z"));
      const running = await listOpenRuns(demo.db);
      expect(plain(running.map((r) => inEnglish(r.summary.state)).sort())).toEqual([
        "ready to conclude",
        "ready to conclude",
        "ready to conclude",
        "stage 1 of 2",
        "stage 1 of 2",
        "stage 1 of 3",
        "stage 1 of 3",
        "stage 2 of 3",
        "stage 3 of 5",
      ]);
      // The pond holds 0.87 mg/L of phosphorus, the dye fades with 0.124 L/(mol·s), the charcoal takes up 3 c^0.4 mmol/g.
      for (const [title, truth] of [
        ["Phosphate of the pond", 0.87],
        ["Fading of the tracer dye", 0.124],
        ["Filter charcoal of the lagoon", 1.194],
      ] as const) {
        const result = running.find((r) => r.title === title)?.summary.result;
        expect([title, Math.abs(Number(result?.value) - truth) < Number(result?.plusMinus)]).toEqual([
          title,
          true,
        ]);
      }
      // What the shelf says holds the concentrations that the bottles were simulated from.
      const shelf = await listShelf(demo.db, false, new Date("2026-11-25T10:00:00Z"));
      for (const [formula, truth] of [
        ["HCl", 0.0987],
        ["Na2S2O3", 0.01242],
        ["Na2C10H14N2O8", 0.01007],
        ["NaOH", 0.1003],
      ] as const) {
        const current = shelf.find((b) => b.formula === formula)?.current;
        const off = Math.abs(Number(current?.value) - truth) / Number(current?.plusMinus);
        expect([formula, off < 3]).toEqual([formula, true]);
      }
      expect(shelf.filter((b) => b.state === "past its date").map((b) => b.formula)).toEqual(["NaOH"]);
      for (const { id } of running)
        expect(plain(checkRunRecord(await loadRunRecord(demo.db, id)))).toMatchObject({ ok: true });
      const { runs, total } = await searchFinishedRuns(demo.db, "pump ph-7");
      expect(total).toBe(1);
      // The acid was made 0.0873 mol/L; the result must hold it within its ±.
      const result = runs[0]?.summary.result;
      expect(Math.abs(Number(result?.value) - 0.0873)).toBeLessThan(Number(result?.plusMinus));
      const whole = await loadRunRecord(demo.db, runs[0]?.id ?? "");
      expect(plain(checkRunRecord(whole))).toMatchObject({ ok: true });
      const texts = whole?.stages.flatMap((s) => s.trials.flatMap((t) => t.observations)) ?? [];
      expect(texts.filter((o) => o.supersedes).map((o) => o.reason)).toEqual(["digits swapped"]);
      expect((await searchFinishedRuns(demo.db, "100%")).total).toBe(0);
    } finally {
      await demo.close();
    }
  });
});

describe("the data folder", () => {
  test("keeps everything across a restart, and refuses a second process while it is open", async () => {
    const folder = mkdtempSync(path.join(tmpdir(), "steady-bead-"));
    try {
      const first = await openDatabase(folder);
      const runId = mustHold(
        await startRun(first.db, {
          intent: "start",
          methodId: "base-by-phthalate-then-acid",
          title: "Kept",
          sample: "",
          bench: "",
        }),
      );
      const second = spawnSync(process.execPath, ["--import", "tsx", "scripts/seed-demo.ts"], {
        env: { ...process.env, DATA_DIR: folder, NODE_OPTIONS: "" },
        encoding: "utf8",
      });
      expect(second.status).toBe(1);
      expect(second.stderr).toMatch(/is in use by process \d+\. Stop that server first/);
      await first.close();

      const again = await openDatabase(folder);
      expect((await loadRunRecord(again.db, runId))?.title).toBe("Kept");
      await again.close();
    } finally {
      rmSync(folder, { recursive: true, force: true });
    }
  });
});

test("undo passes over a countersignature: what it takes back after reopening is what was changed before", async () => {
  const { db } = open;
  const runId = await begin("Countersigned");
  const one = (id: string) => change(runId, reading(id, "V", "burette.initial", "0.10"));
  await one(newId());
  const before = (await loadRunState(db, runId))?.undo;
  await db
    .update(run)
    .set({ status: "finished", finishedAt: new Date() })
    .where(sql`id = ${runId}`);
  forgetRuns(runId);
  const sign = { intent: "countersign", person: "M. Finn", note: "" } as const;
  expect(await change(runId, sign)).toMatchObject({ status: "done" });
  const locked = await loadRunState(db, runId);
  expect(locked?.record.countersigned).toMatchObject({ person: "M. Finn" });
  expect(locked?.undo).toBeNull();
  expect(plain(await one(newId()))).toMatchObject({
    status: "refused",
    message: expect.stringMatching(/countersigned/),
  });
  expect(plain(await change(runId, { intent: "recompute" }))).toMatchObject({ status: "refused" });
  await change(runId, { intent: "unlock", person: "J. Reed", reason: "misread" });
  const again = await loadRunState(db, runId);
  expect(again?.record).not.toHaveProperty("countersigned");
  expect(again?.undo).toEqual(before);
});
