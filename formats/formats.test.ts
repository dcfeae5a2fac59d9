import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { flask, runRecord } from "~/core/testing/build-record";
import { publishedSchemas } from "./published";
import { checkRunRequest } from "../protocol/requests";
import { checkRunRecord } from "./run-record";
import { plain } from "~/core/testing/plain";

describe("run records", () => {
  const record = runRecord([flask("2.6106", "2.1000", "0.00", "25.60")]);

  test("pass through JSON unchanged, trailing zeros and all", () => {
    const back: unknown = JSON.parse(JSON.stringify(record));
    expect(checkRunRecord(back)).toEqual({ ok: true, value: record });
    expect(JSON.stringify(back)).toContain('"text":"25.60"');
  });

  test("are refused with the place of the fault", () => {
    const wrong = { ...record, houseRules: { ...record.houseRules, plusMinus: "k9" }, extra: 1 };
    const result = checkRunRecord(wrong);
    expect(plain(result.ok ? "" : result.problem.message)).toMatch(/houseRules\.plusMinus/);
  });
});

test.each(publishedSchemas)("formats/schemas/%s is what the types say (npm run schemas)", (name, text) => {
  expect(readFileSync(`formats/schemas/${name}`, "utf8")).toBe(text);
});

test.each([
  [{ intent: "strike", trialId: "6f1e1c9e-0000-7000-8000-000000000000", reason: "   " }],
  [{ intent: "strike", reason: "overshot" }],
  [{ intent: "observe", id: "x" }],
  [{ intent: "launch" }],
  [undefined],
  [[]],
])("the request %j is refused", (request) => {
  expect(checkRunRequest(request).ok).toBe(false);
});
