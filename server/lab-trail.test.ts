import { labWords } from "~/server/queries/in-words";
import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { v7 as newId } from "uuid";
import { methods } from "~/catalog/methods";
import { defaultHouseRules } from "~/catalog/rules/defaults";
import { labTrailCsv } from "~/formats/lab-trail-file";
import { type OpenDatabase, openDatabase } from "./lab/open-database";
import { changeRun } from "./commands/change-run";
import { currentHouseRules } from "./queries/house-rules";
import { saveHouseRules } from "./commands/house-rules";
import { labTrail } from "./queries/lab-trail";
import { bringMethodBack, removeMethod, saveMethod } from "./commands/methods";
import { findMethod, isRetired, methodChoices } from "./queries/methods";
import { startRun } from "./commands/start-run";
import { addSolution, editSolution } from "./commands/shelf";
import { solutionById } from "./queries/shelf";
import { trailOf } from "./queries/trail";
import { benchOn, reading } from "./tests/bench";
import { plain } from "~/core/testing/plain";

/* Who did what, of runs and of what belongs to none: one list, in the order in which it was written. */

let open: OpenDatabase;
beforeAll(async () => {
  open = await openDatabase(null);
});
afterAll(() => open.close());
const { begin, change, record } = benchOn(() => open);
const trail = (words: string[] = [], about: "bottle" | "method" | "run" | "house rules" | null = null) =>
  labTrail(open.db, { words, about, before: null, limit: 50 });
const by = { person: "AB", reason: "a closer look", from: "10.0.0.7" };

test("house rules, methods, bottles and readings stand in one order, each with who and why", async () => {
  await saveHouseRules(open.db, defaultHouseRules, by, { from: "Within, mL: 0.10", to: "Within, mL: 0.15" });
  const runId = await begin("Between");
  await changeRun(
    open.db,
    runId,
    reading(newId(), "m", "mass.before", "2.6106", { person: "CD" }),
    new Date(),
    "",
    "10.0.0.8",
  );
  const bottle = await addSolution(open.db, {
    ...{
      intent: "add",
      form: "solution",
      formula: "NaOH",
      name: "base",
      how: "nominal",
      value: "0.1",
      plusMinus: "",
    },
    ...{ person: "EF", amount: "500", restandardizeBy: "", hazards: "", note: "" },
  });
  const id = "id" in bottle ? bottle.id : "";
  const { revision } = (await solutionById(open.db, id))!.solution;
  await editSolution(open.db, id, {
    ...{
      intent: "edit",
      revision,
      name: "base",
      amountLeft: "400",
      restandardizeBy: "",
      hazards: "corrosive",
      note: "",
    },
    ...{ usedUp: false, person: "GH", reason: "taken for class 3" },
  });
  const lines = await trail();
  expect(plain(lines.map((l) => [l.about, l.person, l.what, l.from, l.to, l.why, l.receivedFrom]))).toEqual([
    [
      "bottle",
      "GH",
      "bottle changed",
      "left: 500 mL; hazards: none",
      "left: 400 mL; hazards: corrosive",
      "taken for class 3",
      null,
    ],
    ["bottle", "EF", "put on the shelf", null, "0.1 mol/L", null, null],
    ["run", "CD", "boat with solid 2.6106", null, "2.6106 g", null, "10.0.0.8"],
    [
      "house rules",
      "AB",
      "house rules changed",
      "Within, mL: 0.10",
      "Within, mL: 0.15",
      "a closer look",
      "10.0.0.7",
    ],
  ]);
  expect(await trail(["class", "corrosive"])).toHaveLength(1);
  expect(await trail([], "house rules")).toHaveLength(1);
  expect(
    plain(await labTrail(open.db, { words: [], about: null, before: lines[1]!.seq, limit: 1 })),
  ).toMatchObject([{ about: "run" }]);
  expect(await currentHouseRules(open.db)).toMatchObject({ person: "AB", reason: "a closer look" });
});

test("a time that a device states stands beside the time at which it was received, never before the run began", async () => {
  const began = new Date("2026-11-26T08:00:00Z");
  const runId = await begin("Late", began);
  const received = new Date("2026-11-26T09:00:00Z");
  const held = (heldSeconds: number) => ({ ...reading(newId(), "m", "mass.before", "2.6106"), heldSeconds });
  await changeRun(open.db, runId, held(600), received);
  await changeRun(open.db, runId, held(86_400), received);
  const lines = await trailOf(open.db, await record(runId));
  expect(lines.map(({ at, received: seen }) => [at, seen])).toEqual([
    [began.toISOString(), received.toISOString()],
    ["2026-11-26T08:50:00.000Z", received.toISOString()],
  ]);
});

test("an empty run that is deleted leaves a line", async () => {
  const runId = await begin("Begun by mistake");
  expect(plain(await change(runId, { intent: "delete" }))).toMatchObject({ status: "done" });
  expect(plain((await trail([], "run"))[0])).toMatchObject({
    subject: "Begun by mistake",
    what: "empty run deleted",
    person: "bench 1",
    from: expect.stringMatching(/^begun 20.*Base by potassium hydrogen phthalate/),
  });
});

test("a method that no run follows is deleted; one that runs follow is retired, and is brought back", async () => {
  const own = { ...methods[0]!, id: "own-titration", title: "Our own" };
  const save = () => saveMethod(open.db, own, by);
  const offered = async () =>
    (await methodChoices(open.db, await labWords(open.db))).some((m) => m.id === own.id);
  const start = () =>
    startRun(open.db, { intent: "start", methodId: own.id, title: "By our own", sample: "", bench: "" });
  expect(await save()).toEqual({ ok: true, value: 1 });
  expect(await removeMethod(open.db, own.id, by)).toBe("deleted");
  expect(await findMethod(open.db, own.id)).toBeNull();
  expect(await removeMethod(open.db, own.id, by)).toBeNull();

  await save();
  const begun = await start();
  expect(await removeMethod(open.db, own.id, by)).toBe("retired");
  expect([await isRetired(open.db, own.id), await offered()]).toEqual([true, false]);
  expect(plain(await start())).toMatchObject({
    ok: false,
    problem: { message: expect.stringMatching(/is retired/) },
  });
  expect((await record(begun.ok ? begun.value : "")).method.title).toBe("Our own");
  expect(await bringMethodBack(open.db, own.id, by)).toBe(true);
  expect(await offered()).toBe(true);
  expect(plain((await trail([], "method")).map((l) => [l.what, l.why]))).toEqual([
    ["method brought back", "a closer look"],
    ["method retired", "a closer look"],
    ["method added", "a closer look"],
    ["method deleted", "a closer look"],
    ["method added", "a closer look"],
  ]);
});

test("in a table, what a spreadsheet would compute is text", async () => {
  await saveHouseRules(open.db, defaultHouseRules, {
    person: "=cmd|' /C calc'!A0",
    reason: 'say "no", twice',
  });
  const [head = "", first = ""] = labTrailCsv(await trail([], "house rules")).split("\r\n");
  expect(head.split(",")).toHaveLength(14);
  expect(first).toContain(`"'=cmd|' /C calc'!A0"`);
  expect(first).toContain('"say ""no"", twice"');
});
