import { expect, test } from "@jest/globals";
import { simulateRun } from "../simulate";
import { changeContext } from "../evaluate";
import { randomStream } from "../montecarlo";
import { mustHold } from "../result";
import { readersOf, type RunRecord } from "../run";
import { randomChange } from "../testing/random-change";
import { shapes } from "../testing/shapes";
import { plain } from "../testing/plain";
import { defaultHouseRules } from "~/catalog/rules/defaults";
import { applyChange, type RunChange } from ".";

const context = changeContext({ now: "2026-11-30T10:00:00.000Z", person: "bench 1", newId: () => "x" });
const after = (record: RunRecord, change: RunChange) => {
  const applied = applyChange(record, change, context);
  if (!applied.ok) return plain(applied.problem);
  return applied.value?.record ?? record;
};
const [shape] = shapes;
const { record: carriedOut } = mustHold(
  simulateRun({ method: shape!.method, houseRules: defaultHouseRules, truth: shape!.truth, seed: 5 }),
);
const sign = { intent: "countersign", person: " M. Finn ", note: "burette 3 looked at" } as const;

test("only a finished run is countersigned; from then on nothing of it is changed but by reopening it with a name and a reason", () => {
  const open: RunRecord = { ...carriedOut, status: "open", finishedAt: null };
  expect(after(open, sign)).toMatchObject({
    status: "refused",
    message: expect.stringMatching(/finish it first/),
  });
  const finished = after(open, { intent: "finish" }) as RunRecord;
  const [reader] = readersOf(finished);
  expect(after(finished, { ...sign, person: ` ${reader!.toUpperCase()}` })).toMatchObject({
    ...{ status: "refused", message: expect.stringMatching(/a second person countersigns it/) },
  });
  const signed = after(finished, sign) as RunRecord;
  expect(signed.countersigned).toEqual({
    ...{ at: "2026-11-30T10:00:00.000Z", person: "M. Finn", note: "burette 3 looked at" },
  });
  const ids = [...Array(400).keys()].map((i) => `01a00000-0000-7000-8000-${String(i).padStart(12, "0")}`);
  const source = { random: randomStream(3), newId: () => ids.pop()! };
  const others: RunChange[] = [
    ...[...Array(60).keys()].map(() => randomChange(open, source)),
    ...(["reopen", "archive", "finish"] as const).map((intent) => ({ intent })),
    sign,
    { intent: "undo", eventId: "01a00000-0000-7000-8000-000000000000" },
  ];
  expect(new Set(others.map(({ intent }) => intent)).size).toBeGreaterThan(8);
  for (const change of others)
    expect(after(signed, change)).toMatchObject({
      status: "refused",
      message: expect.stringMatching(/M. Finn countersigned it/),
    });

  const reopened = after(signed, { intent: "unlock", person: "J. Reed", reason: "flask 2 misread" });
  expect(reopened).toEqual(open);
  expect(after(finished, { intent: "unlock", person: "J. Reed", reason: "x" })).toMatchObject({
    status: "refused",
  });
});
