import { describe, expect, test } from "@jest/globals";
import { baseByPhthalateThenAcid } from "~/catalog/methods/acid-base/base-by-phthalate-then-acid";
import { compileMethod, type MethodProblem } from "~/core/stages";
import type { Method, TitrationStage } from "~/core/method";
import { methodProblemWords, problemInStage } from "./method-problems";
import { recordProblemWords } from "./record-problems";
import { plain } from "~/core/testing/plain";

const message = (problem: Pick<MethodProblem, "code" | "facts">) =>
  problemInStage({ path: [], stage: null, ...problem } as MethodProblem);

describe("what a problem of a method says", () => {
  test.each<[MethodProblem["code"], MethodProblem["facts"], string]>([
    ["symbol-twice", { symbol: "m" }, "m is read twice"],
    ["unit-unknown", { symbol: "m", unit: "spoons" }, '"spoons", the unit of m, is not known'],
    ["titer-twice", {}, "A titration stage has one titer; another burette's volume is a delivered one"],
    [
      "earlier-result-unknown",
      { symbol: "q", title: "Standardize", known: ["c_b", "N"] },
      'Stage "Standardize" yields c_b, N, not q',
    ],
    [
      "not-in-unit",
      { source: "c = m", symbol: "c", dimension: "a mass", unit: "mol/L" },
      'In "c = m": c is a mass and cannot be shown in mol/L',
    ],
    ["series-no-number", { value: "some" }, '"some" in the series is not a number'],
    ["line-missing", { symbol: "c_x", stage: "scan" }, 'c_x is to be read off a line, but "scan" has none'],
    ["compared-no-titer", { on: "m", per: null }, "What must agree, m, is no titer and no titer per amount"],
    ["plausible-open", { symbol: "w" }, "w is to lie between two values, and neither is given"],
    ["withheld-unread", { symbol: "q", by: "n" }, "q depends on n, which is not read in this stage"],
    [
      "accept-dimension",
      { symbol: "c", dimension: "a mass", result: "a volume" },
      "c is a mass and the result a volume",
    ],
  ])("%s", (code, facts, words) => {
    expect(plain(message({ code, facts }))).toBe(words);
  });

  test("names the stage by its title, and how to mend what a parser found", () => {
    const [first, second] = baseByPhthalateThenAcid.stages as [TitrationStage, TitrationStage];
    const lost: Method = {
      ...baseByPhthalateThenAcid,
      stages: [
        first,
        {
          ...second,
          title: first.title,
          relations: [{ relation: "c_a = c_b * W", title: "Acid", unit: "mol/L" }],
        },
      ],
    };
    const compiled = compileMethod(lost);
    if (compiled.ok) throw new Error("accepted");
    // Two stages with one title: where it is stands in the path.
    expect(compiled.problem.path.slice(0, 2)).toEqual(["stages", 1]);
    expect(plain(methodProblemWords(compiled.problem))).toMatch(
      new RegExp(`^Stage "${first.title}": In "c_a = c_b \\* W": "W" has no value before this line`),
    );
  });
});

test("what a problem of a record says", () => {
  const at = { path: "stages.0" };
  expect(plain(recordProblemWords({ ...at, code: "points-fall", facts: { x: 3, before: 4 } }))).toBe(
    "3 does not lie beyond 4",
  );
  expect(plain(recordProblemWords({ ...at, code: "other-unit", facts: { is: "g", unit: "mg" } }))).toBe(
    "It is read in g, not in mg",
  );
  const method: MethodProblem = { code: "titer-missing", path: [], stage: "Titrate", facts: {} };
  expect(plain(recordProblemWords({ ...at, code: "method", facts: {}, method }))).toBe(
    'Stage "Titrate": A titration stage needs an input that is the titer',
  );
});
