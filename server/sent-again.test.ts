import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { v7 as newId } from "uuid";
import type { RunRequest } from "~/protocol/requests";
import { type OpenDatabase, openDatabase } from "./lab/open-database";
import { loadRunState } from "./queries/stored-run";
import { startRun } from "./commands/start-run";
import { benchOn, reading } from "./tests/bench";
import { plain } from "~/core/testing/plain";

/* A request sent again gets the first answer; the same id with other content is a conflict; what is not there is missing. */

let open: OpenDatabase;
beforeAll(async () => {
  open = await openDatabase(null);
});
afterAll(() => open.close());
const { begin, change } = benchOn(() => open);
const revision = async (runId: string) => (await loadRunState(open.db, runId))?.record;

const course = (id: string, trialId: string, last: number): RunRequest => ({
  ...{ intent: "trace", id, stageKey: "fading", trialId, readings: [], name: "course", xUnit: "s" },
  ...{ x: [0, 1, 2], absorbance: [0.9, 0.8, last], source: "imported", person: "" },
});

describe("the same id", () => {
  const trialId = newId();
  const first = reading(trialId, "m", "mass.before", "2.6106");
  const rate = async () => {
    const begun = await startRun(open.db, {
      intent: "start",
      methodId: "fading-of-a-dye",
      title: "R",
      sample: "",
      bench: "",
    });
    return begun.ok ? begun.value : "";
  };
  const kinds: readonly (readonly [string, () => Promise<string>, RunRequest, RunRequest])[] = [
    ["of a reading, with another text", begin, first, { ...first, text: "2.7000" }],
    ["of a reading, in another field", begin, { ...first, id: newId() }, { ...first, kind: "mass.after" }],
    [
      "of a table's reading",
      begin,
      {
        intent: "enter",
        stageKey: "standardize",
        source: "typed",
        rows: [
          {
            trial: { id: trialId, kind: "fine" },
            readings: [{ id: first.id, symbol: "m", kind: "mass.before", text: "2.5000", person: "" }],
          },
        ],
      },
      {
        intent: "enter",
        stageKey: "standardize",
        source: "typed",
        rows: [
          {
            trial: { id: newId(), kind: "fine" },
            readings: [{ id: first.id, symbol: "m", kind: "mass.before", text: "2.5000", person: "" }],
          },
        ],
      },
    ],
    ["of a course", rate, course(first.id, trialId, 0.7), course(first.id, trialId, 0.6)],
    [
      "of a timer",
      begin,
      {
        intent: "start-timer",
        id: first.id,
        stageKey: "standardize",
        trialId: null,
        what: "stand",
        flask: "",
        counts: "for",
        seconds: 60,
        strict: false,
        inSeconds: null,
      },
      {
        intent: "start-timer",
        id: first.id,
        stageKey: "standardize",
        trialId: null,
        what: "stand",
        flask: "",
        counts: "for",
        seconds: 90,
        strict: false,
        inSeconds: null,
      },
    ],
  ];
  test.each(kinds)(
    "%s: again the same is done once, other content is a conflict and changes nothing",
    async (_what, start, sent, other) => {
      const runId = await start();
      // Ids of the readings of a table differ from run to run, as devices make them.
      const fresh = JSON.parse(
        JSON.stringify([sent, { ...other, ...("id" in sent && "id" in other ? { id: sent.id } : {}) }])
          .replaceAll(first.id, newId())
          .replaceAll(trialId, newId()),
      ) as [RunRequest, RunRequest];
      expect(plain(await change(runId, fresh[0]))).toMatchObject({ status: "done" });
      const after = await revision(runId);
      expect(plain(await change(runId, fresh[0]))).toMatchObject({ status: "done" });
      expect(await revision(runId)).toEqual(after);
      expect(plain(await change(runId, fresh[1]))).toMatchObject({
        status: "conflict",
        message: expect.stringMatching(/in use already/),
      });
      expect(await revision(runId)).toEqual(after);
    },
  );

  test("as a reading of another run is a conflict too, found by the database", async () => {
    const [mine, theirs] = [await begin("Mine"), await begin("Theirs")];
    const sent = reading(newId(), "m", "mass.before", "2.6106");
    await change(theirs, sent);
    const again = { ...sent, trial: { id: newId(), kind: "fine" as const } };
    expect(plain(await change(mine, again))).toMatchObject({ status: "conflict" });
    expect((await revision(mine))?.stages[0]?.trials).toEqual([]);
  });
});

test.each([
  ["a trial", { intent: "strike", trialId: newId(), reason: "x" }],
  ["a timer", { intent: "begin-timer", timerId: newId() }],
  ["a reading", { intent: "strike-reading", observationId: newId(), reason: "x" }],
  ["a spectrum", { intent: "bring-back", traceId: newId() }],
  ["a stage", { intent: "choose", stageKey: "nowhere", name: "model", value: "line" }],
] as const)("%s that this run has not is missing", async (_what, request) => {
  expect(plain(await change(await begin(), request))).toMatchObject({ status: "missing" });
});

test("the thirtieth of February is told beside its field", async () => {
  const { addSolution } = await import("./commands/shelf");
  const bottle = {
    intent: "add",
    form: "solution",
    formula: "NaOH",
    name: "base",
    how: "nominal",
    value: "0.1",
  } as const;
  const rest = { plusMinus: "", person: "AB", amount: "", hazards: "", note: "" };
  expect(plain(await addSolution(open.db, { ...bottle, ...rest, restandardizeBy: "2027-02-30" }))).toEqual({
    problems: { restandardizeBy: "There is no such day" },
  });
  expect(
    plain(await addSolution(open.db, { ...bottle, ...rest, restandardizeBy: "2028-02-29" })),
  ).toHaveProperty("id");
});
