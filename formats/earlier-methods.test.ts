import { readFileSync } from "node:fs";
import { expect, test } from "@jest/globals";
import { methods } from "~/catalog/methods";
import { evaluateRun } from "~/core/evaluate";
import { shoppingList } from "~/core/plan";
import type { Method } from "~/core/method";
import { fileOfMethod } from "./concluded";
import { withQuantities } from "./earlier-methods";
import { readMethodFile } from "./method-file";
import { readRunRecord } from "./run-report";
import { inEnglish } from "~/core/text";
import { plain } from "~/core/testing/plain";

const counts = { benches: 3, trials: 4, marginPercent: 10 };

/** A method as it was written when the amounts of its reagents were words alone. */
const inWords = (method: Method): Method => ({
  ...method,
  stages: method.stages.map((stage) => ({
    ...stage,
    ...(stage.reagents ? { reagents: stage.reagents.map(({ quantity: _, ...words }) => words) } : {}),
  })),
});

test("what the words of every method of the library told is what its numbers tell", () => {
  for (const method of methods) {
    const before = shoppingList(withQuantities(inWords(method)).stages, counts);
    expect([method.id, before]).toEqual([method.id, shoppingList(method.stages, counts)]);
  }
});

test("the file of a method in words alone opens, with the numbers that they tell", () => {
  const [method] = methods;
  if (!method) throw new Error("no method");
  const read = readMethodFile(JSON.stringify(fileOfMethod(inWords(method))));
  expect(plain(read)).toEqual({ method });
});

test("the file of a run from before amounts were numbers opens unchanged, and computes as the one of today", () => {
  const open = (file: string) => {
    const read = readRunRecord(JSON.parse(readFileSync(file, "utf8")));
    if ("problems" in read) throw new Error(inEnglish(read.problems[0]?.message ?? ""));
    return read.record;
  };
  const before = open("formats/fixtures/run-with-amounts-in-words.json");
  const today = open("formats/examples/solid-in-each-flask-then-direct.json");
  expect(before.method.stages[0]?.reagents?.every(({ quantity }) => quantity === undefined)).toBe(true);
  expect(evaluateRun(before).stages.map(({ shown }) => shown)).toEqual(
    evaluateRun(today).stages.map(({ shown }) => shown),
  );
});
